<script setup lang="ts">
import { ref } from 'vue';
import { LINK_MINUTES } from '@core/edge/words/passwordLetter.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import PasswordField from './PasswordField.vue';
import { thisDevice } from './thisDevice.js';
import { useSession } from './sessionStore.js';

const emit = defineEmits<{ done: [] }>();
const session = useSession();
const submit = useSubmit();
const email = ref('');
const password = ref('');
const asking = useSubmit();
/** the address that a link was asked for */
const askedFor = ref('');

async function signIn(): Promise<void> {
  const done = await submit.run(async () => {
    await session.signIn({ email: email.value, password: password.value, device: thisDevice() });
    return true;
  });
  if (done) emit('done');
}

async function askForLink(): Promise<void> {
  const address = email.value.trim();
  const done = await asking.run(() => call('POST', '/password-link', { body: { email: address } }));
  if (done) askedFor.value = address;
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="signIn">
    <v-text-field
      v-model="email"
      label="E-mail"
      type="email"
      autocomplete="username"
      :error-messages="[...submit.at('email'), ...asking.at('email')]"
    />
    <PasswordField v-model="password" label="Password" autocomplete="current-password" :errors="submit.at('password')" />
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn type="submit" size="x-large" :loading="submit.busy.value">Sign in</v-btn>
    <details class="forgot">
      <summary>Forgotten?</summary>
      <p v-if="askedFor" role="status">
        If {{ askedFor }} has an account here, a letter with a link is on its way. It opens once, within {{ LINK_MINUTES }} minutes.
      </p>
      <template v-else>
        <p class="quiet">A letter with a link to a new one goes to the e-mail address above.</p>
        <v-btn variant="outlined" size="large" :loading="asking.busy.value" @click="askForLink">Send me a link</v-btn>
        <p v-if="asking.problem.value" role="alert" class="danger">{{ asking.problem.value }}</p>
      </template>
      <p class="quiet">
        No mailbox at hand: a lead of your workshop gives you a new one under Workshop, People; a lead asks whoever keeps the server:
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
  margin: 8px 0;
}
</style>
