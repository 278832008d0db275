<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { computed } from 'vue';

/** How the old liquid thins out, rinse by rinse, on a scale of tens; the rinses still to come are drawn hollow. */
const props = defineProps<{ shares: readonly number[]; coming: readonly number[]; target: number }>();

const WIDTH = 640;
const HEIGHT = 150;
const FLOOR = 0.001;
const all = computed(() => [...props.shares, ...props.coming]);
const x = (index: number): number => 30 + (index * (WIDTH - 60)) / Math.max(1, all.value.length - 1);
const y = (share: number): number => 14 + ((HEIGHT - 34) * Math.log(Math.max(FLOOR, share))) / Math.log(FLOOR);
const line = computed(() => all.value.map((share, index) => `${x(index)},${y(share)}`).join(' '));
const say = (share: number): string => `${grouped(100 * share, share < 0.1 ? 1 : 0)} %`;
</script>

<template>
  <svg
    class="curve"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`Old liquid after each rinse: ${shares.map(say).join(', ')}; target ${say(target)}`"
  >
    <line :x1="0" :x2="WIDTH" :y1="y(target)" :y2="y(target)" class="target" />
    <text :x="WIDTH - 4" :y="y(target) - 5" text-anchor="end">target {{ say(target) }}</text>
    <polyline :points="line" class="line" />
    <g v-for="(share, index) in all" :key="index">
      <circle :cx="x(index)" :cy="y(share)" r="7" :class="index < shares.length ? 'done' : 'coming'" />
      <text :x="x(index)" :y="HEIGHT - 4" text-anchor="middle">{{ say(share) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.curve {
  width: 100%;
  max-height: 170px;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.target {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 6 5;
}
.done {
  fill: var(--ink);
}
.coming {
  fill: var(--ground);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  fill: var(--ink-soft);
  font-size: 13px;
  font-variant-numeric: tabular-nums;
}
</style>
