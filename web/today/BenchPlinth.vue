<script setup lang="ts">
import { computed } from 'vue';
import { formatClock, formatSpan } from '@core/units/display.js';
import { useDates } from '../units/dates.js';
import { useNow } from '../units/now.js';
import type { BenchRun } from './benchStore.js';

/** One bench: the machine that stands on it, what its clock says, what the hands do next. */
const props = defineProps<{ name: string; run: BenchRun | null }>();
const now = useNow();
const dates = useDates();

const clock = computed(() => {
  const timer = props.run?.timers[0];
  if (!timer) return null;
  const passed = (now.value - Date.parse(timer.startedAt)) / 1000;
  return { label: timer.label, left: timer.seconds - passed, share: Math.min(1, passed / timer.seconds), endsAt: new Date(Date.parse(timer.startedAt) + timer.seconds * 1000).toISOString() };
});
const sinceS = computed(() => (props.run ? (now.value - Date.parse(props.run.startedAt)) / 1000 : 0));
</script>

<template>
  <article class="bench" :class="{ empty: !run }" :aria-label="name">
    <component :is="run ? 'router-link' : 'div'" class="standing" :to="run ? `/runs/${run.id}` : undefined">
      <template v-if="run">
        <div class="machine">
          <svg class="machine-glass" viewBox="0 0 60 150" aria-hidden="true">
            <rect x="3" y="3" width="54" height="144" rx="4" fill="var(--glass)" stroke="var(--ink)" stroke-width="3" />
            <rect x="6" :y="6 + 138 * (1 - run.stepNumber / run.steps)" width="48" :height="138 * (run.stepNumber / run.steps)" rx="2" :fill="run.colour ?? 'var(--ink-soft)'" />
            <path v-for="n in run.steps - 1" :key="n" :d="`M${46} ${144 - (138 * n) / run.steps}h8`" stroke="var(--ink)" stroke-width="1.5" />
          </svg>
          <div class="machine-words">
            <h3>{{ run.systemName }}</h3>
            <p class="quiet">{{ run.customerName }}</p>
            <p class="step">{{ run.stepTitle }} <span class="quiet figures">{{ run.stepNumber }} of {{ run.steps }}</span></p>
          </div>
        </div>
        <div class="clock">
          <template v-if="clock">
            <span class="clock-face figures">{{ clock.left > 0 ? formatClock(clock.left) : 'time is up' }}</span>
            <span class="quiet">{{ clock.label.toLowerCase() }}, until {{ dates.time(clock.endsAt) }}</span>
          </template>
          <template v-else>
            <span class="clock-face idle">hands on</span>
            <span class="quiet">on this bench for {{ formatSpan(sinceS) }}</span>
          </template>
        </div>
        <p class="next">{{ run.lead }}</p>
      </template>
      <p v-else class="free">Free. Open a planned system and start its loop here.</p>
    </component>
    <div class="top"><span>{{ name }}</span></div>
  </article>
</template>

<style scoped>
.bench { display: flex; flex-direction: column; justify-content: flex-end; min-width: 0; }
.standing { display: grid; grid-template-rows: auto auto 1fr; gap: 12px; padding: 16px 22px 14px; text-decoration: none; flex: 1; align-content: end; }
a.standing:hover .step { text-decoration: underline; }
.machine { display: flex; gap: 18px; align-items: flex-end; }
.machine-glass { width: 52px; height: 128px; flex: none; }
.machine-words p { margin: 2px 0 0; }
.machine-words .step { margin-top: 10px; font-weight: 600; }
.clock { display: grid; }
.clock-face { font-size: 3rem; line-height: 1.05; font-weight: 320; letter-spacing: -0.02em; }
.clock-face.idle { color: var(--ink-soft); }
.next { margin: 0; align-self: start; }
.top { background: var(--slab); color: var(--on-slab); padding: 9px 22px; border-radius: 2px; position: relative; }
.top::before, .top::after { content: ''; position: absolute; top: 100%; width: 12px; height: 16px; background: var(--slab); }
.top::before { left: 22px; }
.top::after { right: 22px; }
.free { align-self: end; grid-row: -1; margin: 0; color: var(--ink-soft); max-width: 26ch; }
</style>
