<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { Debrief } from '@core/bench/practice/debrief.js';
import type { DebriefLine } from '@core/bench/practice/debriefLine.js';
import { formatMl, formatSpan, grouped } from '@core/base/units/display.js';
import type { Verdict } from '@core/bench/runs/verdicts.js';
import VerdictPlates from '../verdicts/VerdictPlates.vue';
import { useDates } from '../../base/units/dates.js';

/** After a practice run: what the bench hid, what hands did about it, and what a better order would have saved. */
const props = defineProps<{ debrief: Debrief; systemId: string; verdicts?: readonly Verdict[]; ofCourse?: boolean }>();
const dates = useDates();

const GROUPS: readonly { kind: DebriefLine['kind']; title: string }[] = [
  { kind: 'harm', title: 'Would have cost something' },
  { kind: 'missed', title: 'Went unnoticed' },
  { kind: 'saving', title: 'A better order' },
  { kind: 'good', title: 'Went well' },
];
const groups = computed(() =>
  GROUPS.map((group) => ({ ...group, lines: props.debrief.lines.filter(({ kind }) => kind === group.kind) })).filter(
    ({ lines }) => lines.length > 0,
  ),
);
const big = computed(() => {
  const harms = props.debrief.lines.filter(({ kind }) => kind === 'harm').length;
  if (harms > 0)
    return { text: String(harms), small: harms === 1 ? say('thing would have cost something') : say('things would have cost something') };
  const missed = props.debrief.lines.filter(({ kind }) => kind === 'missed').length;
  return missed > 0 ? { text: String(missed), small: say('went unnoticed, nothing was harmed') } : { text: 'clean', small: '' };
});
</script>

<template>
  <article class="debrief">
    <h2>Debrief</h2>
    <p class="big-number">
      {{ big.text }} <small>{{ big.small }}</small>
    </p>
    <VerdictPlates v-if="verdicts" :verdicts="verdicts" />
    <dl class="figures">
      <div>
        <dt>Pump ran dry</dt>
        <dd>{{ grouped(debrief.ranDryS, 1) }} s</dd>
      </div>
      <div>
        <dt>Lost</dt>
        <dd>{{ formatMl(debrief.lostMl) }}</dd>
      </div>
      <div>
        <dt>Took</dt>
        <dd>{{ formatSpan(debrief.tookS) }}</dd>
      </div>
      <div>
        <dt>A better order saves</dt>
        <dd>{{ debrief.savedS > 0 ? formatSpan(debrief.savedS) : 'nothing seen' }}</dd>
      </div>
    </dl>
    <section>
      <h3>What the bench hid</h3>
      <p v-for="each in debrief.hidden" :key="each">{{ each }}</p>
    </section>
    <section v-for="group in groups" :key="group.kind" :class="{ danger: group.kind === 'harm' }">
      <h3>{{ group.title }}</h3>
      <ul class="plain-list">
        <li v-for="line in group.lines" :key="line.text">
          {{ line.text }} <span v-if="line.at" class="quiet figures">{{ dates.time(line.at) }}</span>
        </li>
      </ul>
    </section>
    <p class="quiet">Only a simulation: the machine’s own record, dates and stock were not touched.</p>
    <p>
      <router-link v-if="ofCourse" to="/course">Back to the course</router-link
      ><router-link v-else :to="`/systems/${systemId}`">Back to the machine</router-link>
    </p>
  </article>
</template>

<style scoped>
.debrief {
  display: grid;
  gap: 14px;
  max-width: 78ch;
}
p {
  margin: 0;
}
h3 {
  font-size: 1.05rem;
  margin: 0 0 4px;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 40px;
  margin: 0;
  border-block: 2px solid var(--ink);
  padding: 8px 2px;
}
dt {
  color: var(--ink-soft);
  font-size: 0.9rem;
}
dd {
  margin: 0;
  font-size: 1.4rem;
}
li {
  padding: 4px 0;
  border-top: 1px solid var(--line-soft);
}
</style>
