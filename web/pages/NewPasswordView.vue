<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../base/http/api.js';
import { useSubmit } from '../base/http/useSubmit.js';
import { useNotices } from '../base/shell/notices.js';
import ColumnDrawing from '../base/shell/ColumnDrawing.vue';
import NewPasswordField from '../workshop/people/NewPasswordField.vue';

/** Where the link of a letter leads: a password is chosen, and every device of before is signed out. */
const router = useRouter();
const notices = useNotices();
const submit = useSubmit();
const password = ref('');
/** it stands behind the hash sign, which no server ever sees; gone from the address at once, so that nobody reads it over a shoulder */
const link = window.location.hash.slice(1);
if (link) window.history.replaceState(window.history.state, '', window.location.pathname);

async function choose(): Promise<void> {
  const done = await submit.run(() => call('POST', '/new-password', { body: { link, password: password.value } }));
  if (!done) return;
  notices.say(say('That is your password now. Sign in with it.'));
  await router.replace('/sign-in');
}
</script>

<template>
  <main class="door">
    <ColumnDrawing class="door-drawing" />
    <section class="door-form">
      <h1>A new password</h1>
      <form v-if="link" class="stack" novalidate @submit.prevent="choose">
        <p class="quiet mb-2">Every device that is signed in with the old one is signed out.</p>
        <NewPasswordField v-model="password" :errors="submit.at('password')" />
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <v-btn type="submit" size="x-large" :loading="submit.busy.value">Take it</v-btn>
      </form>
      <p v-else>This page is opened by the link of a letter. Ask for one where you sign in.</p>
      <p><router-link to="/sign-in">To sign in</router-link></p>
    </section>
  </main>
</template>

<style scoped src="../workshop/people/door.css"></style>
