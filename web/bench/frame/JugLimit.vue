<script setup lang="ts">
import { storedFrom, shownIn } from '@core/base/units/shown.js';
import { formatMl, digitsIn } from '@core/base/units/display.js';
import { computed } from 'vue';

/** A vessel under the drain: what should come, and the room there is for it. */
const props = defineProps<{ /** mL */ expectedMl: number | null; cameMl: number; colour: string | null }>();
const TOP = 14;
const BOTTOM = 146;
const STEPS = [2, 5, 10, 20, 50, 100, 250, 500, 1000, 2000];
/** mL; round, above all that will have come */
const whole = computed(() => {
  const most = Math.max(100, props.cameMl + Math.max(props.expectedMl ?? 0, 0));
  // round in the unit of the reader, as it stands on the jug
  const shown = shownIn('mL', most);
  const step = storedFrom('mL', STEPS.find((each) => shown / each <= 5) ?? 5000);
  return { most: Math.ceil(most / step) * step, step };
});
const y = (ml: number): number => BOTTOM - (Math.min(whole.value.most, ml) / whole.value.most) * (BOTTOM - TOP);
const marks = computed(() =>
  Array.from({ length: Math.floor(whole.value.most / whole.value.step) }, (_, index) => (index + 1) * whole.value.step),
);
</script>

<template>
  <svg
    viewBox="0 0 248 160"
    role="img"
    :aria-label="`${formatMl(cameMl)} came out${expectedMl === null ? '' : `, about ${formatMl(expectedMl)} come now`}`"
  >
    <path class="glass" :d="`M10 ${TOP}V${BOTTOM}H100V${TOP}`" />
    <rect x="12" :y="y(cameMl)" width="86" :height="BOTTOM - y(cameMl)" :style="{ fill: colour ?? 'var(--ink-soft)' }" class="liquid" />
    <rect v-if="expectedMl" x="12" :y="y(cameMl + expectedMl)" width="86" :height="y(cameMl) - y(cameMl + expectedMl)" class="comes" />
    <path class="jug" :d="`M4 ${TOP - 6}L10 ${TOP}V${BOTTOM}H100V${TOP}`" />
    <g v-for="mark in marks" :key="mark">
      <path class="tick" :d="`M100 ${y(mark)}h8`" />
      <text x="112" :y="y(mark) + 5" class="scale">{{ Math.round(shownIn('mL', mark)) }}</text>
    </g>
    <text v-if="expectedMl" x="164" :y="Math.max(24, y(cameMl + expectedMl / 2))" class="thought">
      + {{ digitsIn('mL', Math.round(expectedMl / 5) * 5) }}
    </text>
    <text x="164" y="142" class="strong">{{ digitsIn('mL', cameMl) }} out</text>
  </svg>
</template>

<style scoped src="./limit.css"></style>

<style scoped>
.jug {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-linejoin: round;
}
/* what is predicted, not seen */
.comes {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 4 4;
}
.tick {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.scale {
  font-size: 14px;
  fill: var(--ink-soft);
}
.thought {
  font-style: italic;
}
.strong {
  font-weight: 660;
}
</style>
