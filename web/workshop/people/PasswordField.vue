<script setup lang="ts">
import { mdiEye, mdiEyeOff } from '@mdi/js';
import { ref } from 'vue';

/** A password that is typed once and may be looked at: wet hands and small keys make two blind tries of one. */
defineProps<{
  label: string;
  /** of several on a page, for who hears their buttons */
  which?: string;
  autocomplete: 'new-password' | 'current-password';
  errors?: string[];
  hint?: string;
}>();
const password = defineModel<string>({ required: true });
const shown = ref(false);
</script>

<template>
  <v-text-field
    v-model="password"
    :label="label"
    :type="shown ? 'text' : 'password'"
    :autocomplete="autocomplete"
    :error-messages="errors"
    :hint="hint"
    :persistent-hint="hint !== undefined"
    spellcheck="false"
  >
    <template #append-inner>
      <v-btn
        :icon="shown ? mdiEyeOff : mdiEye"
        variant="text"
        size="small"
        :aria-label="
          which
            ? shown
              ? `Hide what is typed: ${which}`
              : `Show what is typed: ${which}`
            : shown
              ? 'Hide what is typed'
              : 'Show what is typed'
        "
        :aria-pressed="shown"
        @click="shown = !shown"
      />
    </template>
  </v-text-field>
</template>
