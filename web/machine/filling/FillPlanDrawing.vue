<script setup lang="ts">
import { computed } from 'vue';
import type { FillPlan } from '@core/physics/filling/fillPlan.js';
import { formatMl, formatMlWithSd, grouped } from '@core/base/units/display.js';

/** The first fill as a jug poured in portions: first to the mark, then pulse by pulse. */
const props = defineProps<{ plan: FillPlan; colour: string | null; poured?: number }>();
const portions = computed(() => {
  if (props.plan.kind === 'gravity') return [];
  const all = [
    { name: 'first', ml: props.plan.firstPourMl },
    ...props.plan.pulses.map(({ number, pourMl }) => ({ name: `${number}`, ml: pourMl })),
  ];
  let before = 0;
  return all.map((each) => {
    const start = before;
    before += each.ml;
    return {
      ...each,
      share: (each.ml / Math.max(1, props.plan.total.volumeMl)) * 100,
      done: (props.poured ?? 0) >= before - 1,
      begun: (props.poured ?? 0) > start,
    };
  });
});
</script>

<template>
  <div>
    <template v-if="plan.kind === 'pulses'">
      <div
        class="jug"
        role="img"
        :aria-label="`First pour ${formatMl(plan.firstPourMl)}, then ${plan.pulses.length} pulses of at most ${formatMl(plan.workingMl)}`"
      >
        <span
          v-for="portion in portions"
          :key="portion.name"
          class="portion figures"
          :class="{ hollow: poured !== undefined && !portion.done }"
          :style="{
            width: `${portion.share}%`,
            background: poured === undefined || portion.done ? (colour ?? 'var(--ink-soft)') : undefined,
          }"
        >
          <b v-if="portion.share > 7">{{ Math.round(portion.ml) }}</b>
        </span>
      </div>
      <p class="mt-2">
        Pour <strong class="figures">{{ formatMl(plan.firstPourMl) }}</strong> to the fill mark, then
        <template v-if="plan.pulses.length"
          >{{ plan.pulses.length }} {{ plan.pulses.length === 1 ? 'pulse' : 'pulses' }}: pump off at the low mark, pour at most
          <strong class="figures">{{ formatMl(plan.workingMl) }}</strong> each time.</template
        >
        <template v-else>the loop is full.</template>
      </p>
      <p class="quiet estimate">
        Estimate from volumes: a column that falls back takes less.
        <template v-if="plan.pulses[0]?.soonestS"
          >The low mark cannot come before {{ grouped(plan.pulses[0].soonestS, 1) }} s of pump.</template
        >
      </p>
    </template>
    <p v-else>
      {{ plan.reason }} Have <strong class="figures">{{ formatMlWithSd(plan.total.volumeMl, plan.total.sdMl) }}</strong> ready.
    </p>
  </div>
</template>

<style scoped>
.jug {
  display: flex;
  height: 44px;
  border: 2px solid var(--ink);
  border-right-width: 6px;
  background: var(--glass);
}
.portion {
  display: grid;
  place-items: center;
  border-right: 2px solid var(--ink);
  overflow: hidden;
}
.portion:last-child {
  border-right: none;
}
.portion b {
  font-weight: 560;
  font-size: 0.82rem;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 5px;
  border-radius: 2px;
}
p {
  margin-bottom: 0;
}
</style>
