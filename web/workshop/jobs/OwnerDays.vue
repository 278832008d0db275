<script setup lang="ts">
import { MOST_WINDOWS } from '@core/workshop/jobs/schema.js';
import { addDays } from '@core/base/units/calendar.js';
import DayField from '../../base/units/DayField.vue';

/** Days in which the owner can do without the machine; none: any day will do. */
const days = defineModel<{ from: string; to: string }[]>({ required: true });
const props = defineProps<{ today: string; at: (path: string) => string[] }>();

function add(): void {
  const from = days.value.at(-1)?.to ?? props.today;
  days.value = [...days.value, { from: addDays(from, 1), to: addDays(from, 5) }];
}
const drop = (index: number): void => {
  days.value = days.value.filter((_, each) => each !== index);
};
</script>

<template>
  <div class="owner-days" role="group" aria-label="Days the owner can do without it">
    <p class="quiet">
      {{ days.length === 0 ? 'The owner can do without it on any day.' : 'The owner can do without it only:' }}
      <button v-if="days.length < MOST_WINDOWS" type="button" class="link" @click="add">
        {{ days.length === 0 ? 'only on some days' : 'and on other days' }}
      </button>
    </p>
    <div v-for="(window, index) in days" :key="index" class="window">
      <DayField v-model="window.from" label="From" :errors="at(`windows[${index}].from`)" />
      <DayField v-model="window.to" label="To, that day too" :errors="at(`windows[${index}].to`)" />
      <v-btn variant="text" @click="drop(index)">Take out</v-btn>
    </div>
  </div>
</template>

<style scoped>
.owner-days p {
  margin: 4px 0;
}
.window {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
  align-items: start;
}
.window .v-btn {
  height: 56px;
}
.link {
  text-decoration: underline;
}
</style>
