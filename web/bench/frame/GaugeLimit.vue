<script setup lang="ts">
import { unitName } from '@core/base/units/shown.js';
import { digitsAtMost, digitsIn } from '@core/base/units/display.js';
import { computed } from 'vue';

/** A pressure gauge: where the test began, where it stands, and what it must never pass or fall to. */
const props = defineProps<{ /** kPa */ mostKpa: number; firstKpa: number | null; nowKpa: number | null }>();
const FROM = -210;
const TO = 30;
const top = computed(() => Math.max(props.mostKpa, props.firstKpa ?? 0, props.nowKpa ?? 0) * 1.1);
const angle = (kpa: number): number => FROM + ((TO - FROM) * Math.max(0, Math.min(top.value, kpa))) / top.value;
const at = (kpa: number, radius: number): string => {
  const radians = (angle(kpa) * Math.PI) / 180;
  return `${(82 + radius * Math.cos(radians)).toFixed(1)} ${(84 + radius * Math.sin(radians)).toFixed(1)}`;
};
const arc = (from: number, to: number, radius: number): string =>
  `M${at(from, radius)}A${radius} ${radius} 0 ${angle(to) - angle(from) > 180 ? 1 : 0} 1 ${at(to, radius)}`;
const half = computed(() => (props.firstKpa === null ? null : props.firstKpa / 2));
</script>

<template>
  <svg
    viewBox="0 0 272 160"
    role="img"
    :aria-label="`Pressure of the test, ${unitName('kPa')}: ${nowKpa === null ? 'not read yet' : `${digitsIn('kPa', nowKpa, 1)} now`}, never above ${digitsAtMost('kPa', mostKpa)}`"
  >
    <path class="scale" :d="arc(0, mostKpa, 68)" />
    <path class="never" :d="arc(mostKpa, top, 68)" />
    <path v-if="half !== null" class="tick" :d="`M${at(half, 58)}L${at(half, 74)}`" />
    <path v-if="firstKpa !== null" class="tick strong" :d="`M${at(firstKpa, 56)}L${at(firstKpa, 76)}`" />
    <path v-if="nowKpa !== null" class="needle" :d="`M82 84L${at(nowKpa, 58)}`" />
    <circle cx="82" cy="84" r="6" />
    <text x="164" y="48" class="danger">never {{ digitsAtMost('kPa', mostKpa) }}</text>
    <text v-if="firstKpa !== null" x="164" y="78">from {{ digitsIn('kPa', firstKpa, 1) }}</text>
    <text v-if="nowKpa !== null" x="164" y="104" class="strong">now {{ digitsIn('kPa', nowKpa, 1) }}</text>
    <text x="164" y="130" class="unit">{{ unitName('kPa') }}</text>
  </svg>
</template>

<style scoped src="./limit.css"></style>

<style scoped>
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.scale {
  stroke-width: 3;
}
.never {
  stroke: var(--danger);
  stroke-width: 12;
}
.tick {
  stroke-dasharray: 3 3;
}
.strong {
  stroke-width: 4;
  stroke-dasharray: none;
}
.needle {
  stroke-width: 4;
}
circle {
  fill: var(--ink);
}
text.strong {
  font-weight: 660;
}
text.danger {
  fill: var(--danger);
  font-weight: 700;
}
.unit {
  fill: var(--ink-soft);
}
</style>
