<script setup lang="ts">
import { ref } from 'vue';
import { useSubmit } from '../../base/http/useSubmit.js';
import PasswordField from './PasswordField.vue';
import { thisDevice } from './thisDevice.js';
import { useSession } from './sessionStore.js';

const emit = defineEmits<{ done: [] }>();
const session = useSession();
const submit = useSubmit();
const email = ref('');
const password = ref('');

async function signIn(): Promise<void> {
  const done = await submit.run(async () => {
    await session.signIn({ email: email.value, password: password.value, device: thisDevice() });
    return true;
  });
  if (done) emit('done');
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="signIn">
    <v-text-field v-model="email" label="E-mail" type="email" autocomplete="username" :error-messages="submit.at('email')" />
    <PasswordField v-model="password" label="Password" autocomplete="current-password" :errors="submit.at('password')" />
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn type="submit" size="x-large" :loading="submit.busy.value">Sign in</v-btn>
    <details class="forgot">
      <summary>Forgotten?</summary>
      <p class="quiet">
        A lead of your workshop gives you a new one under Workshop, People. A lead who forgot asks whoever keeps the server:
        <code>./lavacrum password</code> with the e-mail address.
      </p>
    </details>
  </form>
</template>

<style scoped>
.forgot summary {
  min-height: 44px;
  align-content: center;
  cursor: pointer;
}
.forgot p {
  margin: 0;
}
</style>
