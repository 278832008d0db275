<script setup lang="ts">
import { HEAT_SD } from '@core/physics/heat/defaults.js';
import { formatIn } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { CurvePoint, FanEnds } from '@core/physics/heat/fanCurve.js';
import { given } from '@core/physics/heat/setup.js';
import { computed, ref } from 'vue';
import { useWidth } from '../../base/units/useSize.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import type { LoadQuestion } from '../compute/twinEngine.js';
import type { HeatForm } from './useHeatSetup.js';

/** Fans that follow the coolant between two settings: the line to type into their controller, and where the loop settles along it. */
const props = defineProps<{ twin: Twin; carried: LoadQuestion }>();
const setup = defineModel<HeatForm>('setup', { required: true });
const answer = useTwinAnswer(
  props.twin,
  () => ({ ...props.carried, pumpSpeed: setup.value.pumpSpeed, limitsC: given(setup.value.limitsC), ends: { ...setup.value.fanEnds } }),
  (question) => props.twin.engine.fanCurve(question),
);

const ENDS: readonly { readonly key: keyof FanEnds; readonly label: string; readonly min: number }[] = [
  { key: 'restSpeed', label: 'Fans at rest', min: 0.1 },
  { key: 'loadSpeed', label: 'Fans under full load', min: 0.1 },
  { key: 'restShare', label: 'Load at rest', min: 0.02 },
];
const frame = ref<HTMLElement | null>(null);
const width = useWidth(frame, 480);
const HEIGHT = 170;
const EDGE = { left: 52, right: 14, top: 12, bottom: 26 } as const;
const curve = computed(() => (answer.value?.end === 'curve' ? answer.value.curve : null));
const range = computed(() => {
  const { fromC = 25, toC = 40 } = curve.value ?? {};
  const pad = 0.25 * (toC - fromC);
  return { low: fromC - pad, high: toC + pad };
});
const x = (c: number): number =>
  EDGE.left + ((width.value - EDGE.left - EDGE.right) * (c - range.value.low)) / (range.value.high - range.value.low);
const y = (speed: number): number => HEIGHT - EDGE.bottom - (HEIGHT - EDGE.top - EDGE.bottom) * speed;
const line = computed(() => {
  if (!curve.value) return '';
  const { restSpeed, loadSpeed } = setup.value.fanEnds;
  const { fromC, toC } = curve.value;
  return `M${EDGE.left} ${y(restSpeed)}H${x(fromC)}L${x(toC)} ${y(loadSpeed)}H${width.value - EDGE.right}`;
});
const isOver = ({ marginK }: CurvePoint): boolean => marginK !== null && marginK < 0;
const overAt = computed(() => curve.value?.points.find(isOver) ?? null);
const verdict = computed(() => {
  if (answer.value?.end === 'nothing-to-follow')
    return say(
      'Full load at its speed leaves the coolant no warmer than rest does: one quiet speed is enough, there is nothing to follow.',
    );
  if (!curve.value) return null;
  if (overAt.value)
    return say('From {share} % of the load on a part is over its limit: faster under full load.', {
      share: Math.round(100 * overAt.value.share),
    });
  const margins = curve.value.points.flatMap(({ marginK }) => marginK ?? []);
  return margins.length > 0
    ? say('Every limit holds on the way, the nearest by {margin}.', { margin: formatIn('K', Math.min(...margins)) })
    : null;
});
</script>

<template>
  <section ref="frame">
    <h2>Fans that follow the coolant</h2>
    <p v-if="curve" class="figures">
      <b>{{ Math.round(setup.fanEnds.restSpeed * 100) }} %</b> up to <b>{{ formatIn('°C', curve.fromC) }}</b>, rising to
      <b>{{ Math.round(setup.fanEnds.loadSpeed * 100) }} %</b> at <b>{{ formatIn('°C', curve.toC) }}</b>
      <span class="quiet estimate"> at the warmest coolant, ± {{ formatIn('K', HEAT_SD.coolantK) }}</span>
    </p>
    <svg
      v-if="curve"
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :width="width"
      :height="HEIGHT"
      role="img"
      aria-label="The fans’ curve over the coolant’s temperature"
    >
      <g class="grid">
        <template v-for="speed in [0, 0.5, 1]" :key="speed">
          <text :x="EDGE.left - 6" :y="y(speed) + 4" text-anchor="end">{{ speed * 100 }} %</text>
          <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(speed)" :y2="y(speed)" />
        </template>
        <text v-for="c in [curve.fromC, curve.toC]" :key="c" :x="x(c)" :y="HEIGHT - 6" text-anchor="middle">{{ formatIn('°C', c) }}</text>
      </g>
      <path class="curve" :d="line" />
      <circle
        v-for="point in curve.points"
        :key="point.share"
        :class="{ over: isOver(point) }"
        :cx="x(point.coolantC)"
        :cy="y(point.fanSpeed)"
        r="4"
      />
    </svg>
    <p v-if="verdict" :class="{ danger: overAt }">{{ verdict }}</p>
    <div class="ends">
      <label v-for="{ key, label, min } in ENDS" :key="key" class="slide">
        <span
          >{{ say(label) }} <b class="figures">{{ Math.round(setup.fanEnds[key] * 100) }} %</b></span
        >
        <input v-model.number="setup.fanEnds[key]" type="range" :min="min" max="1" step="0.01" :aria-label="say(label)" />
      </label>
    </div>
    <p v-if="curve" class="quiet">Dots: where the loop settles from rest to full load, a twelfth of the way apart.</p>
  </section>
</template>

<style scoped src="../profile/panel.css"></style>
<style scoped src="../../base/look/chart.css"></style>

<style scoped>
.ends {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px 20px;
}
.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
circle.over {
  fill: var(--danger);
}
svg {
  display: block;
  max-width: 100%;
}
p {
  margin: 6px 0;
}
</style>
