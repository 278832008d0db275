<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { LEAST_PASSWORD_LENGTH } from '@core/workshop/people/roles.js';
import PasswordField from './PasswordField.vue';

/** A password that somebody chooses for oneself, with what makes one hard to guess. */
const password = defineModel<string>({ required: true });
defineProps<{ errors: string[] }>();
const which = say('the new one');
</script>

<template>
  <PasswordField
    v-model="password"
    label="Your new password"
    :which="which"
    autocomplete="new-password"
    :hint="`At least ${LEAST_PASSWORD_LENGTH} letters. Four words that do not belong together are easy to type and hard to guess.`"
    :errors="errors"
  />
</template>
