<script setup lang="ts">
import { digitsIn, grouped } from '@core/base/units/display.js';
import { computed, reactive, ref } from 'vue';
import { formatDay } from '@core/base/units/dates.js';
import { say } from '@core/base/words/say.js';
import { comparisonWords, differenceWords, perWattWords } from '@core/edge/words/readings.js';
import type { DatedReading } from '@core/physics/condition/series.js';
import { compareReadings } from '@core/physics/diagnosis/compareReadings.js';
import { FAN_RULERS, type FanGroup, type LoadReading } from '@core/physics/diagnosis/loadReading.js';
import type { ReadPart } from '@core/physics/diagnosis/sensors.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';
import NumberField from '../../base/units/NumberField.vue';

/** A reading under load between two services: one set of conditions, each part with its own row; the last one stands beside the fields. */
const props = defineProps<{
  systemId: string;
  parts: readonly ReadPart[];
  last: DatedReading | null;
  /** groups of fans that its connectors name */
  fanGroups: readonly Omit<FanGroup, 'speed'>[];
  today: string;
  /** its loop was never filled here */ mayBeOld?: boolean;
}>();
const emit = defineEmits<{ close: []; saved: [text: string] }>();
const submit = useSubmit();
const missing = ref<string | null>(null);

const rounded = (value: number | undefined): number | null => (value === undefined ? null : Math.round(value));
const percent = (share: number | undefined): number | null => (share === undefined ? null : Math.round(100 * share));
interface TypedGroup {
  name: string;
  percent: number | null;
  by: FanGroup['by'];
}
/** as they were read last, else as the machine's connectors name them where there are several */
function groupsOfLast(): TypedGroup[] {
  const read = props.last?.reading.fanGroups ?? [];
  if (read.length > 0) return read.map(({ name, speed, by }) => ({ name, percent: percent(speed), by }));
  return props.fanGroups.length > 1 ? props.fanGroups.map(({ name, by }) => ({ name, percent: null, by })) : [];
}
const form = reactive({
  on: props.today,
  roomC: null as number | null,
  coolantC: null as number | null,
  flowLph: null as number | null,
  pump: percent(props.last?.reading.pumpSpeed),
  fans: percent(props.last?.reading.fanSpeed),
  minutes: 45 as number | null,
  workload: props.last?.reading.workload ?? '',
  profile: props.last?.reading.profile ?? '',
  oldCooler: false,
  score: null as number | null,
  clockMhz: null as number | null,
  powerLimitW: (props.last?.reading.powerLimitW ?? null) as number | null,
  noiseDba: null as number | null,
  groups: groupsOfLast(),
  partsC: Object.fromEntries(props.parts.map(({ part }) => [part, null])) as Record<string, number | null>,
  // the load of last time is proposed: a part whose watts are missing would make the others' heat look larger
  powersW: Object.fromEntries(props.parts.map(({ part }) => [part, rounded(props.last?.reading.powersW[part])])) as Record<
    string,
    number | null
  >,
});

const RULER_WORDS: Readonly<Record<FanGroup['by'], string>> = {
  board: 'the board',
  hub: 'a hub',
  program: 'a program',
  fixed: 'nobody, fixed',
};
const rulers = FAN_RULERS.map((value) => ({ value, title: say(RULER_WORDS[value]) }));
const more = ref(form.groups.length > 0);
const share = (value: number | null): number => Math.max(0, Math.min(1, (value ?? 0) / 100));
/** several groups: what is compared is their middle */
function fansRead(): Pick<LoadReading, 'fanSpeed' | 'fanGroups'> {
  const groups = form.groups.filter(({ name, percent: own }) => name.trim() !== '' && own !== null);
  if (groups.length === 0) return form.fans === null ? {} : { fanSpeed: share(form.fans) };
  const fanGroups = groups.map(({ name, percent: own, by }) => ({ name: name.trim(), speed: share(own), by }));
  return { fanGroups, fanSpeed: fanGroups.reduce((sum, { speed }) => sum + speed, 0) / fanGroups.length };
}
const reading = computed((): LoadReading | null => {
  const whole = props.parts.filter(({ part }) => typeof form.partsC[part] === 'number' && (form.powersW[part] ?? 0) > 0);
  if (form.roomC === null || whole.length === 0) return null;
  return {
    roomC: form.roomC,
    partsC: Object.fromEntries(whole.map(({ part }) => [part, form.partsC[part] as number])),
    powersW: Object.fromEntries(Object.entries(form.powersW).filter((entry): entry is [string, number] => (entry[1] ?? 0) > 0)),
    ...(form.coolantC === null ? {} : { coolantC: form.coolantC }),
    ...(form.flowLph === null ? {} : { flowLph: form.flowLph }),
    ...(form.pump === null ? {} : { pumpSpeed: share(form.pump) }),
    ...fansRead(),
    ...(form.score === null ? {} : { score: form.score }),
    ...(form.clockMhz === null ? {} : { clockMhz: form.clockMhz }),
    ...(form.powerLimitW === null ? {} : { powerLimitW: form.powerLimitW }),
    ...(form.noiseDba === null ? {} : { noiseDba: form.noiseDba }),
    ...(form.minutes === null ? {} : { minutes: form.minutes }),
    ...(form.profile.trim() === '' ? {} : { profile: form.profile.trim() }),
    ...(form.oldCooler ? { oldCooler: true } : {}),
    ...(form.workload.trim() === '' ? {} : { workload: form.workload.trim() }),
  };
});
const comparison = computed(() => (props.last && reading.value ? compareReadings(props.last.reading, reading.value) : null));
const lines = computed(() =>
  Object.fromEntries(
    Object.entries(comparison.value?.parts ?? {}).map(([part, change]) => [
      part,
      { words: comparisonWords({ ...change, differences: comparison.value?.differences ?? [] }), perWatt: perWattWords(change) },
    ]),
  ),
);
const unlike = computed(() => (comparison.value?.differences ?? []).filter(({ what }) => what !== 'missing').map(differenceWords));

async function save(): Promise<void> {
  missing.value = reading.value ? null : say('The room and one part with its watts are needed: nothing else can be compared.');
  const body = { on: form.on, reading: reading.value };
  if (!reading.value) return;
  const saved = await submit.run((idempotencyKey) =>
    call<{ moved: unknown[] }>('POST', `/systems/${props.systemId}/readings`, { body, idempotencyKey }),
  );
  if (!saved) return;
  emit('saved', saved.moved.length > 0 ? say('Kept; its date moves.') : say('Kept; no date moves.'));
  emit('close');
}
/** what stood there at the last reading, as its field is read; nothing where there was none */
const lastRead = (unit: '°C' | null, value: number | null | undefined, decimals = 0): string =>
  value === null || value === undefined ? '' : unit ? digitsIn(unit, value, decimals) : grouped(value, decimals);
</script>

<template>
  <FormDialog
    title="Read under load"
    button="Keep this reading"
    :busy="submit.busy.value"
    :problem="missing ?? submit.problem.value"
    :width="760"
    @submit="save"
    @close="emit('close')"
  >
    <p v-if="last" class="quiet">Last read on {{ formatDay(last.on) }}: its conditions are proposed, its figures stand under the fields.</p>
    <div class="grid">
      <DayField v-model="form.on" label="Read on" :errors="submit.at('on')" />
      <NumberField
        v-model="form.roomC"
        label="Room"
        unit="°C"
        :hint="lastRead('°C', last?.reading.roomC, 1)"
        :errors="submit.at('reading.roomC')"
      />
      <NumberField v-model="form.minutes" label="Under that load for" unit="min" />
      <template v-for="{ part, name } in parts" :key="part">
        <NumberField
          v-model="form.partsC[part] as number | null"
          :label="name"
          unit="°C"
          :hint="lastRead('°C', last?.reading.partsC[part], 1)"
          :errors="submit.at(`reading.partsC.${part}`)"
        />
        <NumberField
          v-model="form.powersW[part] as number | null"
          :label="`Power into ${name}`"
          unit="W"
          :hint="lastRead(null, last?.reading.powersW[part])"
          :errors="submit.at(`reading.powersW.${part}`)"
        />
        <p class="said figures" role="status">
          {{ lines[part]?.words ?? '' }} <span class="quiet">{{ lines[part]?.perWatt ?? '' }}</span>
        </p>
      </template>
      <NumberField v-model="form.coolantC" label="Coolant, if measured" unit="°C" :hint="lastRead('°C', last?.reading.coolantC, 1)" />
      <NumberField v-model="form.flowLph" label="Flow, if metered" unit="L/h" />
      <v-text-field v-model="form.workload" label="Workload" hide-details="auto" />
      <v-text-field v-model="form.profile" label="Settings, by name" hide-details="auto" />
      <NumberField v-model="form.pump" label="Pump" unit="%" />
      <NumberField v-if="form.groups.length === 0" v-model="form.fans" label="Fans" unit="%" />
      <template v-if="more">
        <NumberField v-model="form.score" label="Work done, its score" unit="points" :hint="lastRead(null, last?.reading.score)" />
        <NumberField v-model="form.clockMhz" label="Clock" unit="MHz" :hint="lastRead(null, last?.reading.clockMhz)" />
        <NumberField v-model="form.powerLimitW" label="Power limit" unit="W" />
        <NumberField v-model="form.noiseDba" label="Noise" unit="dB(A)" :hint="lastRead(null, last?.reading.noiseDba)" />
      </template>
    </div>
    <div v-if="more" class="groups">
      <div v-for="(group, index) in form.groups" :key="index" class="grid">
        <v-text-field v-model="group.name" :label="`Fan group ${index + 1}`" hide-details="auto" />
        <NumberField v-model="group.percent" label="turns at" unit="%" />
        <v-select v-model="group.by" :items="rulers" label="turned by" hide-details="auto" />
      </div>
      <v-btn variant="text" @click="form.groups.push({ name: '', percent: form.fans, by: 'board' })">A fan group</v-btn>
    </div>
    <button v-else type="button" class="link" @click="more = true">Score, clock, power limit, noise, several fan groups</button>
    <v-checkbox v-if="mayBeOld" v-model="form.oldCooler" label="This was read with the old cooler, before the loop" hide-details />
    <p v-if="unlike.length" class="quiet">Not alike: {{ unlike.join('; ') }}.</p>
  </FormDialog>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 10px 14px;
  align-items: start;
}
.said {
  align-self: center;
  font-weight: 600;
}
.groups {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.link {
  text-decoration: underline;
  min-height: 40px;
  text-align: left;
}
p {
  margin: 0;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
