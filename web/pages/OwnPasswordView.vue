<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { call } from '../base/http/api.js';
import { useSubmit } from '../base/http/useSubmit.js';
import { useNotices } from '../base/shell/notices.js';
import NewPasswordField from '../workshop/people/NewPasswordField.vue';
import PasswordField from '../workshop/people/PasswordField.vue';
import ReadingForm from '../workshop/people/ReadingForm.vue';
import SignedInList from '../workshop/people/SignedInList.vue';
import { nextPath } from '../workshop/people/nextPath.js';
import { useSession } from '../workshop/people/sessionStore.js';

/** One's own password, and where one is signed in. After a first password that somebody else chose, this page comes by itself. */
const session = useSession();
const route = useRoute();
const router = useRouter();
const notices = useNotices();
const submit = useSubmit();
const current = ref('');
const password = ref('');
const isFirst = computed(() => session.account?.firstPassword === true);

async function change(): Promise<void> {
  const done = await submit.run(() => call('PUT', '/own-password', { body: { current: current.value, password: password.value } }));
  if (!done) return;
  current.value = '';
  password.value = '';
  const wasFirst = isFirst.value;
  await session.load();
  notices.say(say('Changed. Your other devices are signed out.'));
  if (wasFirst) await router.replace(nextPath(route.query.next));
}
const which = say('the one until now');
</script>

<template>
  <main class="page">
    <h1>{{ isFirst ? 'A password of your own' : 'Your account' }}</h1>
    <p v-if="isFirst" class="lead">
      The one that you signed in with was chosen by somebody else. Take one that only you know; what you write down here stands under your
      name.
    </p>
    <form class="stack own" novalidate @submit.prevent="change">
      <!-- for password managers: whose it is -->
      <input type="text" autocomplete="username" :value="session.account?.personName" hidden />
      <PasswordField
        v-model="current"
        :label="isFirst ? 'The password you were given' : 'Your password now'"
        :which="which"
        autocomplete="current-password"
        :errors="submit.at('current')"
      />
      <NewPasswordField v-model="password" :errors="submit.at('password')" />
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <div class="row">
        <v-btn type="submit" size="x-large" :loading="submit.busy.value">Change it</v-btn>
        <v-btn v-if="isFirst" variant="text" size="large" to="/today">Later</v-btn>
      </div>
    </form>
    <section v-if="!isFirst" class="mt-8">
      <h2>How you read numbers, days and words</h2>
      <ReadingForm class="mt-4" />
    </section>
    <SignedInList v-if="!isFirst" class="mt-8" />
  </main>
</template>

<style scoped>
.own {
  max-width: 520px;
  margin-top: 16px;
}
.lead {
  max-width: 62ch;
}
</style>
