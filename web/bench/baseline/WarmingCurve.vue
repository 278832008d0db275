<script setup lang="ts">
import { computed, ref } from 'vue';
import { formatIn, grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { Warming } from '@core/bench/runs/warming.js';
import { LEAST_SAMPLES } from '@core/physics/diagnosis/saturation.js';
import { useHeight, useWidth } from '../../base/units/useSize.js';

/** A load test while it warms: what was noted, the curve through it, where it ends and how long that takes. */
const props = defineProps<{ name: string; warming: Warming }>();
const plot = ref<HTMLElement | null>(null);
const width = useWidth(plot, 520);
const height = useHeight(plot, 150);
const EDGE = { left: 34, right: 116, top: 12, bottom: 24 } as const;
/** s that are drawn at least, and behind the last note */
const LEAST_S = 600;
const AHEAD = 0.6;

const ends = computed(() => props.warming.ends);
const lastS = computed(() => props.warming.samples.at(-1)?.tS ?? 0);
const spanS = computed(() => {
  const { tauS = null } = ends.value ?? {};
  return Math.max(LEAST_S, lastS.value * (1 + AHEAD), tauS === null ? 0 : Math.min(3 * tauS, 4 * lastS.value));
});
const range = computed(() => {
  const temps = [...props.warming.samples.map(({ tempC }) => tempC), ...(ends.value ? [ends.value.finalC] : [])];
  const [low, high] = [Math.min(...temps), Math.max(...temps)];
  const pad = Math.max(1, 0.12 * (high - low));
  return { low: low - pad, high: high + pad };
});
const x = (s: number): number => EDGE.left + ((width.value - EDGE.left - EDGE.right) * s) / spanS.value;
const y = (c: number): number =>
  height.value - EDGE.bottom - ((height.value - EDGE.top - EDGE.bottom) * (c - range.value.low)) / (range.value.high - range.value.low);
/** T∞ − A·e^(−t/τ), with A from how far it is at the last note */
const curve = computed(() => {
  const found = ends.value;
  const { tS: fromS, tempC: first } = props.warming.fitted[0] ?? { tS: 0, tempC: 0 };
  if (!found || found.tauS === null) return '';
  const { finalC, tauS } = found;
  const amplitude = finalC - first;
  return Array.from({ length: 61 }, (_, n) => (n / 60) * spanS.value)
    .filter((s) => s >= fromS)
    .map((s, n) => `${n === 0 ? 'M' : 'L'}${x(s).toFixed(1)} ${y(finalC - amplitude * Math.exp((fromS - s) / tauS)).toFixed(1)}`)
    .join('');
});
const band = computed(() => {
  const found = ends.value;
  if (!found || !Number.isFinite(found.finalSdC)) return null;
  const [top, bottom] = [
    Math.max(EDGE.top, y(found.finalC + 2 * found.finalSdC)),
    Math.min(height.value - EDGE.bottom, y(found.finalC - 2 * found.finalSdC)),
  ];
  return { top, height: Math.max(1, bottom - top) };
});
const minutes = computed(() =>
  Array.from({ length: Math.floor(spanS.value / 600) + 1 }, (_, n) => n * 10).filter((_, n, all) => n % Math.ceil(all.length / 6) === 0),
);
const words = computed(() => {
  const found = ends.value;
  if (!found) {
    const more = Math.max(1, LEAST_SAMPLES - props.warming.samples.length);
    return say('{more, plural, one {one note more} other {{more} notes more}}, a minute or two apart, and the curve says where it ends.', {
      more,
    });
  }
  if (found.minutesToHalfKelvin === 0) return say('It changes no more by half a kelvin: the test may end.');
  return say('{percent} % there; in {minutes} min it is within half a kelvin.', {
    percent: Math.round(100 * found.reachedFraction),
    minutes: Math.ceil(found.minutesToHalfKelvin),
  });
});
const endWords = computed(() => {
  const found = ends.value;
  if (!found) return null;
  return Number.isFinite(found.finalSdC) ? `${formatIn('°C', found.finalC, 1)} ± ${formatIn('K', found.finalSdC, 1)}` : '≈ –';
});
</script>

<template>
  <div class="warming">
    <div ref="plot" class="plot">
      <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="`How it warms: ${name}`">
        <g class="axis">
          <text v-for="c in [range.low, range.high]" :key="c" :x="EDGE.left - 6" :y="y(c) + 4" text-anchor="end">{{ grouped(c, 0) }}</text>
          <text v-for="minute in minutes" :key="`m${minute}`" :x="x(minute * 60)" :y="height - 6" text-anchor="middle">{{ minute }}</text>
          <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="height - EDGE.bottom" :y2="height - EDGE.bottom" />
        </g>
        <rect
          v-if="band"
          class="band"
          :x="EDGE.left"
          :width="Math.max(0, width - EDGE.left - EDGE.right)"
          :y="band.top"
          :height="band.height"
        />
        <template v-if="ends">
          <line class="end" :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(ends.finalC)" :y2="y(ends.finalC)" />
          <text :x="width - EDGE.right + 6" :y="y(ends.finalC) + 5" class="final">{{ endWords }}</text>
        </template>
        <path v-if="curve" :d="curve" class="curve" />
        <circle v-for="(sample, index) in warming.samples" :key="index" :cx="x(sample.tS)" :cy="y(sample.tempC)" r="3.5" />
      </svg>
    </div>
    <p role="status">
      <strong>{{ name }}</strong> {{ words }}
    </p>
  </div>
</template>

<style scoped src="../../base/look/chart.css"></style>

<style scoped>
.final {
  fill: var(--ink);
  font-size: 14px;
  font-weight: 600;
}
.axis line {
  stroke: var(--line);
}
.band {
  fill: var(--ink);
  opacity: 0.1;
}
.end {
  stroke: var(--ink);
  stroke-dasharray: 8 5;
}
.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
circle {
  fill: var(--ink);
}
p {
  margin: 0;
}
.warming {
  height: 100%;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 4px;
}
.plot {
  position: relative;
  min-height: var(--least-plot, 150px);
}
svg {
  position: absolute;
  inset: 0;
}
</style>
