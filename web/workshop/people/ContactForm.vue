<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Shop } from '@core/workshop/people/answers.js';
import { reactive } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { whenChanged } from '../../base/look/whenChanged.js';
import { useNotices } from '../../base/shell/notices.js';

/** Where the workshop is found: what stands on letters and papers, and what codes and feeds are made from. */
const props = defineProps<{ shop: Shop['workshop']; isLead: boolean }>();
const emit = defineEmits<{ changed: [shop: Shop] }>();
const submit = useSubmit();
const notices = useNotices();
const example = 'https://desk.example';
const form = reactive({ ...props.shop.contact });
whenChanged(
  () => props.shop.contact,
  (contact) => Object.assign(form, contact),
);

async function save(): Promise<void> {
  const saved = await submit.run(() => call<Shop>('PUT', '/workshop/contact', { body: { ...form, version: props.shop.version } }));
  if (!saved) return;
  emit('changed', saved);
  notices.say(say('Saved. New letters and papers carry it.'));
}
</script>

<template>
  <section>
    <h2>Where it is found</h2>
    <form class="contact" novalidate @submit.prevent="save">
      <v-text-field v-model="form.address" label="Address, as on a letter" :readonly="!isLead" :error-messages="submit.at('address')" />
      <v-text-field v-model="form.phone" label="Telephone" :readonly="!isLead" :error-messages="submit.at('phone')" />
      <v-text-field v-model="form.email" label="E-mail" :readonly="!isLead" :error-messages="submit.at('email')" />
      <v-text-field
        v-model="form.publicAddress"
        label="This server, from outside"
        :placeholder="example"
        hint="Codes on papers, calendars and letters are made from it"
        persistent-hint
        :readonly="!isLead"
        :error-messages="submit.at('publicAddress')"
      />
      <p v-if="submit.stale.value" role="alert" class="danger">Somebody changed the workshop meanwhile; load the page again.</p>
      <p v-else-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <v-btn v-if="isLead" type="submit" :loading="submit.busy.value">Save where it is found</v-btn>
    </form>
  </section>
</template>

<style scoped>
.contact {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  align-items: start;
  padding-top: 8px;
}
.contact p,
.contact .v-btn {
  grid-column: 1 / -1;
  justify-self: start;
}
@media (max-width: 700px) {
  .contact {
    grid-template-columns: 1fr;
  }
}
</style>
