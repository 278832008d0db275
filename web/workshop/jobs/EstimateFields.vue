<script setup lang="ts">
import NumberField from '../../base/units/NumberField.vue';
import OwnerDays from './OwnerDays.vue';
import type { JobForm } from './jobForm.js';

/** Hours, parts and coolant as they are told to the owner. */
const form = defineModel<JobForm>({ required: true });
defineProps<{ at: (path: string) => string[]; today: string }>();
</script>

<template>
  <section class="estimate-fields">
    <NumberField v-model="form.hours" label="Attended hours" unit="h" :errors="at('estimate.hours')" />
    <NumberField v-model="form.coolantMl" label="Coolant" unit="mL" :errors="at('estimate.coolantMl')" />
    <v-text-field
      v-model="form.partsText"
      label="Parts to have"
      placeholder="six O-rings 11 × 2, tube 1.5 m"
      :error-messages="at('estimate.partsText')"
    />
    <v-text-field v-model="form.priceText" label="Price told, if one was" :error-messages="at('estimate.priceText')" />
    <v-text-field v-model="form.neededBy" type="date" label="Needed again by" :min="today" :error-messages="at('neededBy')" />
    <v-text-field v-model="form.dropOffOn" type="date" label="Can come in from" :error-messages="at('dropOffOn')" />
    <v-text-field v-model="form.partsOn" type="date" label="Parts expected" :error-messages="at('partsOn')" />
    <OwnerDays v-model="form.windows" :today="today" :at="at" class="wide" />
    <v-text-field v-model="form.note" label="Note for the bench" :error-messages="at('note')" />
  </section>
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}
.estimate-fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  align-items: start;
}
@media (max-width: 620px) {
  .estimate-fields {
    grid-template-columns: 1fr;
  }
}
</style>
