<script setup lang="ts">
import type { Shop } from '@core/workshop/people/answers.js';
import { reactive } from 'vue';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useSession } from '../people/sessionStore.js';

/** Address and number, as letters and papers carry them. */
const emit = defineEmits<{ done: [] }>();
const submit = useSubmit();
const session = useSession();
const form = reactive({ address: '', phone: '' });
async function save(): Promise<void> {
  const saved = await submit.run(async () => {
    const { workshop } = await get<Shop>('/workshop');
    await call('PUT', '/workshop/contact', { body: { ...workshop.contact, ...form, version: workshop.version } });
    await session.load();
    return true;
  });
  if (saved) emit('done');
}
</script>

<template>
  <form class="row" novalidate @submit.prevent="save">
    <v-text-field v-model="form.address" label="Address, as on a letter" :error-messages="submit.at('address')" />
    <v-text-field v-model="form.phone" label="Telephone" :error-messages="submit.at('phone')" />
    <v-btn type="submit" size="large" :loading="submit.busy.value" :disabled="form.address.trim() + form.phone.trim() === ''"
      >That is where we are</v-btn
    >
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
  </form>
</template>

<style scoped>
.row > .v-input {
  flex: 1 1 220px;
}
</style>
