<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { DUST_PLACES } from '@core/workshop/due-dates/dust.js';
import { DUST_PLACE_KEYS, type DustPlace } from '@core/workshop/due-dates/facts.js';
import type { ServicePolicy } from '@core/workshop/due-dates/due.js';
import { POLICY_CHOICES } from './policyChoices.js';
import NumberField from '../../base/units/NumberField.vue';

export interface SystemForm {
  name: string;
  tag: string;
  caseText: string;
  builtBy: string;
  hoursPerDay: number | null;
  coolantC: number | null;
  dustPlace: DustPlace;
  policy: ServicePolicy | null;
  note: string;
}
const DUST_CHOICES = DUST_PLACE_KEYS.map((value) => ({ value, title: say(DUST_PLACES[value].label) }));
const form = defineModel<SystemForm>({ required: true });
defineProps<{ at: (path: string) => string[] }>();
</script>

<template>
  <div class="stack">
    <v-text-field v-model="form.name" label="What the owner calls the machine" autocomplete="off" :error-messages="at('name')" />
    <v-text-field v-model="form.tag" label="Serial or tag" autocomplete="off" :error-messages="at('tag')" />
    <v-text-field
      v-model="form.caseText"
      label="Case"
      placeholder="mid tower, glass side"
      autocomplete="off"
      :error-messages="at('caseText')"
    />
    <v-text-field v-model="form.builtBy" label="Built by" placeholder="this workshop" autocomplete="off" :error-messages="at('builtBy')" />
    <div class="pair">
      <NumberField
        v-model="form.hoursPerDay"
        label="Runs, by its owner"
        unit="h a day"
        hint="0 where it stands"
        :errors="at('hoursPerDay')"
      />
      <NumberField v-model="form.coolantC" label="Coolant, by its owner" unit="°C" :errors="at('coolantC')" />
      <v-select v-model="form.dustPlace" :items="DUST_CHOICES" label="It stands" :error-messages="at('dustPlace')" />
      <v-select v-model="form.policy" :items="POLICY_CHOICES" label="Coolant comes out, this machine" :error-messages="at('policy')" />
    </div>
    <v-textarea v-model="form.note" label="Note about the machine" :error-messages="at('note')" />
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
@media (max-width: 700px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
