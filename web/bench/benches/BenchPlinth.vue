<script setup lang="ts">
import { sayWord, midSentence } from '@core/base/words/say.js';
import { readAnew } from '@core/bench/procedures/inReadersWords.js';
import type { BenchRun, NextSlot } from '@core/bench/benches/answers.js';
import { computed } from 'vue';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { formatClock, formatSpan } from '@core/base/units/display.js';
import { useDates } from '../../base/units/dates.js';
import { useNow } from '../../base/units/now.js';
import { BOOKED_KINDS } from '@core/workshop/job-kinds/kinds.js';
import RunPicture from './RunPicture.vue';

/** One bench: the machine that stands on it, what its clock says, what the hands do next. */
const props = defineProps<{ name: string; run: BenchRun | null; file: LoopFile | null; next?: NextSlot | null }>();
const now = useNow(1000, () => props.run?.aheadMs ?? 0);
const dates = useDates();

/** every clock that runs on this bench, the one that ends first in front */
const clocks = computed(() =>
  (props.run?.timers ?? [])
    .map((timer) => ({
      id: timer.id,
      label: timer.label,
      left: timer.seconds - (now.value - Date.parse(timer.startedAt)) / 1000,
      endsAt: new Date(Date.parse(timer.startedAt) + timer.seconds * 1000).toISOString(),
    }))
    .sort((a, b) => a.left - b.left),
);
const clock = computed(() => clocks.value[0] ?? null);
const sinceS = computed(() => (props.run ? (now.value - Date.parse(props.run.startedAt)) / 1000 : 0));
</script>

<template>
  <article class="bench" :class="{ empty: !run }" :aria-label="name">
    <component :is="run ? 'router-link' : 'div'" class="standing" :to="run ? `/runs/${run.id}` : undefined">
      <template v-if="run">
        <RunPicture :run="run" :file="file" :height="132" />
        <div class="words">
          <h3>{{ run.systemName }}</h3>
          <p class="quiet">{{ run.practice ? 'practice, not the machine itself' : run.ownerName }}</p>
          <p class="step">
            {{ sayWord(run.stepTitle) }} <span class="quiet figures">step {{ run.stepNumber }} of {{ run.steps }}</span>
          </p>
        </div>
        <div class="clock">
          <template v-if="clock">
            <span class="clock-face figures">{{ clock.left > 0 ? formatClock(clock.left) : 'time is up' }}</span>
            <span class="quiet">{{ midSentence(sayWord(clock.label)) }}, until {{ dates.time(clock.endsAt) }}</span>
            <span v-for="each in clocks.slice(1)" :key="each.id" class="quiet figures"
              >{{ each.left > 0 ? formatClock(each.left) : 'time is up' }} {{ midSentence(sayWord(each.label)) }}</span
            >
          </template>
          <template v-else>
            <span class="clock-face idle">hands on</span>
            <span class="quiet">on this bench for {{ formatSpan(sinceS) }}</span>
          </template>
        </div>
        <p class="next">{{ readAnew(run.lead) }}</p>
      </template>
      <p v-else-if="next" class="free">
        Free. Next, {{ dates.dayAndTime(next.startsAt) }}:<br />
        <router-link :to="`/jobs/${next.jobId}`"
          ><strong>{{ next.systemName }}</strong></router-link
        >, {{ BOOKED_KINDS[next.kind].short }}<template v-if="!next.confirmed">, not confirmed</template>
      </p>
      <p v-else class="free">Free. Open a planned machine and start its loop here.</p>
    </component>
    <div class="top">
      <span>{{ name }}</span>
    </div>
  </article>
</template>

<style scoped>
.bench {
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  min-width: 0;
}
.standing {
  display: grid;
  gap: 10px;
  padding: 16px 22px 14px;
  text-decoration: none;
  flex: 1;
  align-content: end;
}
a.standing:hover .step {
  text-decoration: underline;
}
.words .step {
  margin-top: 6px;
  font-weight: 600;
}
.clock {
  display: grid;
}
.clock-face {
  font-family: var(--figures);
  font-size: 3rem;
  line-height: 1.05;
  font-weight: 320;
  letter-spacing: -0.02em;
}
.clock-face.idle {
  color: var(--ink-soft);
}
.next {
  margin: 0;
  align-self: start;
}
.top {
  background: var(--slab);
  color: var(--on-slab);
  padding: 9px 22px;
  border-radius: 2px;
  position: relative;
}
.top::before,
.top::after {
  content: '';
  position: absolute;
  top: 100%;
  width: 12px;
  height: 16px;
  background: var(--slab);
}
.top::before {
  left: 22px;
}
.top::after {
  right: 22px;
}
.free {
  align-self: end;
  grid-row: -1;
  margin: 0;
  color: var(--ink-soft);
  max-width: 26ch;
}
</style>
