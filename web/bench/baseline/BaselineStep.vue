<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { formatDegrees } from '@core/base/units/display.js';
import { comparisonWords } from '@core/edge/words/readings.js';
import { compareBaselines } from '@core/physics/diagnosis/compare.js';
import FramePart from '../frame/FramePart.vue';
import { BASELINE_STATISTICS, type BaselineReading } from '@core/physics/diagnosis/reading.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, reactive, ref, useId, watch } from 'vue';
import { normaliseBaseline } from '@core/physics/diagnosis/baseline.js';
import { warmingOf } from '@core/bench/runs/warming.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import NumberField from '../../base/units/NumberField.vue';
import TestLog from './TestLog.vue';
import WarmingCurve from './WarmingCurve.vue';

/** Readings with the conditions that make them comparable in a year. */
const props = defineProps<{
  state: RunState;
  locked: boolean;
  before?: boolean;
  /** the machine whose log may have run along; missing: nobody's */
  machine?: { readonly systemId: string; readonly file: LoopFile; readonly today: string };
}>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const problem = ref<string | null>(null);
/** its button stands outside the form, where every step has its act */
const formId = useId();

type Typed = Omit<BaselineReading, 'warming'>;
type Form = { -readonly [K in keyof Typed]: Typed[K] extends number ? number | null : Typed[K] };
const form = reactive<Form>({
  setting: 'load, quiet',
  workload: '',
  durationMinutes: 45,
  powerW: null,
  sensor: 'processor package',
  statistic: 'mean of the last five minutes',
  panels: 'on',
  pumpPercent: 60,
  fanPercent: 40,
  roomC: null,
  partC: null,
  coolantC: null,
  flowLph: null,
  levelMm: null,
});
const settings = ['idle, quiet', 'load, quiet', 'load, full speed'];
const sensors = ['processor package', 'hottest core', 'graphics chip', 'graphics memory'];
const statistics = BASELINE_STATISTICS.map((value) => ({ value, title: sayWord(value) }));
const needed: { key: keyof Form; word: string }[] = [
  { key: 'workload', word: 'workload' },
  { key: 'durationMinutes', word: 'duration' },
  { key: 'roomC', word: 'room temperature' },
  { key: 'partC', word: 'part temperature' },
  { key: 'pumpPercent', word: 'pump speed' },
  { key: 'fanPercent', word: 'fan speed' },
];
const readings = computed(() =>
  (props.before ? props.state.befores : props.state.baselines).map(({ value }) => ({ value, normal: normaliseBaseline(value) })),
);
/** what was read before in the same setting: it stands beside the fields, and its conditions are proposed */
const earlier = computed(() =>
  props.before ? null : ([...props.state.befores].reverse().find(({ value }) => value.setting === form.setting)?.value ?? null),
);
watch(
  earlier,
  (found) => {
    if (!found) return;
    const { workload, sensor, statistic, panels, durationMinutes, powerW, pumpPercent, fanPercent } = found;
    Object.assign(form, { workload, sensor, statistic, panels, durationMinutes, powerW, pumpPercent, fanPercent });
  },
  { immediate: true },
);
/** read once more after a cleaning alone: what the cleaning did stands apart from what is opened later */
const dusted = ref(false);
const mayBeDusted = computed(() => props.before === true && props.state.befores.some(({ value }) => value.setting === form.setting));
const isWhole = (typed: Form): typed is BaselineReading => needed.every(({ key }) => typed[key] !== null && typed[key] !== '');
/** the difference as it is typed */
const soFar = computed(() =>
  earlier.value && isWhole(form) ? comparisonWords(compareBaselines(earlier.value, { ...form, warming: itsEnd.value })) : null,
);
/** what was noted of this sensor on the way */
const warming = computed(() => warmingOf(props.state, form.sensor, props.before === true));
/** where it ends, for a reading that is entered before its end */
const itsEnd = computed((): BaselineReading['warming'] => {
  const ends = warming.value?.ends;
  if (!ends || !Number.isFinite(ends.finalSdC)) return undefined;
  return { reachedFraction: ends.reachedFraction, endsC: ends.finalC, endsSdK: ends.finalSdC };
});
function noteIt(): void {
  problem.value = form.partC === null ? say('Type what the part shows now.') : null;
  if (form.partC === null) return;
  emit('send', { type: 'warming', sensor: form.sensor, tempC: form.partC, ...(props.before ? { before: true } : {}) });
  form.partC = null;
}
/** what a log shows is the mean of its last ten minutes */
function fromLog(read: LoadReading, part: string): void {
  const percent = (share: number | undefined, kept: number | null): number | null => (share === undefined ? kept : Math.round(100 * share));
  Object.assign(form, {
    statistic: 'mean of the last ten minutes',
    roomC: read.roomC,
    partC: read.partsC[part] ?? null,
    powerW: read.powersW[part] ?? null,
    coolantC: read.coolantC ?? form.coolantC,
    flowLph: read.flowLph ?? form.flowLph,
    pumpPercent: percent(read.pumpSpeed, form.pumpPercent),
    fanPercent: percent(read.fanSpeed, form.fanPercent),
    durationMinutes: read.minutes === undefined ? form.durationMinutes : Math.round(read.minutes),
  });
}
const hottest = computed(() => Math.max(1, ...readings.value.map(({ normal }) => normal.aboveRoomK)));

function enter(): void {
  const missing = needed.filter(({ key }) => form[key] === null || form[key] === '').map(({ word }) => word);
  if (missing.length > 0) {
    problem.value = `Still missing: ${missing.join(', ')}. Without them a later comparison is a guess.`;
    return;
  }
  problem.value = null;
  emit('send', {
    type: 'baseline',
    reading: { ...form, ...(dusted.value ? { dusted: true } : {}), ...(itsEnd.value ? { warming: itsEnd.value } : {}) } as BaselineReading,
    ...(props.before ? { before: true } : {}),
  });
  form.partC = null;
  dusted.value = false;
}
</script>

<template>
  <FramePart at="work">
    <section class="baseline">
      <p v-if="readings.length" class="big-number">
        {{ readings.at(-1)?.normal.aboveRoomK.toFixed(1) }} <small>K above the room, {{ readings.at(-1)?.value.setting }}</small>
      </p>
      <ul class="plain-list bars">
        <li v-for="({ value, normal }, index) in readings" :key="index">
          <span>{{ value.setting }}</span>
          <span class="bar"><span :style="{ width: `${Math.max(0, (normal.aboveRoomK / hottest) * 100)}%` }" /></span>
          <span class="figures"
            >{{ normal.aboveRoomK.toFixed(1) }} K<template v-if="normal.kelvinPerWatt !== null"
              >, {{ normal.kelvinPerWatt.toFixed(3) }} K/W</template
            ></span
          >
          <span v-if="normal.weakPoints.length" class="quiet weak">{{ normal.weakPoints.join('; ') }}</span>
        </li>
      </ul>
      <p v-if="!locked && earlier" class="earlier" role="status">
        <span class="quiet"
          >Before, {{ earlier.setting }}: {{ formatDegrees(earlier.partC) }} in a room of {{ formatDegrees(earlier.roomC)
          }}<template v-if="earlier.powerW !== null">, {{ earlier.powerW }} W</template></span
        >
        <strong class="figures">{{ soFar ?? 'the difference appears as you type' }}</strong>
      </p>
      <WarmingCurve v-if="!locked && warming" :warming="warming" />
      <TestLog
        v-if="!locked && machine"
        :system-id="machine.systemId"
        :file="machine.file"
        :sensor="form.sensor"
        :today="machine.today"
        @read="fromLog"
      />
      <form v-if="!locked" :id="formId" class="entry" novalidate @submit.prevent="enter">
        <v-combobox v-model="form.setting" :items="settings" label="Setting" />
        <v-text-field v-model="form.workload" label="Workload" placeholder="render and graphics together" />
        <NumberField v-model="form.durationMinutes" label="Lasted" unit="min" />
        <NumberField v-model="form.powerW" label="Power into that part" unit="W" />
        <v-combobox v-model="form.sensor" :items="sensors" label="Sensor" />
        <v-select v-model="form.statistic" :items="statistics" label="Statistic" />
        <NumberField v-model="form.partC" label="Part" unit="°C" />
        <NumberField v-model="form.roomC" label="Room" unit="°C" />
        <NumberField v-model="form.coolantC" label="Coolant, if measured" unit="°C" />
        <NumberField v-model="form.pumpPercent" label="Pump" unit="%" />
        <NumberField v-model="form.fanPercent" label="Fans" unit="%" />
        <v-select
          v-model="form.panels"
          :items="[
            { value: 'on', title: 'panels on' },
            { value: 'off', title: 'panels off' },
          ]"
          label="Panels"
        />
        <NumberField v-model="form.flowLph" label="Flow, if metered" unit="L/h" />
        <NumberField v-model="form.levelMm" label="Level mark" unit="mm" />
        <v-checkbox v-if="mayBeDusted" v-model="dusted" label="Fins and filters were cleaned since, nothing was opened" hide-details />
      </form>
      <FramePart v-if="!locked" at="act">
        <v-btn type="submit" :form="formId" size="x-large">Enter reading</v-btn>
        <v-btn size="x-large" variant="outlined" @click="noteIt">Note it, still warming</v-btn>
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
  grid-template-columns: 130px 1fr 150px;
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
.earlier {
  display: grid;
  gap: 2px;
  border-left: 5px solid var(--ink);
  padding: 4px 0 4px 14px;
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
@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
