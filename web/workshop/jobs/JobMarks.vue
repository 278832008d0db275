<script setup lang="ts">
import { computed } from 'vue';
import { say } from '@core/base/words/say.js';
import type { JobPage } from '@core/workshop/jobs/answers.js';
import { useDates } from '../../base/units/dates.js';

/** What a booked job still lacks, at a look: a mark is full once that is settled. */
const props = defineProps<{ job: JobPage }>();
const dates = useDates();
const marks = computed(() => {
  const { consented, consents, partsOn, today, appointment, run } = props.job;
  const agreed = consents.at(-1);
  const awaited = partsOn !== null && partsOn > today;
  return [
    {
      what: say('agreed'),
      is: consented,
      words: consented && agreed ? dates.day(agreed.at) : consents.length > 0 ? say('asks anew: the estimate grew') : say('not yet'),
    },
    { what: say('parts'), is: !awaited, words: awaited ? say('expected {day}', { day: dates.day(partsOn) }) : say('none awaited') },
    {
      what: say('slot'),
      is: appointment?.confirmed === true,
      words: appointment ? (appointment.confirmed ? dates.dayAndTime(appointment.from) : say('planned, not told')) : say('none'),
    },
    { what: say('bench'), is: run !== null, words: run ? say('on it') : (appointment?.bench ?? say('none')) },
  ];
});
</script>

<template>
  <ul class="marks plain-list" aria-label="What is settled">
    <li v-for="{ what, is, words } in marks" :key="what" :class="{ settled: is }">
      <span class="mark" aria-hidden="true"></span>
      <span
        ><strong>{{ what }}</strong> <span class="visually-hidden">{{ is ? 'settled' : 'open' }}</span>
        <span class="words figures">{{ words }}</span></span
      >
    </li>
  </ul>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 32px;
  margin: 12px 0 0;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
}
.mark {
  width: 18px;
  height: 18px;
  border: 2.5px solid var(--ink);
  flex: none;
}
.settled .mark {
  background: var(--ink);
}
.words {
  color: var(--ink-soft);
}
</style>
