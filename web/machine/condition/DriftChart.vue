<script setup lang="ts">
import { groupedUpTo } from '@core/base/units/display.js';
import { scaleOf, shownIn, unitName, type StoredUnit } from '@core/base/units/shown.js';
import { computed, ref } from 'vue';
import { addDays } from '@core/base/units/calendar.js';
import { dayAxis } from './dayAxis.js';
import { useWidth } from '../../base/units/useSize.js';

/** One figure of a machine over days: what was read, what was done, and where it would go by itself. */
export interface DriftPoint {
  readonly key: string;
  readonly on: string;
  readonly value: number;
  /** it does not count */
  readonly hollow?: boolean;
  readonly told: string;
}
const props = defineProps<{
  name: string;
  unit: StoredUnit;
  points: readonly DriftPoint[];
  marks: readonly { readonly on: string; readonly words: string }[];
  /** between which values it is expected, day by day */
  band?: readonly { readonly on: string; readonly low: number; readonly high: number }[];
  today: string;
  digits: number;
}>();
const frame = ref<HTMLElement | null>(null);
const width = useWidth(frame, 900);
const HEIGHT = 176;
const EDGE = { left: 58, right: 16, top: 26, bottom: 34 } as const;
const PAD_DAYS = 8;

const days = computed(() => [...props.points.map(({ on }) => on), ...props.marks.map(({ on }) => on), ...(props.band ?? []).map(({ on }) => on), props.today].sort()); // prettier-ignore
const from = computed(() => addDays(days.value[0] ?? props.today, -PAD_DAYS));
const until = computed(() => addDays(days.value.at(-1) ?? props.today, PAD_DAYS));
const axis = computed(() => dayAxis(from.value, until.value, EDGE.left, width.value - EDGE.right));
const x = (on: string): number => axis.value.x(on);
/** its words would run out of the picture */
const isFarRight = (on: string): boolean => x(on) > 0.82 * width.value;
const range = computed(() => {
  const values = [...props.points.map(({ value }) => value), ...(props.band ?? []).flatMap(({ low, high }) => [low, high])].map(shown);
  const [low, high] = values.length === 0 ? [0, 1] : [Math.min(...values), Math.max(...values)];
  const pad = Math.max(0.12 * (high - low), 0.02 * Math.abs(high), 1e-6);
  return { low: low - pad, high: high + pad };
});
/** as the reader counts it */
const shown = (value: number): number => shownIn(props.unit, value);
const yOf = (value: number): number => y(shown(value));
const y = (value: number): number =>
  HEIGHT - EDGE.bottom - ((HEIGHT - EDGE.top - EDGE.bottom) * (value - range.value.low)) / (range.value.high - range.value.low);
const grid = computed(() => {
  const { low, high } = range.value;
  const rough = 10 ** Math.floor(Math.log10((high - low) / 3));
  const step = [1, 2, 5, 10].map((times) => times * rough).find((each) => (high - low) / each <= 4) ?? rough * 10;
  return Array.from({ length: 6 }, (_, n) => (Math.ceil(low / step) + n) * step).filter((value) => value <= high);
});
const bandPath = computed(() => {
  const band = props.band ?? [];
  if (band.length < 2) return '';
  const back = [...band].reverse();
  return `M${band.map(({ on, high }) => `${x(on)} ${yOf(high)}`).join('L')}L${back.map(({ on, low }) => `${x(on)} ${yOf(low)}`).join('L')}Z`;
});
</script>

<template>
  <div ref="frame" class="frame">
    <svg :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" role="img" :aria-label="name">
      <g class="grid">
        <g v-for="value in grid" :key="value">
          <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(value)" :y2="y(value)" />
          <text :x="EDGE.left - 8" :y="y(value) + 4" text-anchor="end">{{ groupedUpTo(value, digits + scaleOf(unit).more) }}</text>
        </g>
        <text :x="4" :y="14">{{ unitName(unit) }}</text>
        <text v-for="month in axis.months" :key="month.on" :x="x(month.on)" :y="HEIGHT - 8">{{ month.words }}</text>
      </g>
      <path v-if="bandPath" class="band" :d="bandPath" />
      <g v-for="mark in marks" :key="`${mark.on}${mark.words}`" class="mark">
        <line :x1="x(mark.on)" :x2="x(mark.on)" :y1="EDGE.top - 6" :y2="HEIGHT - EDGE.bottom" />
        <text :x="x(mark.on) + (isFarRight(mark.on) ? -4 : 4)" :y="EDGE.top - 10" :text-anchor="isFarRight(mark.on) ? 'end' : 'start'">
          {{ mark.words }}
        </text>
      </g>
      <line class="today" :x1="x(today)" :x2="x(today)" :y1="EDGE.top" :y2="HEIGHT - EDGE.bottom" />
      <circle
        v-for="point in points"
        :key="point.key"
        class="point"
        :class="{ out: point.hollow }"
        :cx="x(point.on)"
        :cy="yOf(point.value)"
        r="3.4"
      >
        <title>{{ point.told }}</title>
      </circle>
    </svg>
  </div>
</template>

<style scoped src="../../base/look/chart.css"></style>

<style scoped>
.band {
  fill: var(--ink);
  opacity: 0.13;
}
.point {
  fill: var(--ink);
}
.point.out {
  fill: var(--sheet);
  stroke: var(--ink-soft);
  stroke-width: 1.3;
}
</style>
