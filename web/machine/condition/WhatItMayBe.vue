<script setup lang="ts">
import { computed } from 'vue';
import { markWords } from '@core/edge/words/condition.js';
import { causeWords, differenceWords } from '@core/edge/words/readings.js';
import { formatDay } from '@core/base/units/dates.js';
import { formatIn, formatKelvinPerWatt } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { DatedReading } from '@core/physics/condition/series.js';
import type { HeatCause } from '@core/physics/diagnosis/causes.js';
import { compareReadings } from '@core/physics/diagnosis/compareReadings.js';
import type { Diagnosis } from '@core/physics/diagnosis/diagnose.js';
import { allPowerW } from '@core/physics/diagnosis/loadReading.js';
import { partName } from '@core/physics/diagnosis/sensors.js';
import { CAUSE_JOBS } from '@core/workshop/jobs/causeJobs.js';
import { JOB_KINDS } from '@core/workshop/job-kinds/kinds.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import CauseAnswer from './CauseAnswer.vue';

/** A reading of its best days against the newest: what moved, what it may be, what it was, and the job that mends it. */
const props = defineProps<{
  page: ConditionPage;
  pair: { readonly sound: DatedReading; readonly now: DatedReading };
  /** the loop that the read parts belong to; null: it is not drawn */
  loop: ConditionPage['loops'][number] | null;
  found: Diagnosis | null;
  canWrite: boolean;
}>();
const emit = defineEmits<{ confirm: [cause: HeatCause, part: string | null]; strike: [id: string] }>();
/** signs that were looked for */
const seen = defineModel<string[]>({ required: true });
const nameOf = (part: string): string => partName(props.page.parts, part);
const job = computed(() => {
  const [first] = props.found?.explained ? props.found.causes : [];
  return first ? CAUSE_JOBS[first.cause] : null;
});
/** what the two readings share and where they differ, figure by figure */
const moved = computed(() => {
  const [a, b] = [props.pair.sound.reading, props.pair.now.reading];
  const both = (x: number | undefined, y: number | undefined): x is number => x !== undefined && y !== undefined;
  return [
    ...Object.keys(b.partsC).flatMap((part) => {
      const theta = (of: typeof a): number => ((of.partsC[part] ?? NaN) - (of.coolantC ?? of.roomC)) / (of.powersW[part] ?? NaN);
      const over = both(a.coolantC, b.coolantC) ? say('{part} over the coolant', { part: nameOf(part) }) : say('{part} over the room', { part: nameOf(part) }); // prettier-ignore
      return Number.isFinite(theta(a)) && Number.isFinite(theta(b))
        ? [{ key: part, words: over, before: theta(a), after: theta(b), show: formatKelvinPerWatt }]
        : [];
    }),
    ...(both(a.coolantC, b.coolantC)
      ? [
          {
            key: 'coolant',
            words: say('coolant over the room'),
            before: (a.coolantC - a.roomC) / allPowerW(a),
            after: ((b.coolantC ?? NaN) - b.roomC) / allPowerW(b),
            show: formatKelvinPerWatt,
          },
        ]
      : []),
    ...(both(a.flowLph, b.flowLph)
      ? [{ key: 'flow', words: say('flow'), before: a.flowLph, after: b.flowLph ?? NaN, show: (lph: number) => formatIn('L/h', lph) }]
      : []),
  ];
});
/** what was done after the one and before the other: no reading tells it apart */
const between = computed(() =>
  props.page.marks
    .filter(({ on }) => on > props.pair.sound.on && on <= props.pair.now.on)
    .sort((a, b) => a.on.localeCompare(b.on))
    .map((mark) => `${formatDay(mark.on)} ${markWords(mark)}${mark.part === null ? '' : ` (${nameOf(mark.part)})`}`),
);
const longest = (before: number, after: number): number => Math.max(before, after, 1e-9);
const unlike = computed(() =>
  compareReadings(props.pair.sound.reading, props.pair.now.reading)
    .differences.filter(({ what }) => what !== 'missing')
    .map(differenceWords),
);
</script>

<template>
  <section class="cause" aria-label="What it may be">
    <div>
      <h2>What it may be</h2>
      <p class="quiet">{{ formatDay(pair.sound.on) }}, one of its best days, against {{ formatDay(pair.now.on) }}.</p>
      <ul class="plain-list moved">
        <li v-for="each in moved" :key="each.key">
          <span>{{ each.words }}</span>
          <span class="bars" aria-hidden="true"
            ><i class="was" :style="{ width: `${(100 * each.before) / longest(each.before, each.after)}%` }" /><i
              :style="{ width: `${(100 * each.after) / longest(each.before, each.after)}%` }"
          /></span>
          <span class="figures">{{ each.show(each.before) }} → {{ each.show(each.after) }}</span>
        </li>
      </ul>
      <p v-if="between.length">Between them: {{ between.join('; ') }}. What moved is all of that together.</p>
      <p v-if="unlike.length" class="quiet">Not alike: {{ unlike.join('; ') }}.</p>
      <ul v-if="page.confirmed.length" class="plain-list known" aria-label="What it was">
        <li v-for="each in page.confirmed" :key="each.id">
          {{ formatDay(each.on) }}: <strong>{{ causeWords(each.cause, each.part && nameOf(each.part)) }}</strong>, {{ each.by }}
          <button
            v-if="canWrite"
            type="button"
            class="link no-print"
            :aria-label="`It was not: ${causeWords(each.cause, each.part && nameOf(each.part))}`"
            @click="emit('strike', each.id)"
          >
            strike out
          </button>
        </li>
      </ul>
      <v-btn
        v-if="job && !page.system.retired"
        size="large"
        class="mt-3 no-print"
        :to="`/systems/${page.system.id}/jobs/new?kind=${job}${loop ? `&loop=${loop.id}` : ''}`"
        >Take it in: {{ JOB_KINDS[job].label }}</v-btn
      >
    </div>
    <CauseAnswer
      v-if="found && loop"
      v-model="seen"
      :loop="loop.file"
      :found="found"
      :can-confirm="canWrite"
      @confirm="(cause, part) => emit('confirm', cause, part)"
    />
    <p v-else-if="!loop" class="quiet">Causes are ranked on the loop’s own twin: draw its loop first.</p>
  </section>
</template>

<style scoped>
.cause {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px 40px;
  margin: 24px 0;
  align-items: start;
}
.cause > div {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.moved li {
  display: grid;
  grid-template-columns: minmax(120px, 1fr) 1fr 180px;
  gap: 12px;
  align-items: center;
  padding: 5px 0;
}
.moved .figures {
  text-align: right;
}
.bars i {
  display: block;
  height: 8px;
  background: var(--ink);
}
.bars .was {
  background: var(--line);
}
.bars {
  display: grid;
  gap: 2px;
}
.moved {
  width: 100%;
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
p {
  margin: 0;
}
@media (max-width: 1000px) {
  .cause {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
