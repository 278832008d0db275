<script setup lang="ts">
import { ref } from 'vue';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useSession } from './sessionStore.js';

const emit = defineEmits<{ done: [] }>();
const session = useSession();
const submit = useSubmit();
const email = ref('');
const password = ref('');

async function signIn(): Promise<void> {
  const done = await submit.run(async () => {
    await session.signIn({ email: email.value, password: password.value });
    return true;
  });
  if (done) emit('done');
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="signIn">
    <v-text-field v-model="email" label="E-mail" type="email" autocomplete="username" :error-messages="submit.at('email')" />
    <v-text-field
      v-model="password"
      label="Password"
      type="password"
      autocomplete="current-password"
      :error-messages="submit.at('password')"
    />
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn type="submit" size="x-large" :loading="submit.busy.value">Sign in</v-btn>
  </form>
</template>
