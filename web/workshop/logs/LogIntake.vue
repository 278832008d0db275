<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { dayIn } from '@core/base/units/calendar.js';
import { formatDay } from '@core/base/units/dates.js';
import { formatDegrees, grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { liquidAt, liquidOf } from '@core/machine/liquids/fluids.js';
import type { DatedReading } from '@core/physics/condition/series.js';
import { partName } from '@core/physics/diagnosis/sensors.js';
import type { ConditionPage, KeptLog } from '@core/workshop/logs/answers.js';
import type { LogColumns } from '@core/workshop/logs/columns.js';
import { OFF_AFTER_MINUTES, STEADY } from '@core/workshop/logs/defaults.js';
import type { DayOrder } from '@core/workshop/logs/instants.js';
import type { LogReport } from '@core/workshop/logs/reader.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import DayField from '../../base/units/DayField.vue';
import { useCoolants } from '../coolants/coolantStore.js';
import LogColumnsForm from './LogColumnsForm.vue';
import { withOrder, type LogLook } from './readLogFile.js';
import { useLog } from './useLog.js';

/** A log comes in: its columns, what it comes to, what is left out of it; nothing is kept before somebody has seen that. */
const props = defineProps<{ page: ConditionPage }>();
const emit = defineEmits<{ preview: [readings: readonly DatedReading[]]; kept: [words: string] }>();
const { busy, progress, look, read, simulate, stop } = useLog();
const submit = useSubmit();
const coolants = useCoolants();

const file = shallowRef<Blob | null>(null);
const name = ref('');
const looked = shallowRef<LogLook | null>(null);
const columns = ref<LogColumns | null>(null);
const order = ref<DayOrder>('dmy');
const beginsOn = ref('');
const report = shallowRef<LogReport | null>(null);
const problem = ref<string | null>(null);

function forget(): void {
  stop();
  file.value = null;
  looked.value = null;
  columns.value = null;
  report.value = null;
  problem.value = null;
  emit('preview', []);
}

async function take(taken: Blob | undefined, called: string): Promise<void> {
  if (!taken) return;
  forget();
  name.value = called.slice(0, 200);
  const answer = await look(taken, props.page.parts, props.page.columns);
  if (!answer) return;
  if ('problem' in answer) {
    problem.value = answer.problem;
    return;
  }
  file.value = taken;
  looked.value = answer;
  columns.value = answer.columns;
  order.value = answer.layout.style === 'mdy' ? 'mdy' : 'dmy';
  // columns that are known and days that read one way ask nothing: it is read at once
  if (answer.isKnown && !needsWord.value) await readIt();
}

const needsDay = computed(() => looked.value?.layout.style === 'clock');
const needsWord = computed(() => needsDay.value || looked.value?.layout.isUnsure === true);
const ORDERS = computed(() => {
  const cell = looked.value?.sample[0]?.[looked.value.layout.date ?? looked.value.layout.time] ?? '';
  return [
    { value: 'dmy' as const, title: say('{cell}: day first', { cell }) },
    { value: 'mdy' as const, title: say('{cell}: month first', { cell }) },
  ];
});

async function readIt(): Promise<void> {
  if (!file.value || !looked.value || !columns.value) return;
  problem.value = null;
  if (needsDay.value && beginsOn.value === '') {
    problem.value = say('The lines tell a time of day alone: say on which day the log begins.');
    return;
  }
  const { letters, separator, layout } = looked.value;
  const found = await read(file.value, {
    letters,
    separator,
    layout: layout.isUnsure ? withOrder(layout, order.value) : layout,
    columns: columns.value,
    zone: props.page.zone,
    beginsOn: needsDay.value ? beginsOn.value : null,
  });
  if (busy.value !== null) return;
  if (!found) {
    problem.value = say('No two lines of this file tell the time in the way that its first lines do.');
    return;
  }
  report.value = found;
  emit(
    'preview',
    found.days.map(({ on, reading }): DatedReading => ({ id: `new ${on}`, on, source: 'log', reading })),
  );
}

/** days of a log that the stand-in writes: a season, so that something can be seen in it */
const SIMULATED_DAYS = 120;
async function tryLogger(): Promise<void> {
  const [loop] = props.page.loops;
  if (!loop) return;
  const fromOn = dayIn('UTC', new Date(Date.parse(`${props.page.today}T00:00:00Z`) - SIMULATED_DAYS * 86_400_000));
  const written = await simulate({
    loop: loop.file,
    fluid: liquidAt(liquidOf(coolants.find(loop.coolantProductId)), 35),
    parts: props.page.parts,
    fromOn,
    days: SIMULATED_DAYS,
    seed: Date.now() % 100_000,
  });
  if (written) await take(written, say('Logger stand-in, {days} days', { days: SIMULATED_DAYS }));
}

async function keep(): Promise<void> {
  const found = report.value;
  const way = columns.value;
  if (!found || !way) return;
  const { zone } = props.page;
  const body = {
    name: name.value || 'log',
    fromOn: dayIn(zone, new Date(found.fromMs)),
    on: dayIn(zone, new Date(found.toMs)),
    hours: Math.round(found.hours * 100) / 100,
    meanCoolantC: found.meanCoolantC === null ? null : Math.round(found.meanCoolantC * 100) / 100,
    meterHours: found.meterHours,
    columns: { ...way, fullPumpRpm: found.fullPumpRpm, fullFanRpm: found.fullFanRpm },
    days: found.days,
  };
  const kept = await submit.run((idempotencyKey) =>
    call<KeptLog>('POST', `/systems/${props.page.system.id}/logs`, { body, idempotencyKey }),
  );
  if (!kept) return;
  forget();
  emit(
    'kept',
    say('Kept: {taken, plural, one {one reading} other {{taken} readings}}{known}{moved}.', {
      taken: kept.taken,
      known: kept.known > 0 ? say(', {known, plural, one {one day was} other {{known} days were}} known', { known: kept.known }) : '',
      moved: kept.moved.length > 0 ? say('; its date moves') : '',
    }),
  );
}

const NONE_WORDS = {
  'no-power': 'No part has both a temperature and its watts in this log: nothing can be compared. Hours and warmth count all the same.',
  'no-room': 'No column has the room’s temperature: say among its columns what it was, and readings come of it.',
  'no-load': 'No load was heavy, even and long enough: {minutes} minutes at {watts} W or more.',
} as const;
const taken = computed((): string[] => {
  const found = report.value;
  if (!found) return [];
  return [
    say('{lines} lines, {from} to {to}', {
      lines: grouped(found.lines, 0),
      from: formatDay(dayIn(props.page.zone, new Date(found.fromMs))),
      to: formatDay(dayIn(props.page.zone, new Date(found.toMs))),
    }),
    say('{hours} h run{coolant}', {
      hours: grouped(found.hours, 1),
      coolant: found.meanCoolantC === null ? '' : say(', coolant {mean} on average', { mean: formatDegrees(found.meanCoolantC) }),
    }),
    ...(found.meterHours === null ? [] : [say('its hour meter at the end: {hours} h', { hours: grouped(found.meterHours, 0) })]),
    found.noReadings === null
      ? say('{count, plural, one {one day} other {{count} days}} of {logged} with a steady load: a reading each', {
          count: found.days.length,
          logged: found.daysLogged,
        })
      : say(NONE_WORDS[found.noReadings], { minutes: STEADY.leadMinutes, watts: STEADY.leastLoadW }),
  ];
});
const leftOut = computed((): string[] => {
  const found = report.value;
  if (!found) return [];
  const { unreadable, firstUnreadable, repeated, insane } = found.left;
  return [
    ...(unreadable > 0
      ? [
          say('{unreadable, plural, one {one line} other {{unreadable} lines}} without a time: {rows}', {
            unreadable,
            rows: firstUnreadable.join(', '),
          }),
        ]
      : []),
    ...(repeated > 0
      ? [say('{repeated, plural, one {one line} other {{repeated} lines}} not later than the line above', { repeated })]
      : []),
    ...(insane > 0 ? [say('{insane, plural, one {one figure} other {{insane} figures}} that no sensor can mean', { insane })] : []),
    ...(found.off.times > 0
      ? [
          say('off {times, plural, one {once} other {{times} times}} for more than {minutes} min, {longest} h at the longest', {
            times: found.off.times,
            minutes: OFF_AFTER_MINUTES,
            longest: grouped(found.off.longestMinutes / 60, 1),
          }),
        ]
      : []),
    ...(found.restarts > 0
      ? [say('the logger began anew {times, plural, one {once} other {{times} times}}', { times: found.restarts })]
      : []),
    ...(found.setBack > 0 ? [say('the clock was set back: an hour came twice and is told apart')] : []),
  ];
});
const held = computed(() =>
  (report.value?.throttled ?? []).map(({ on, part, atC, fromW, toW }) =>
    say('{day}: {part} held {temp} and gave power away, {from} to {to} W', {
      day: formatDay(on),
      part: partName(props.page.parts, part),
      temp: formatDegrees(atC),
      from: Math.round(fromW),
      to: Math.round(toW),
    }),
  ),
);
</script>

<template>
  <section class="intake" aria-label="Bring a log in">
    <label
      v-if="!looked && busy === null"
      class="drop"
      @dragover.prevent
      @drop.prevent="take($event.dataTransfer?.files[0], $event.dataTransfer?.files[0]?.name ?? '')"
    >
      <input
        type="file"
        accept=".csv,.tsv,.txt,.log,text/csv,text/plain"
        @change="take(($event.target as HTMLInputElement).files?.[0], ($event.target as HTMLInputElement).files?.[0]?.name ?? '')"
      />
      <span><b>Choose the log</b> that the owner’s monitoring program wrote, or drop it here</span>
      <span class="quiet">a table of text (CSV): time, temperatures, watts; as long as it is</span>
    </label>
    <p v-if="!looked && busy === null && page.loops.length" class="quiet">
      No log at hand?
      <button type="button" class="link" @click="tryLogger">The logger stand-in writes one</button>
      of this loop with a fault that nobody is told. Keep it only on a machine to try with.
    </p>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>

    <div v-if="busy" class="running" aria-live="polite">
      <p>{{ busy === 'writing' ? 'The logger stand-in writes' : busy === 'looking' ? `Looking at ${name}` : `Reading ${name}` }}</p>
      <progress :value="busy === 'reading' ? progress : undefined" max="1" :aria-label="`Reading ${name}`" />
      <v-btn variant="text" @click="forget">Stop reading</v-btn>
    </div>

    <template v-if="looked && columns && busy === null">
      <template v-if="!report">
        <h3>{{ name }}: what its columns are</h3>
        <p v-if="looked.isKnown" class="quiet">As they were read last time.</p>
        <LogColumnsForm v-model="columns" :headings="looked.layout.headings" :parts="page.parts" />
        <ChoiceRow v-if="looked.layout.isUnsure" v-model="order" label="Its days are written" :options="ORDERS" />
        <DayField v-if="needsDay" v-model="beginsOn" label="The log begins on" />
        <div class="row">
          <v-btn size="large" @click="readIt">Read it</v-btn>
          <v-btn size="large" variant="text" @click="forget">Another file</v-btn>
        </div>
      </template>
      <template v-else>
        <div class="sides">
          <div>
            <h3>Taken</h3>
            <ul class="plain-list">
              <li v-for="line in taken" :key="line">{{ line }}</li>
            </ul>
          </div>
          <div>
            <h3>Left out, and how it was used</h3>
            <ul v-if="leftOut.length" class="plain-list">
              <li v-for="line in leftOut" :key="line">{{ line }}</li>
            </ul>
            <p v-else>Nothing.</p>
          </div>
        </div>
        <ul v-if="held.length" class="plain-list held">
          <li v-for="line in held.slice(0, 5)" :key="line">{{ line }}</li>
          <li v-if="held.length > 5" class="quiet">and on {{ held.length - 5 }} more days</li>
        </ul>
        <p v-if="report.days.length" class="quiet">Its readings already stand in the picture above. Nothing is kept yet.</p>
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <div class="row">
          <v-btn size="large" :loading="submit.busy.value" @click="keep">Keep this log</v-btn>
          <v-btn size="large" variant="outlined" @click="((report = null), emit('preview', []))">Its columns</v-btn>
          <v-btn size="large" variant="text" @click="forget">Keep nothing of it</v-btn>
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
.intake {
  display: grid;
  gap: 12px;
}
.drop {
  display: grid;
  gap: 4px;
  padding: 22px;
  border: 2px dashed var(--line);
  cursor: pointer;
}
.drop:hover,
.drop:focus-within {
  border-color: var(--ink);
}
.drop input {
  position: absolute;
  opacity: 0;
  pointer-events: none;
}
.running {
  display: grid;
  grid-template-columns: minmax(120px, auto) 1fr auto;
  gap: 14px;
  align-items: center;
}
progress {
  width: 100%;
  height: 12px;
  accent-color: var(--ink);
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 32px;
}
.sides li {
  padding: 3px 0;
}
.held {
  border-left: 5px solid var(--ink);
  padding-left: 14px;
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
p {
  margin: 0;
}
@media (max-width: 700px) {
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
