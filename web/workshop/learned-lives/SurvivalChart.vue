<script setup lang="ts">
import { grouped, groupedUpTo } from '@core/base/units/display.js';
import { computed, ref } from 'vue';
import { say } from '@core/base/words/say.js';
import { groupName } from '@core/edge/words/lives.js';
import type { NamedGroup } from '@core/workshop/learned-lives/answers.js';
import { RISK_AGES } from '@core/workshop/learned-lives/lifeGroups.js';
import { useWidth } from '../../base/units/useSize.js';

/** Share of fills that last, by age: each failure a step, the fitted line through them, how many were still watched under it. */
const props = defineProps<{ group: NamedGroup; risk: number }>();
const frame = ref<HTMLElement | null>(null);
const width = useWidth(frame, 860);
const HEIGHT = 300;
const EDGE = { left: 58, right: 18, top: 34, bottom: 74 } as const;
/** points of the fitted line */
const SMOOTH = 80;

const most = computed(() =>
  Math.max(3, props.group.oldestMonths, 1.05 * props.group.policyMonths, 1.05 * (props.group.learned?.months ?? 0)),
);
const x = (months: number): number => EDGE.left + ((width.value - EDGE.left - EDGE.right) * months) / most.value;
const y = (share: number): number => EDGE.top + (HEIGHT - EDGE.top - EDGE.bottom) * (1 - share);
const steps = computed(() => {
  let share = 1;
  const down = props.group.steps.map(({ months, survival }) => {
    const path = `L${x(months)} ${y(share)}L${x(months)} ${y(survival)}`;
    share = survival;
    return path;
  });
  return `M${x(0)} ${y(1)}${down.join('')}L${x(props.group.oldestMonths)} ${y(share)}`;
});
const fitted = computed(() => {
  const weibull = props.group.learned?.weibull;
  if (!weibull) return '';
  return Array.from({ length: SMOOTH + 1 }, (_, n) => {
    const months = (most.value * n) / SMOOTH;
    return `${n === 0 ? 'M' : 'L'}${x(months)} ${y(Math.exp(-((months / weibull.scale) ** weibull.shape)))}`;
  }).join('');
});
const ages = computed(() =>
  RISK_AGES.map((age, index) => ({ age, atRisk: props.group.atRisk[index] ?? 0 })).filter(({ age }) => age <= most.value),
);
const SHARES = [1, 0.75, 0.5, 0.25, 0] as const;
/** one day, with what it says; the two stand apart where they would meet */
const marks = computed(() => {
  const { learned, policyMonths } = props.group;
  const policy = {
    months: policyMonths,
    words: say('{months} months by sheet or class', { months: groupedUpTo(policyMonths, 1) }),
    line: 1,
  };
  return learned
    ? [{ months: learned.months, words: say('{months} months learned', { months: grouped(learned.months, 1) }), line: 0 }, policy]
    : [policy];
});
const anchor = (months: number): 'start' | 'end' => (x(months) > 0.66 * width.value ? 'end' : 'start');
const summary = computed(() =>
  say('{name}: share of {fills} fills that last, by months; {failed} failed', {
    name: groupName(props.group),
    fills: props.group.fills,
    failed: props.group.failed,
  }),
);
</script>

<template>
  <div ref="frame" class="frame">
    <svg :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" role="img" :aria-label="summary">
      <g class="grid">
        <g v-for="share in SHARES" :key="share">
          <line :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(share)" :y2="y(share)" />
          <text :x="EDGE.left - 8" :y="y(share) + 4" text-anchor="end">{{ Math.round(100 * share) }} %</text>
        </g>
        <g v-for="{ age, atRisk } in ages" :key="age">
          <line class="tick" :x1="x(age)" :x2="x(age)" :y1="y(0)" :y2="y(0) + 6" />
          <text :x="x(age)" :y="HEIGHT - 48" text-anchor="middle">{{ age }}</text>
          <text :x="x(age)" :y="HEIGHT - 8" text-anchor="middle" class="risk">{{ atRisk }}</text>
        </g>
        <text :x="width - EDGE.right" :y="HEIGHT - 30" text-anchor="end">months; under them how many fills were still watched</text>
      </g>
      <line class="chosen" :x1="EDGE.left" :x2="width - EDGE.right" :y1="y(1 - risk)" :y2="y(1 - risk)" />
      <rect
        v-if="group.learned"
        class="interval"
        :x="x(group.learned.alone.lowMonths)"
        :width="Math.max(1, x(Math.min(most, group.learned.alone.highMonths)) - x(group.learned.alone.lowMonths))"
        :y="y(1 - risk) - 4"
        height="8"
      />
      <path v-if="fitted" class="fitted" :d="fitted" />
      <path class="steps" :d="steps" />
      <g v-for="mark in marks" :key="mark.line" class="mark" :class="{ learned: mark.line === 0 && group.learned }">
        <line :x1="x(mark.months)" :x2="x(mark.months)" :y1="EDGE.top - 4" :y2="y(0)" />
        <text :x="x(mark.months) + (anchor(mark.months) === 'end' ? -5 : 5)" :y="12 + 15 * mark.line" :text-anchor="anchor(mark.months)">
          {{ mark.words }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped src="../../base/look/chart.css"></style>

<style scoped>
.grid .tick {
  stroke: var(--line);
}
.risk {
  fill: var(--ink);
}
.steps {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.fitted {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-dasharray: 6 5;
}
.chosen {
  stroke: var(--ink);
  stroke-dasharray: 2 4;
}
.interval {
  fill: var(--ink);
  opacity: 0.32;
}
.mark.learned line {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: none;
}
</style>
