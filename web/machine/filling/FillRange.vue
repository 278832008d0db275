<script setup lang="ts">
import { computed } from 'vue';
import { formatMl } from '@core/base/units/display.js';
import type { FillForecast } from '@core/physics/filling/forecast.js';

/** What is inside, against what the loop takes: at least, likely, at most. */
const props = defineProps<{ forecast: FillForecast; colour: string | null }>();
const whole = computed(() => Math.max(1, props.forecast.mostMl, props.forecast.insideMl) * 1.02);
const at = (ml: number): string => `${Math.max(0, Math.min(100, (100 * ml) / whole.value))}%`;
</script>

<template>
  <div class="range">
    <div
      class="scale"
      role="img"
      :aria-label="`${formatMl(forecast.insideMl)} inside; it takes ${formatMl(forecast.likelyMl)}, at least ${formatMl(forecast.leastMl)}, at most ${formatMl(forecast.mostMl)}`"
    >
      <i :style="{ width: at(forecast.insideMl), background: colour ?? 'var(--ink-soft)' }" />
      <em :style="{ left: at(forecast.leastMl), width: `calc(${at(forecast.mostMl)} - ${at(forecast.leastMl)})` }" />
      <b :style="{ left: at(forecast.likelyMl) }" />
    </div>
    <p class="quiet figures">
      {{ formatMl(forecast.insideMl) }} inside; likely full at <strong class="estimate">{{ formatMl(forecast.likelyMl) }}</strong>, at least
      {{ formatMl(forecast.leastMl) }}, at most {{ formatMl(forecast.mostMl) }}.
    </p>
  </div>
</template>

<style scoped>
.range {
  display: grid;
  gap: 4px;
}
p {
  margin: 0;
}
.scale {
  position: relative;
  height: 22px;
  background: var(--well);
  border: 1.5px solid var(--ink);
}
i {
  display: block;
  height: 100%;
}
em {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1.5px solid var(--ink);
  border-right: 1.5px solid var(--ink);
  background: repeating-linear-gradient(135deg, transparent 0 5px, var(--ink-soft) 5px 6px);
}
b {
  position: absolute;
  top: -5px;
  bottom: -5px;
  width: 3px;
  background: var(--ink);
}
</style>
