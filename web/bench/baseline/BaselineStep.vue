<script setup lang="ts">
import { unitName } from '@core/base/units/shown.js';
import { digitsIn, formatIn, grouped } from '@core/base/units/display.js';
import { say, sayWord } from '@core/base/words/say.js';
import FramePart from '../frame/FramePart.vue';
import { BASELINE_STATISTICS } from '@core/physics/diagnosis/reading.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, ref, useId } from 'vue';
import { normaliseBaseline } from '@core/physics/diagnosis/baseline.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import NumberField from '../../base/units/NumberField.vue';
import SensorRows from './SensorRows.vue';
import TestLog from './TestLog.vue';
import WarmingCurve from './WarmingCurve.vue';
import { useBaselineForm } from './useBaselineForm.js';

/** Readings with the conditions that make them comparable in a year: one set of conditions, a row for each part. */
const props = defineProps<{
  state: RunState;
  locked: boolean;
  before?: boolean;
  /** nothing was in this machine's loop before: it may have been read with another cooler */
  build?: boolean;
  /** the machine whose log may have run along; missing: nobody's */
  machine?: { readonly systemId: string; readonly file: LoopFile; readonly today: string };
}>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const problem = ref<string | null>(null);
/** its button stands outside the form, where every step has its act */
const formId = useId();
const form = useBaselineForm(props);
const { conditions, rows, faces, dusted, oldCooler } = form;

const settings = ['idle, quiet', 'load, quiet', 'load, full speed'];
const statistics = BASELINE_STATISTICS.map((value) => ({ value, title: sayWord(value) }));
/** before a build whatever is read is read with the old cooler: nothing else is in it */
const ofOldCooler = computed(() => props.build === true && props.before === true);
oldCooler.value = ofOldCooler.value;
const isBefore = computed(() => (props.before ? { before: true } : {}));
const readings = computed(() =>
  (props.before ? props.state.befores : props.state.baselines).map(({ eventId, value }) => ({
    eventId,
    value,
    normal: normaliseBaseline(value),
  })),
);
/** of the last set the sensor that was entered first */
const newest = computed(() => readings.value.find(({ eventId }) => eventId === readings.value.at(-1)?.eventId) ?? null);
/** what the old cooler did, in a build */
const older = computed(() =>
  props.build
    ? props.state.befores.filter(({ value }) => value.oldCooler).map(({ value }) => ({ value, normal: normaliseBaseline(value) }))
    : [],
);
const hottest = computed(() => Math.max(1, ...[...readings.value, ...older.value].map(({ normal }) => normal.aboveRoomK)));
/** read once more after a cleaning alone: what the cleaning did stands apart from what is opened later */
const mayBeDusted = computed(() => props.before === true && props.state.befores.some(({ value }) => value.setting === conditions.setting));

/** sensors that somebody watches */
const warm = computed(() => (props.locked ? [] : faces.value.flatMap(({ row, warming }) => (warming ? [{ row, warming }] : []))));

function noteIt(): void {
  const typed = rows.filter(({ partC }) => partC !== null);
  problem.value = typed.length === 0 ? say('Type what the part shows now.') : null;
  const source = form.source.value;
  for (const row of typed) {
    emit('send', {
      type: 'warming',
      sensor: row.sensor,
      tempC: row.partC as number,
      ...isBefore.value,
      ...(source === 'hand' ? {} : { source }),
    });
    if (source === 'hand') row.partC = null;
  }
}
/** what a log shows is the mean of its last ten minutes */
function fromLog(read: LoadReading, sensors: readonly { readonly sensor: string; readonly part: string }[]): void {
  const percent = (share: number | undefined, kept: number | null): number | null => (share === undefined ? kept : Math.round(100 * share));
  Object.assign(conditions, {
    statistic: 'mean of the last ten minutes',
    roomC: read.roomC,
    coolantC: read.coolantC ?? conditions.coolantC,
    flowLph: read.flowLph ?? conditions.flowLph,
    pumpPercent: percent(read.pumpSpeed, conditions.pumpPercent),
    fanPercent: percent(read.fanSpeed, conditions.fanPercent),
    durationMinutes: read.minutes === undefined ? conditions.durationMinutes : Math.round(read.minutes),
  });
  for (const { sensor, part } of sensors) {
    const figures = { partC: read.partsC[part] ?? null, powerW: read.powersW[part] ?? null };
    const row = rows.find((each) => each.sensor === sensor);
    if (row) Object.assign(row, figures);
    else rows.push({ sensor, ...figures });
  }
  // rows that the log says nothing of are not held against it
  const empty = rows.filter(({ partC }) => partC === null);
  if (empty.length < rows.length) for (const each of empty) rows.splice(rows.indexOf(each), 1);
}

function enter(): void {
  const missing = form.missing();
  if (missing.length > 0) {
    problem.value = `Still missing: ${missing.join(', ')}. Without them a later comparison is a guess.`;
    return;
  }
  problem.value = null;
  const { reading, others } = form.whole();
  emit('send', { type: 'baseline', reading, ...(others.length > 0 ? { others } : {}), ...(oldCooler.value ? {} : isBefore.value) });
  for (const row of rows) row.partC = null;
  dusted.value = false;
  oldCooler.value = ofOldCooler.value;
}
</script>

<template>
  <FramePart at="work">
    <section class="baseline">
      <p v-if="newest" class="big-number">
        {{ digitsIn('K', newest.normal.aboveRoomK, 1) }}
        <small>{{ unitName('K') }} above the room, {{ newest.value.sensor }}, {{ newest.value.setting }}</small>
      </p>
      <ul class="plain-list bars">
        <li v-for="({ value, normal }, index) in older" :key="`old ${index}`">
          <span>old cooler, {{ value.sensor }}</span>
          <span class="bar old"><span :style="{ width: `${Math.max(0, (normal.aboveRoomK / hottest) * 100)}%` }" /></span>
          <span class="figures">{{ formatIn('K', normal.aboveRoomK, 1) }}</span>
        </li>
        <li v-for="({ value, normal }, index) in readings" :key="index">
          <span
            >{{ value.sensor }}<small class="quiet">, {{ value.setting }}</small></span
          >
          <span class="bar"><span :style="{ width: `${Math.max(0, (normal.aboveRoomK / hottest) * 100)}%` }" /></span>
          <span class="figures"
            >{{ formatIn('K', normal.aboveRoomK, 1)
            }}<template v-if="normal.kelvinPerWatt !== null">, {{ grouped(normal.kelvinPerWatt, 3) }} K/W</template></span
          >
          <span v-if="normal.weakPoints.length" class="quiet weak">{{ normal.weakPoints.join('; ') }}</span>
        </li>
      </ul>
      <!-- while it warms that is the picture: it stays in sight whatever is typed below -->
      <FramePart v-if="warm.length" at="curve">
        <div class="curves">
          <WarmingCurve v-for="face in warm" :key="face.row.sensor" :name="face.row.sensor" :warming="face.warming" />
        </div>
      </FramePart>
      <TestLog
        v-if="!locked && machine"
        :system-id="machine.systemId"
        :file="machine.file"
        :sensors="rows.map(({ sensor }) => sensor)"
        :today="machine.today"
        @read="fromLog"
      />
      <form v-if="!locked" :id="formId" class="form" novalidate @submit.prevent="enter">
        <SensorRows :faces="faces" @add="rows.push({ sensor: '', partC: null, powerW: null })" @remove="rows.splice($event, 1)" />
        <div class="entry">
          <v-combobox v-model="conditions.setting" :items="settings" label="Setting" />
          <v-text-field v-model="conditions.workload" label="Workload" placeholder="render and graphics together" />
          <NumberField v-model="conditions.durationMinutes" label="Lasted" unit="min" />
          <v-select v-model="conditions.statistic" :items="statistics" label="Statistic" />
          <NumberField v-model="conditions.roomC" label="Room" unit="°C" />
          <NumberField v-model="conditions.coolantC" label="Coolant, if measured" unit="°C" />
          <NumberField v-model="conditions.pumpPercent" label="Pump" unit="%" />
          <NumberField v-model="conditions.fanPercent" label="Fans" unit="%" />
          <v-select
            v-model="conditions.panels"
            :items="[
              { value: 'on', title: 'panels on' },
              { value: 'off', title: 'panels off' },
            ]"
            label="Panels"
          />
          <NumberField v-model="conditions.flowLph" label="Flow, if metered" unit="L/h" />
          <NumberField v-model="conditions.levelMm" label="Level mark" unit="mm" />
        </div>
        <v-checkbox v-if="mayBeDusted" v-model="dusted" label="Fins and filters were cleaned since, nothing was opened" hide-details />
        <v-checkbox v-if="build && !before" v-model="oldCooler" label="This was read with the old cooler, before the loop" hide-details />
      </form>
      <FramePart v-if="!locked" at="act">
        <v-btn type="submit" :form="formId" size="x-large">Enter reading</v-btn>
        <v-btn v-if="form.liveParts.value.length === 0 || form.mayWatch.value" size="x-large" variant="outlined" @click="noteIt">{{
          form.mayWatch.value ? 'The load runs: watch it warm' : 'Note it, still warming'
        }}</v-btn>
        <p v-else class="quiet">It is noted once a minute by itself.</p>
        <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      </FramePart>
    </section>
  </FramePart>
</template>

<style scoped>
.baseline {
  display: grid;
  gap: 14px;
}
p {
  margin: 0;
}
.bars li {
  display: grid;
  grid-template-columns: minmax(130px, 0.6fr) 1fr 150px;
  gap: 14px;
  align-items: center;
  padding: 4px 0;
}
.bar {
  height: 14px;
  background: var(--well);
  display: block;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--ink);
}
.old span {
  opacity: 0.45;
}
.curves {
  /* beside the choice of pictures */
  padding-right: min(150px, 22%);
  height: 100%;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 8px 18px;
}
.form {
  display: grid;
  gap: 14px;
}
.weak {
  grid-column: 2 / -1;
  font-size: 0.9rem;
}
.entry {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 12px;
}
@media (max-width: 600px) {
  .curves {
    grid-auto-flow: row;
  }
}
@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
