<script setup lang="ts">
import { computed } from 'vue';
import { formatDay } from '@core/base/units/dates.js';
import { formatIn } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { markWords, signedPercent } from '@core/edge/words/condition.js';
import { flowWords } from '@core/edge/words/drift.js';
import type { FlowSeries } from '@core/physics/condition/flowSeries.js';
import type { ConditionMark } from '@core/physics/condition/series.js';
import type { Obstruction } from '@core/physics/diagnosis/obstruction.js';
import DriftChart from './DriftChart.vue';

/** The flow at the pump's usual setting over time, and what stands in its way where it fell. */
const props = defineProps<{ series: FlowSeries; marks: readonly ConditionMark[]; obstruction: Obstruction | null; today: string }>();
const moved = computed(() => {
  const { best, now } = props.series;
  return best === null || now === null ? null : signedPercent(100 * (now / best - 1));
});
const points = computed(() =>
  props.series.points.map(({ id, on, lph, pumpSpeed, left }) => ({
    key: id,
    on,
    value: lph,
    hollow: left,
    told: say('{day}: {flow}{setting}', {
      day: formatDay(on),
      flow: formatIn('L/h', lph),
      setting: pumpSpeed === null ? '' : say(' at {percent} of the pump', { percent: `${Math.round(100 * pumpSpeed)} %` }),
    }),
  })),
);
const shown = computed(() =>
  props.marks.filter(({ part, kind }) => part === null && kind === 'filled').map((mark) => ({ on: mark.on, words: markWords(mark) })),
);
</script>

<template>
  <section class="drift" aria-label="Flow">
    <div class="says">
      <h2>Flow</h2>
      <p class="big-number">{{ moved ?? '–' }}<small v-if="moved !== null"> %</small></p>
      <p>{{ flowWords(series, obstruction) }}</p>
    </div>
    <DriftChart name="Flow over time" unit="L/h" :points="points" :marks="shown" :today="today" :digits="0" />
  </section>
</template>

<style scoped src="./drift.css"></style>
