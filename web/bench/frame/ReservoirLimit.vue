<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { digitsIn } from '@core/base/units/display.js';
import { computed } from 'vue';
import type { ReservoirFacts } from '@core/bench/runs/facts.js';

/** The reservoir with its marks, where it stands now, and where this order ends. */
const props = defineProps<{
  reservoir: ReservoirFacts;
  colour: string | null;
  /** mL that stand there; null: nobody can tell */
  standsMl: number | null;
  /** by a sensor or an eye rather than by the book */
  measured: boolean;
  /** mL at which this order ends, where that is not the mark */
  toMl?: number | null;
  /** mL at which the order of now has the pump off; null: at the low mark */
  offAtMl?: number | null;
}>();
const TOP = 12;
const BOTTOM = 150;
/** share of the fill mark that is drawn above it */
const ABOVE = 0.18;
const y = (ml: number): number =>
  BOTTOM -
  (Math.max(0, Math.min((1 + ABOVE) * props.reservoir.fillMarkMl, ml)) / ((1 + ABOVE) * props.reservoir.fillMarkMl)) * (BOTTOM - TOP);
const rows = computed(() => {
  const { reservoir, standsMl, measured, toMl } = props;
  // one figure for one act: the order's own, where it ends the pump before the low mark does
  const offMl = Math.max(props.offAtMl ?? 0, reservoir.lowMarkMl);
  const isOwn = toMl !== undefined && toMl !== null && Math.abs(toMl - reservoir.fillMarkMl) >= 1;
  const list = [
    { id: 'mark', words: say('mark {digitsIn}', { digitsIn: digitsIn('mL', reservoir.fillMarkMl) }), at: y(reservoir.fillMarkMl) },
    ...(isOwn ? [{ id: 'to', words: say('to {digitsIn}', { digitsIn: digitsIn('mL', toMl) }), at: y(toMl) }] : []),
    ...(standsMl === null
      ? []
      : [
          {
            id: measured ? 'now' : 'thought',
            words: say('now {digitsIn}', { digitsIn: digitsIn('mL', Math.max(0, standsMl)) }),
            at: y(standsMl),
          },
        ]),
    { id: 'low', words: say('pump off {digitsIn}', { digitsIn: digitsIn('mL', offMl) }), at: y(offMl) },
  ].sort((a, b) => a.at - b.at);
  // words never lie on each other: each at least a line below the one before
  let last = -Infinity;
  const placed = list.map((row) => {
    last = Math.max(row.at, last + LINE_PX);
    return { ...row, text: last };
  });
  const over = (placed.at(-1)?.text ?? 0) - BOTTOM;
  return over > 0
    ? placed.map((row, index) => ({ ...row, text: Math.min(row.text, BOTTOM - (placed.length - 1 - index) * LINE_PX) }))
    : placed;
});
const LINE_PX = 22;
const words = computed(() => rows.value.map(({ words: each }) => each).join(', '));
</script>

<template>
  <svg
    viewBox="0 0 248 160"
    role="img"
    :aria-label="`Reservoir, ${unitName('mL')}: ${words}${standsMl !== null && !measured ? ', predicted' : ''}`"
  >
    <rect x="4" :y="TOP" width="84" :height="BOTTOM - TOP" class="glass" />
    <rect
      v-if="standsMl !== null"
      x="6"
      :y="y(standsMl)"
      width="80"
      :height="Math.max(0, BOTTOM - 2 - y(standsMl))"
      :style="{ fill: colour ?? 'var(--ink-soft)' }"
      class="liquid"
    />
    <line v-if="standsMl !== null" x1="4" x2="88" :y1="y(standsMl)" :y2="y(standsMl)" class="surface" />
    <rect x="4" :y="TOP" width="84" :height="BOTTOM - TOP" class="wall" />
    <g v-for="row in rows" :key="row.id" :class="row.id">
      <path :d="`M0 ${row.at}H96L116 ${row.text}`" />
      <text x="120" :y="row.text + 6">{{ row.words }}</text>
    </g>
  </svg>
</template>

<style scoped src="./limit.css"></style>

<style scoped>
.wall {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.surface {
  stroke: var(--ink);
  stroke-width: 2;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.mark text,
.to text {
  font-weight: 640;
}
.now path,
.thought path {
  stroke-width: 1.25;
}
.thought path {
  stroke-dasharray: 3 4;
}
.thought text {
  font-style: italic;
}
.low path {
  stroke: var(--danger);
  stroke-dasharray: 7 4;
}
.low text {
  fill: var(--danger);
  font-weight: 700;
}
</style>
