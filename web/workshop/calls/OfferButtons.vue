<script setup lang="ts">
import type { OffersAnswer } from '@core/workshop/calls/answers.js';
import { useDates } from '../../base/units/dates.js';

/** Slots that can be had, the next ones on different days; one is picked. */
const picked = defineModel<number | null>({ required: true });
defineProps<{ offers: OffersAnswer['offers'] }>();
const dates = useDates();
</script>

<template>
  <div class="offers" role="group" aria-label="Free slots">
    <button v-for="(each, index) in offers" :key="each.from" type="button" :aria-pressed="picked === index" @click="picked = index">
      <b class="figures">{{ dates.weekdayAndTime(each.from) }}</b>
      <span>ready {{ dates.weekdayAndTime(each.to) }}</span>
    </button>
    <p v-if="offers.length === 0">Nothing is free: nobody has hours for it in the plan, or every bench is held.</p>
  </div>
</template>

<style scoped>
.offers {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 10px;
}
button {
  min-height: 64px;
  padding: 4px 12px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  text-align: left;
  display: grid;
}
b {
  font-size: 1.25rem;
}
p {
  grid-column: 1 / -1;
  margin: 0;
}
[aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}
</style>
