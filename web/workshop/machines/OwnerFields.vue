<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { ServicePolicy } from '@core/workshop/due-dates/due.js';
import type { OwnersWay } from '@core/workshop/people/ownersReading.js';
import { POLICY_CHOICES } from './policyChoices.js';

/** The owner's fields, for a new system and for a correction. `at` gives the server's messages for a field. */
export interface OwnerForm {
  name: string;
  email: string;
  phone: string;
  channel: 'phone' | 'email' | 'text';
  /** of letters and the owner's page; null: as the workshop reads */
  language: OwnersWay['language'];
  units: OwnersWay['units'];
  note: string;
  policy: ServicePolicy | null;
}
const form = defineModel<OwnerForm>({ required: true });
defineProps<{ at: (path: string) => string[] }>();
const channels = [
  { value: 'phone', title: say('by phone') },
  { value: 'text', title: say('by text message') },
  { value: 'email', title: say('by e-mail') },
];
const languages = [
  { value: null, title: say('the workshop’s language') },
  { value: 'en', title: 'English' },
  { value: 'de', title: 'Deutsch' },
];
const units = [
  { value: null, title: say('the workshop’s units') },
  { value: 'metric', title: say('metric') },
  { value: 'us', title: say('US') },
];
</script>

<template>
  <div class="stack">
    <v-text-field v-model="form.name" label="Owner" autocomplete="off" :error-messages="at('name')" />
    <div class="pair">
      <v-text-field v-model="form.phone" label="Phone" inputmode="tel" autocomplete="off" :error-messages="at('phone')" />
      <v-text-field v-model="form.email" label="E-mail" type="email" autocomplete="off" :error-messages="at('email')" />
    </div>
    <v-select v-model="form.policy" :items="POLICY_CHOICES" label="Coolant comes out, all of theirs" :error-messages="at('policy')" />
    <v-select v-model="form.channel" :items="channels" label="Likes to be reached" :error-messages="at('channel')" />
    <div class="pair">
      <v-select v-model="form.language" :items="languages" label="Letters in" :error-messages="at('reading.language')" />
      <v-select v-model="form.units" :items="units" label="Measures in" />
    </div>
    <v-textarea v-model="form.note" label="Note about the owner" :error-messages="at('note')" />
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
@media (max-width: 700px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
