<script setup lang="ts">
import { formatDegrees, grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { UsagePage } from '@core/workshop/usage/answers.js';
import { computed, ref } from 'vue';
import { USAGE_SOURCE_WORDS, type UsageFigure } from '@core/workshop/usage/usage.js';
import { REFERENCE_COOLANT_C } from '@core/machine/liquids/classes.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import UsageDialog from './UsageDialog.vue';

/** How much a machine runs and how warm: the figure that the clocks take, and every other there is beside it. */
const props = defineProps<{ systemId: string; page: UsagePage; today: string; retired: boolean }>();
const emit = defineEmits<{ reload: [] }>();
const dates = useDates();
const notices = useNotices();
const adding = ref(false);
const open = ref(false);

const spanWords = ({ span }: UsageFigure): string =>
  span === null ? '' : say(', {day} to {day2}', { day: dates.day(span.from), day2: dates.day(span.to) });
const hours = computed(() => props.page.usage.hoursPerDay[0] as UsageFigure);
const coolant = computed(() => props.page.usage.coolantC[0] ?? null);
/** the longest bar is a day that never ends */
const DAY_HOURS = 24;

function saved(text: string): void {
  notices.say(text);
  emit('reload');
}

async function strike(id: string, struck: boolean): Promise<void> {
  try {
    await call('PUT', `/usage-readings/${id}`, { body: { struck } });
    if (struck) notices.say(say('Reading struck out; the dates follow.'), () => strike(id, false));
    emit('reload');
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
</script>

<template>
  <section class="usage">
    <header class="spread">
      <h2>How it is used</h2>
      <span class="row no-print">
        <v-btn v-if="!retired" variant="text" @click="adding = true">Read its meter</v-btn>
        <v-btn variant="outlined" :to="`/systems/${systemId}/condition`">Log and condition</v-btn>
      </span>
    </header>
    <ul class="plain-list bars" aria-label="Running hours of a day's 24, the figure that counts first">
      <li v-for="(figure, index) in page.usage.hoursPerDay" :key="figure.source" :class="{ quiet: index > 0 }">
        <span class="figures value">{{ figure.source === 'default' ? '≈ ' : '' }}{{ grouped(figure.value, 1) }} h a day</span>
        <span class="track"
          ><span
            class="bar"
            :class="{ counts: index === 0, assumed: figure.source === 'default' }"
            :style="{ width: `${(100 * figure.value) / DAY_HOURS}%` }"
        /></span>
        <span class="source">{{ USAGE_SOURCE_WORDS[figure.source] }}{{ spanWords(figure) }}</span>
      </li>
    </ul>
    <p class="figures">
      <template v-if="coolant"
        >Coolant {{ formatDegrees(coolant.value) }} on average {{ USAGE_SOURCE_WORDS[coolant.source] }}{{ spanWords(coolant) }}.</template
      >
      <span v-else class="quiet">Nobody measured its coolant: lives are taken as at {{ formatDegrees(REFERENCE_COOLANT_C) }}.</span>
      <span v-if="hours.source === 'default'" class="quiet"> Nobody said how long it runs: a reading of its hour meter would.</span>
    </p>
    <template v-if="page.readings.length">
      <button type="button" class="link no-print" :aria-expanded="open" @click="open = !open">
        {{ page.readings.length }} {{ page.readings.length === 1 ? 'reading' : 'readings' }}
      </button>
      <ul v-if="open" class="plain-list readings figures">
        <li v-for="reading in page.readings" :key="reading.id">
          <span>{{ dates.day(reading.on) }}</span>
          <span>{{
            reading.source === 'meter' ? `meter at ${grouped(reading.hours, 0)} h` : `log, ${grouped(reading.hours, 1)} h run`
          }}</span>
          <span class="quiet">{{
            [reading.meanCoolantC === null ? '' : formatDegrees(reading.meanCoolantC), reading.note].filter(Boolean).join(', ')
          }}</span>
          <button type="button" class="link no-print" @click="strike(reading.id, true)">strike out</button>
        </li>
      </ul>
    </template>
    <UsageDialog v-if="adding" :system-id="systemId" :today="today" @close="adding = false" @saved="saved" />
  </section>
</template>

<style scoped>
.usage p {
  margin: 8px 0 0;
}
.bars li {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: 0 12px;
  align-items: center;
  padding: 4px 0;
}
.source {
  grid-column: 2;
}
.track {
  height: 12px;
  border: 1.5px solid var(--line);
  border-left: 3px solid var(--ink);
}
.bar {
  display: block;
  height: 100%;
  background: var(--line);
}
.bar.counts {
  background: var(--ink);
}
.bar.assumed {
  background: repeating-linear-gradient(-55deg, var(--ink-soft) 0 2px, transparent 2px 6px);
}
.readings li {
  display: grid;
  grid-template-columns: 104px 1fr 1fr auto;
  gap: 12px;
  min-height: 32px;
  align-items: center;
  border-top: 1px solid var(--line-soft);
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
</style>
