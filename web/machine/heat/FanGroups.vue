<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RadiatorFans } from '@core/physics/heat/setup.js';

/** The fans on one radiator, as the machine's connectors have them, and how fast each group turns beside the others. */
defineProps<{ groups: readonly RadiatorFans[]; systemId: string }>();
const paces = defineModel<Record<string, number>>({ required: true });
const words = ({ name, fans, openWhy }: RadiatorFans): string =>
  openWhy !== null
    ? say('{name}: not connected', { name })
    : fans
      ? say('{name}: {count} × {sizeMm} mm', { name, count: fans.count, sizeMm: fans.sizeMm })
      : name;
</script>

<template>
  <p v-if="groups.length === 0" class="quiet">
    Taken to have fans on its whole face: <router-link :to="`/systems/${systemId}/connectors`">write down which</router-link>
  </p>
  <label v-for="group in groups" v-else :key="group.id" class="group">
    <span
      >{{ words(group)
      }}<template v-if="group.openWhy === null"
        >, <b>{{ Math.round((paces[group.id] ?? 1) * 100) }} %</b> of the others</template
      ></span
    >
    <input
      v-if="group.openWhy === null"
      type="range"
      min="0.2"
      max="1"
      step="0.05"
      :value="paces[group.id] ?? 1"
      :aria-label="`How fast ${group.name} turns beside the others`"
      @input="paces = { ...paces, [group.id]: Number(($event.target as HTMLInputElement).value) }"
    />
  </label>
</template>

<style scoped>
.group {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  align-items: center;
}
.group span {
  font-size: 0.92rem;
}
input {
  width: 100%;
  min-height: 34px;
  accent-color: var(--ink);
}
p {
  margin: 2px 0;
}
</style>
