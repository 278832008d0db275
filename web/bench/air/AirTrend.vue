<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { formatMl, digitsIn, formatIn } from '@core/base/units/display.js';
import { computed, watch } from 'vue';
import { airLeft, type LevelledCycle } from '@core/physics/air/airEstimate.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import { STANDING_WORDS } from '@core/machine/loop-file/orientation.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { useTwin, useTwinAnswer } from '../../machine/compute/useTwin.js';

/** Air left over the cycles, as a band: the same rise means more or less air by where it sits. And the turn that frees most. */
const props = defineProps<{
  file: LoopFile;
  liquid: Liquid;
  cycles: readonly LevelledCycle[];
  bled: boolean;
  /** gas outside the reservoir by the book; null: nobody knows */
  missing?: { readonly ml: number; readonly sdMl: number } | null;
}>();

/** pressures and stretch of this loop, at the pump speed of its file */
const twin = useTwin(
  () => props.file,
  () => props.liquid,
);
const model = useTwinAnswer(
  twin,
  () => ({}),
  () => twin.engine.bleeding(),
);
const air = computed(() => (model.value ? airLeft(model.value, props.cycles, props.missing ?? null) : { cycles: [], trendMl: null }));
const now = computed(() => air.value.cycles.at(-1) ?? null);
const atMostMl = defineModel<number | null>('atMostMl');
watch(now, (band) => (atMostMl.value = band?.highMl ?? null), { immediate: true });
const range = computed(() => {
  const [low, high] = [Math.round(now.value?.lowMl ?? 0), Math.round(now.value?.highMl ?? 0)];
  return low === high ? formatMl(low) : say('{digitsIn} to {formatMl}', { digitsIn: digitsIn('mL', low), formatMl: formatMl(high) });
});
/** mL a cycle below which the air no longer changes */
const STILL_ML = 0.5;
const trend = computed(() => {
  const ml = air.value.trendMl;
  if (ml === null) return '';
  if (Math.abs(ml) < STILL_ML) return say(', no longer changing');
  return say(', {ml} by {formatIn} a cycle', { ml: ml < 0 ? say('falling') : say('rising'), formatIn: formatIn('mL', Math.abs(ml), 1) });
});
const turn = computed(() => {
  const found = model.value?.turn;
  if (!found || props.bled) return null;
  // what may still be inside bounds what a turn can free
  const mostMl = Math.round(Math.min(found.freesMl, now.value?.highMl ?? found.freesMl));
  if (mostMl < 1) return null;
  const names = found.parts.flatMap((id) => props.file.components.find((part) => part.id === id) ?? []).map(shortName);
  return say('{join} can hold most: turned {to}, up to {formatMl} of it find their way up. Cap on first.', {
    join: names.join(', ') || say('A run'),
    to: sayWord(STANDING_WORDS[found.to]),
    formatMl: formatMl(mostMl),
  });
});
const band = computed(() => {
  const { cycles } = air.value;
  const most = Math.max(1, ...cycles.map(({ highMl }) => highMl));
  const at = (index: number, ml: number): string => `${20 + (index * 560) / Math.max(1, cycles.length - 1)} ${66 - (60 * ml) / most}`;
  const highs = cycles.map(({ highMl }, index) => at(index, highMl));
  const lows = cycles.map(({ lowMl }, index) => at(index, lowMl)).reverse();
  return cycles.length > 1 ? `M${[...highs, ...lows].join('L')}Z` : null;
});
</script>

<template>
  <div>
    <p v-if="now" class="air figures">
      About <b>{{ range }}</b> of air left{{ trend }}.
      <span class="quiet estimate"
        >From the rise, {{ formatIn('mL', model?.stretchMl ?? 0, 1) }} of tube stretch taken out; nine in ten lie in the range: where the
        air may sit, what the levels are misread by, what the book misses.</span
      >
    </p>
    <p v-if="turn">{{ turn }}</p>
    <svg v-if="band" viewBox="0 0 600 70" preserveAspectRatio="none" role="img" :aria-label="`Air left over ${air.cycles.length} cycles`">
      <path :d="band" />
      <line x1="0" x2="600" y1="67" y2="67" />
    </svg>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
.air {
  font-size: 1.15rem;
}
svg {
  width: 100%;
  height: 70px;
}
path {
  fill: var(--glass);
  stroke: var(--ink);
  stroke-width: 1.5;
}
line {
  stroke: var(--ink);
  stroke-width: 1.5;
}
</style>
