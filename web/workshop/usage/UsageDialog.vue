<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, reactive, ref } from 'vue';
import { dayIn } from '@core/base/units/calendar.js';
import { readLog, samplesOf } from '@core/workshop/usage/log.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';

/** A reading of an hour meter, or a log that the owner's machine kept. */
const props = defineProps<{ systemId: string; today: string }>();
const emit = defineEmits<{ close: []; saved: [text: string] }>();
const submit = useSubmit();
const form = reactive({
  source: 'meter' as 'meter' | 'log',
  fromOn: null as string | null,
  on: props.today,
  hours: null as number | null,
  meanCoolantC: null as number | null,
  note: '',
});
const SOURCES = [
  { value: 'meter' as const, title: 'hour meter' },
  { value: 'log' as const, title: 'log of the machine' },
];
const told = ref<string | null>(null);
const problem = ref<string | null>(null);

/** bytes; a year of lines every few seconds is larger than anybody needs for a mean */
const MOST_BYTES = 40_000_000;

async function take(file: File | undefined): Promise<void> {
  told.value = null;
  problem.value = null;
  if (!file) return;
  if (file.size > MOST_BYTES) {
    problem.value = say('{name} is larger than 40 MB. Cut it down to some weeks; a mean needs no more.', { name: file.name });
    return;
  }
  const { default: papa } = await import('papaparse');
  const rows = papa.parse<string[]>(await file.text(), { skipEmptyLines: 'greedy' }).data;
  const table = samplesOf(rows);
  if (!table) {
    problem.value = say('{name} has no column whose heading says time or date. Lines look like: time,coolant °C', { name: file.name });
    return;
  }
  const usage = readLog(table.samples);
  if (!usage) {
    problem.value = say('{name} has no two lines with a time such as 2026-11-03 18:04:10.', { name: file.name });
    return;
  }
  const dayOf = (ms: number): string => dayIn('UTC', new Date(ms));
  Object.assign(form, {
    source: 'log',
    fromOn: dayOf(usage.fromMs),
    on: dayOf(usage.toMs),
    hours: Math.round(usage.hours * 10) / 10,
    meanCoolantC: usage.meanCoolantC === null ? null : Math.round(usage.meanCoolantC * 10) / 10,
    note: file.name.slice(0, 200),
  });
  const refused =
    table.refused.length > 0
      ? say(' {length} lines without a time were left out, the first is line {refused}.', {
          length: table.refused.length,
          refused: table.refused[0],
        })
      : '';
  const warm =
    table.coolantColumn === null
      ? say(' No column of coolant temperature was found.')
      : say(' Temperature from “{coolantColumn}”.', { coolantColumn: table.coolantColumn });
  told.value = say('{lines} lines read.{warm}{refused}', { lines: usage.lines, warm, refused });
}

const body = computed(() => ({ ...form, fromOn: form.source === 'log' ? form.fromOn : null }));
async function save(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call<{ moved: unknown[] }>('POST', `/systems/${props.systemId}/usage`, { body: body.value, idempotencyKey }),
  );
  if (!saved) return;
  emit('saved', saved.moved.length > 0 ? say('Kept; its date moves.') : say('Kept; no date moves.'));
  emit('close');
}
</script>

<template>
  <FormDialog
    title="How long it ran, how warm"
    button="Keep it"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="600"
    @submit="save"
    @close="emit('close')"
  >
    <ChoiceRow v-model="form.source" label="From its" :options="SOURCES" />
    <template v-if="form.source === 'log'">
      <label class="file"
        >Log as a table (CSV): time, coolant °C
        <input type="file" accept=".csv,.tsv,.txt,text/csv" @change="take(($event.target as HTMLInputElement).files?.[0])"
      /></label>
      <p v-if="told" aria-live="polite">{{ told }}</p>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <div class="pair">
        <DayField
          :model-value="form.fromOn ?? ''"
          label="First day"
          :errors="submit.at('fromOn')"
          @update:model-value="form.fromOn = $event"
        />
        <DayField v-model="form.on" label="Last day" :errors="submit.at('on')" />
      </div>
    </template>
    <p v-else class="quiet">Two readings at least a week apart make a rate. A count that fell is taken for a new meter.</p>
    <div class="pair">
      <DayField v-if="form.source === 'meter'" v-model="form.on" label="Read on" :errors="submit.at('on')" />
      <NumberField
        v-model="form.hours"
        :label="form.source === 'meter' ? 'The meter shows' : 'It ran'"
        unit="h"
        :errors="submit.at('hours')"
      />
      <NumberField v-model="form.meanCoolantC" label="Mean coolant, if known" unit="°C" :errors="submit.at('meanCoolantC')" />
    </div>
    <v-text-field v-model="form.note" label="Note" :error-messages="submit.at('note')" />
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
p {
  margin: 0;
}
.file {
  display: grid;
  gap: 6px;
}
</style>
