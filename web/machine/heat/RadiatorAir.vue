<script setup lang="ts">
import type { AirPath } from '@core/physics/heat/steady.js';

/** How one radiator breathes: where its air comes from and goes to, and what stands in front of it. */
defineProps<{ name: string }>();
const air = defineModel<AirPath>({ required: true });

const WAYS = [
  { value: 'room case', title: 'room air, blown into the case' },
  { value: 'case out', title: 'case air, blown out' },
  { value: 'room out', title: 'room air, straight out' },
  { value: 'case case', title: 'case air, back into the case' },
] as const;
function take(way: string): void {
  const [from, to] = way.split(' ') as [AirPath['from'], AirPath['to']];
  air.value = { ...air.value, from, to };
}
</script>

<template>
  <div class="breath">
    <select :value="`${air.from} ${air.to}`" :aria-label="`Air of ${name}`" @change="take(($event.target as HTMLSelectElement).value)">
      <option v-for="{ value, title } in WAYS" :key="value" :value="value">{{ title }}</option>
    </select>
    <label>
      <span
        >taken by panel, filter, pump <b>{{ Math.round(air.blockage * 100) }} %</b></span
      >
      <input
        type="range"
        min="0"
        max="0.9"
        step="0.05"
        :value="air.blockage"
        :aria-label="`Airflow blocked at ${name}`"
        @input="air = { ...air, blockage: Number(($event.target as HTMLInputElement).value) }"
      />
    </label>
  </div>
</template>

<style scoped>
.breath {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  align-items: center;
}
select {
  min-height: 40px;
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 0 8px;
  background: var(--sheet);
  color: var(--ink);
}
input {
  width: 100%;
  accent-color: var(--ink);
}
label span {
  font-size: 0.88rem;
}
</style>
