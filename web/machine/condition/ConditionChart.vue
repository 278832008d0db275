<script setup lang="ts">
import { computed, ref } from 'vue';
import { groupBy } from '@core/base/numerics/groupBy.js';
import { limitWords } from '@core/edge/words/dates.js';
import { LEFT_WORDS, markWords, SOURCE_WORDS } from '@core/edge/words/condition.js';
import { addDays, daysBetween } from '@core/base/units/calendar.js';
import { formatDay } from '@core/base/units/dates.js';
import { formatKelvinPerWatt, grouped } from '@core/base/units/display.js';
import { DAYS_PER_YEAR, Z_TWO_SIDED_95 } from '@core/base/units/physics.js';
import { say } from '@core/base/words/say.js';
import type { ConditionMark, ConditionPoint, PartCondition } from '@core/physics/condition/series.js';
import { dayAxis } from './dayAxis.js';
import { useWidth } from '../../base/units/useSize.js';

/** One part over time: its readings per watt above the room, what was done to it, the line through them and the days on which it meets its limit. */
const props = defineProps<{ name: string; condition: PartCondition; marks: readonly ConditionMark[]; today: string }>();
const frame = ref<HTMLElement | null>(null);
const width = useWidth(frame, 900);
const HEIGHT = 236;
const EDGE = { left: 58, right: 16, top: 26, bottom: 34 } as const;
/** days of empty paper on both sides */
const PAD = 10;

const marks = computed(() => props.marks.filter(({ part }) => part === null || part === props.condition.part));
const from = computed(() => {
  const days = [...props.condition.points.map(({ on }) => on), ...marks.value.map(({ on }) => on), props.today];
  return addDays([...days].sort()[0] ?? props.today, -PAD);
});
const until = computed(() => {
  const { crosses } = props.condition;
  const days = [props.today, ...props.condition.points.map(({ on }) => on), ...(crosses ? [crosses.highOn ?? crosses.on] : [])];
  return addDays([...days].sort().at(-1) ?? props.today, PAD);
});
const axis = computed(() => dayAxis(from.value, until.value, EDGE.left, width.value - EDGE.right));
const x = (on: string): number => axis.value.x(on);
const range = computed(() => {
  const values = [...props.condition.points.map(({ theta }) => theta), ...(props.condition.limit ? [props.condition.limit.theta] : [])];
  const [low, high] = values.length === 0 ? [0, 1] : [Math.min(...values), Math.max(...values)];
  const pad = Math.max(0.01, 0.12 * (high - low));
  return { low: Math.max(0, low - pad), high: high + pad };
});
const y = (theta: number): number =>
  HEIGHT - EDGE.bottom - ((HEIGHT - EDGE.top - EDGE.bottom) * (theta - range.value.low)) / (range.value.high - range.value.low);

const grid = computed(() => {
  const { low, high } = range.value;
  const step = [0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5].find((each) => (high - low) / each <= 5) ?? 1;
  return Array.from({ length: 6 }, (_, n) => (Math.ceil(low / step) + n) * step).filter((theta) => theta <= high);
});
const lineTo = computed(() => props.condition.crosses?.on ?? props.today);
/** a line through its point on the first day, until a day */
function path(line: { perYear: number; theta: number }, until: string): string {
  const { trend } = props.condition;
  if (!trend) return '';
  const end = line.theta + (line.perYear * daysBetween(trend.fromOn, until)) / DAYS_PER_YEAR;
  return `M${x(trend.fromOn)} ${y(line.theta)}L${x(until)} ${y(end)}`;
}
/** what the readings still allow, until their limit cuts it off */
const wedge = computed(() => {
  const { trend, crosses } = props.condition;
  if (!trend?.low || !trend.high) return null;
  const end = crosses ? (crosses.highOn ?? until.value) : props.today;
  const at = (line: { perYear: number; theta: number }, on: string): number =>
    line.theta + (line.perYear * daysBetween(trend.fromOn, on)) / DAYS_PER_YEAR;
  return `M${x(trend.fromOn)} ${y(trend.low.theta)}L${x(end)} ${y(at(trend.low, end))}L${x(end)} ${y(at(trend.high, end))}L${x(trend.fromOn)} ${y(trend.high.theta)}Z`;
});
/** what was done on one day, said once */
const told = computed(() => [...groupBy(marks.value, ({ on }) => on)].map(([on, own]) => ({ on, words: own.map(markWords).join(', ') })));
const isFarRight = (on: string): boolean => x(on) > 0.78 * width.value;
const isLarge = ({ source }: ConditionPoint): boolean => source === 'before' || source === 'after';
const pointWords = (point: ConditionPoint): string =>
  [
    `${formatDay(point.on)}: ${formatKelvinPerWatt(point.theta)} ± ${grouped(point.sd, 3)}`,
    say(SOURCE_WORDS[point.source]),
    say('{watts} W', { watts: Math.round(point.powerW) }),
    ...(point.left ? [say('left out: {why}', { why: say(LEFT_WORDS[point.left]) })] : []),
  ].join(', ');
const summary = computed(() =>
  say('{name}: {count} readings from {first} to {last}', {
    name: props.name,
    count: props.condition.points.length,
    first: formatDay(props.condition.points[0]?.on ?? props.today),
    last: formatDay(props.condition.points.at(-1)?.on ?? props.today),
  }),
);
</script>

<template>
  <div ref="frame" class="frame">
    <svg :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" role="img" :aria-label="summary">
      <defs>
        <clipPath :id="`paper-${condition.part}`">
          <rect
            :x="EDGE.left"
            :y="EDGE.top - 8"
            :width="Math.max(0, width - EDGE.left - EDGE.right)"
            :height="HEIGHT - EDGE.top - EDGE.bottom + 8"
          />
        </clipPath>
      </defs>
      <g class="grid">
        <g v-for="theta in grid" :key="theta">
          <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(theta)" :y2="y(theta)" />
          <text :x="EDGE.left - 8" :y="y(theta) + 4" text-anchor="end">{{ grouped(theta, 3) }}</text>
        </g>
        <text :x="4" :y="14" class="unit">K/W</text>
        <text v-for="month in axis.months" :key="month.on" :x="x(month.on)" :y="HEIGHT - 8">{{ month.words }}</text>
        <line
          v-for="month in axis.months"
          :key="`t${month.on}`"
          :x1="x(month.on)"
          :x2="x(month.on)"
          :y1="HEIGHT - EDGE.bottom"
          :y2="HEIGHT - EDGE.bottom + 6"
        />
      </g>
      <g v-for="mark in told" :key="mark.on" class="mark">
        <line :x1="x(mark.on)" :x2="x(mark.on)" :y1="EDGE.top - 6" :y2="HEIGHT - EDGE.bottom" />
        <text :x="x(mark.on) + (isFarRight(mark.on) ? -4 : 4)" :y="EDGE.top - 10" :text-anchor="isFarRight(mark.on) ? 'end' : 'start'">
          {{ mark.words }}
        </text>
      </g>
      <line class="today" :x1="x(today)" :x2="x(today)" :y1="EDGE.top" :y2="HEIGHT - EDGE.bottom" />
      <g :clip-path="`url(#paper-${condition.part})`">
        <path v-if="wedge" :d="wedge" class="wedge" />
        <path v-if="condition.trend" :d="path(condition.trend, lineTo)" class="line" />
      </g>
      <g v-if="condition.limit" class="limit">
        <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(condition.limit.theta)" :y2="y(condition.limit.theta)" />
        <text :x="width - EDGE.right - 6" :y="y(condition.limit.theta) - 5" text-anchor="end">{{ limitWords(condition.limit) }}</text>
      </g>
      <g v-for="point in condition.points" :key="point.id" class="point" :class="{ out: point.left, large: isLarge(point) }">
        <title>{{ pointWords(point) }}</title>
        <line
          v-if="isLarge(point)"
          :x1="x(point.on)"
          :x2="x(point.on)"
          :y1="y(point.theta - Z_TWO_SIDED_95 * point.sd)"
          :y2="y(point.theta + Z_TWO_SIDED_95 * point.sd)"
        />
        <rect v-if="point.source === 'before'" :x="x(point.on) - 5" :y="y(point.theta) - 5" width="10" height="10" />
        <circle v-else :cx="x(point.on)" :cy="y(point.theta)" :r="isLarge(point) ? 5.5 : 2.6" />
      </g>
      <g v-if="condition.crosses" class="crossing">
        <line
          :x1="x(condition.crosses.lowOn ?? condition.crosses.on)"
          :x2="x(condition.crosses.highOn ?? until)"
          :y1="HEIGHT - EDGE.bottom"
          :y2="HEIGHT - EDGE.bottom"
        />
        <path :d="`M${x(condition.crosses.on) - 6} ${HEIGHT - EDGE.bottom - 10}l6 10l6 -10z`" />
      </g>
    </svg>
  </div>
</template>

<style scoped src="../../base/look/chart.css"></style>

<style scoped>
.mark text {
  fill: var(--ink);
}
.wedge {
  fill: var(--ink);
  opacity: 0.09;
}
.line {
  stroke: var(--ink);
  stroke-width: 2;
  fill: none;
}
.limit line {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 9 5;
}
.limit text {
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--ground);
  stroke-width: 4px;
}
.point {
  fill: var(--ink-soft);
  stroke: none;
}
.point line {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.point.large {
  fill: var(--ink);
}
.point.out circle,
.point.out rect {
  fill: var(--sheet);
  stroke: var(--ink-soft);
  stroke-width: 1.3;
}
.crossing line {
  stroke: var(--ink);
  stroke-width: 5;
}
.crossing path {
  fill: var(--ink);
}
</style>
