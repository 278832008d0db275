<script setup lang="ts">
import { reactive } from 'vue';
import { useRouter } from 'vue-router';
import { LEAST_PASSWORD_LENGTH } from '@core/workshop/people/roles.js';
import { useSubmit } from '../base/http/useSubmit.js';
import ColumnDrawing from '../base/shell/ColumnDrawing.vue';
import { useSession } from '../workshop/people/sessionStore.js';

const session = useSession();
const router = useRouter();
const submit = useSubmit();
const form = reactive({
  workshopName: '',
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  personName: '',
  email: '',
  password: '',
});
const zones = Intl.supportedValuesOf('timeZone');

async function create(): Promise<void> {
  const done = await submit.run(async () => {
    await session.setUp({ ...form });
    return true;
  });
  if (done) await router.replace('/today');
}
</script>

<template>
  <main class="door">
    <ColumnDrawing class="door-drawing" />
    <section class="door-form">
      <h1>Lavacrum</h1>
      <p class="quiet mb-6">This server has no workshop yet. You make it, and you are its lead.</p>
      <form class="stack" novalidate @submit.prevent="create">
        <v-text-field v-model="form.workshopName" label="Workshop" :error-messages="submit.at('workshopName')" />
        <v-autocomplete v-model="form.timeZone" :items="zones" label="Time zone" :error-messages="submit.at('timeZone')" />
        <v-text-field v-model="form.personName" label="Your name" autocomplete="name" :error-messages="submit.at('personName')" />
        <v-text-field v-model="form.email" label="E-mail" type="email" autocomplete="username" :error-messages="submit.at('email')" />
        <v-text-field
          v-model="form.password"
          label="Password"
          type="password"
          autocomplete="new-password"
          :hint="`At least ${LEAST_PASSWORD_LENGTH} characters`"
          persistent-hint
          :error-messages="submit.at('password')"
        />
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <v-btn type="submit" size="x-large" :loading="submit.busy.value">Make the workshop</v-btn>
      </form>
    </section>
  </main>
</template>

<style scoped src="../workshop/people/door.css"></style>
