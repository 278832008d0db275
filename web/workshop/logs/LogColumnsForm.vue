<script setup lang="ts">
import { computed } from 'vue';
import { say } from '@core/base/words/say.js';
import {
  LOG_CHANNELS,
  UNITS_OF,
  headingsOf,
  unitIn,
  type LogChannel,
  type LogColumn,
  type LogColumns,
  type LogUnit,
} from '@core/workshop/logs/columns.js';
import type { ReadPart } from '@core/physics/diagnosis/sensors.js';
import NumberField from '../../base/units/NumberField.vue';

/** What each column of a log means: proposed by its headings, put right by whoever knows the machine. */
const columns = defineModel<LogColumns>({ required: true });
const props = defineProps<{ headings: readonly string[]; parts: readonly ReadPart[] }>();

const CHANNEL_LABELS: Readonly<Record<LogChannel, string>> = {
  coolant: 'Coolant',
  room: 'Room',
  flow: 'Flow',
  pump: 'Pump',
  fan: 'Fans',
  hours: 'Hour meter',
};
const UNIT_LABELS: Readonly<Record<LogUnit, string>> = {
  C: '°C',
  F: '°F',
  W: 'W',
  rpm: 'rpm',
  percent: '%',
  'L/h': 'L/h',
  'L/min': 'L/min',
  'gal/min': 'gal/min',
  h: 'h',
  min: 'min',
  s: 's',
};

const all = computed(() => headingsOf(props.headings));
const times = computed(() => [columns.value.time, columns.value.date]);
/** every column but those of the time */
const items = computed(() =>
  all.value
    .filter(({ heading, nth }) => heading !== '' && !times.value.some((time) => time?.heading === heading && time.nth === nth))
    .map(({ heading, nth }) => ({ value: `${nth} ${heading}`, title: nth === 0 ? heading : `${heading} (${nth + 1})` })),
);
const keyOf = (column: LogColumn | null | undefined): string | null => (column ? `${column.nth} ${column.heading}` : null);
function columnOf(key: string | null, units: readonly [LogUnit, ...LogUnit[]]): LogColumn | null {
  const found = all.value.find(({ heading, nth }) => `${nth} ${heading}` === key);
  return found ? { heading: found.heading, nth: found.nth, unit: unitIn(found.heading, units) ?? units[0] } : null;
}

interface Row {
  readonly key: string;
  readonly label: string;
  readonly units: readonly [LogUnit, ...LogUnit[]];
  readonly column: LogColumn | null;
  readonly set: (column: LogColumn | null) => void;
}
function setPart(part: string, which: 'temperature' | 'power', column: LogColumn | null): void {
  const before = columns.value.parts.find((each) => each.part === part) ?? { part, temperature: null, power: null };
  const others = columns.value.parts.filter((each) => each.part !== part);
  const now = { ...before, [which]: column };
  const order = props.parts.map((each) => each.part);
  const kept = now.temperature || now.power ? [...others, now] : others;
  columns.value = { ...columns.value, parts: [...kept].sort((a, b) => order.indexOf(a.part) - order.indexOf(b.part)) };
}
function setChannel(channel: LogChannel, column: LogColumn | null): void {
  const { [channel]: _, ...others } = columns.value.channels;
  columns.value = { ...columns.value, channels: column ? { ...others, [channel]: column } : others };
}
const rows = computed((): Row[] => [
  ...props.parts.flatMap(({ part, name }) => {
    const own = columns.value.parts.find((each) => each.part === part);
    return (['temperature', 'power'] as const).map((which) => ({
      key: `${part} ${which}`,
      label: which === 'temperature' ? name : say('{name}, power', { name }),
      units: UNITS_OF[which],
      column: own?.[which] ?? null,
      set: (column: LogColumn | null) => setPart(part, which, column),
    }));
  }),
  ...LOG_CHANNELS.map((channel) => ({
    key: channel,
    label: say(CHANNEL_LABELS[channel]),
    units: UNITS_OF[channel],
    column: columns.value.channels[channel] ?? null,
    set: (column: LogColumn | null) => setChannel(channel, column),
  })),
]);
const setUnit = ({ column, set }: Row, unit: LogUnit): void => (column ? set({ ...column, unit }) : undefined);
</script>

<template>
  <div class="mapping">
    <div v-for="row in rows" :key="row.key" class="line">
      <v-autocomplete
        :model-value="keyOf(row.column)"
        :items="items"
        :label="row.label"
        clearable
        hide-details
        @update:model-value="row.set(columnOf($event, row.units))"
      />
      <v-select
        v-if="row.column && row.units.length > 1"
        :model-value="row.column.unit"
        :items="row.units.map((unit) => ({ value: unit, title: UNIT_LABELS[unit] }))"
        label=""
        :aria-label="`Unit of ${row.label}`"
        hide-details
        @update:model-value="setUnit(row, $event)"
      />
      <span v-else-if="row.column" class="quiet">{{ UNIT_LABELS[row.column.unit] }}</span>
    </div>
    <div v-if="!columns.channels.room" class="line">
      <NumberField
        :model-value="columns.roomC"
        label="Room while it was logged, as told"
        unit="°C"
        @update:model-value="columns = { ...columns, roomC: $event }"
      />
    </div>
  </div>
</template>

<style scoped>
.mapping {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 10px 22px;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 104px;
  gap: 8px;
  align-items: center;
}
</style>
