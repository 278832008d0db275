<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { ImportAnswer } from '@core/workshop/importing/answers.js';
import { dayOrderOf, type DayOrder } from '@core/workshop/importing/days.js';
import { guessMapping, type ImportTableKind } from '@core/workshop/importing/fields.js';
import { missingColumn, type ImportInput } from '@core/workshop/importing/schema.js';
import { distinctWords, guessKind, guessUse, plainWord, type CoolantWord, type KindWord } from '@core/workshop/importing/words.js';
import { WHOSE } from '@core/workshop/people/rights.js';
import { call } from '../base/http/api.js';
import { useSubmit } from '../base/http/useSubmit.js';
import ChoiceRow from '../base/look/ChoiceRow.vue';
import { useNotices } from '../base/shell/notices.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { useSession } from '../workshop/people/sessionStore.js';
import ColumnChoice from '../workshop/importing/ColumnChoice.vue';
import ImportResult from '../workshop/importing/ImportResult.vue';
import PastImports from '../workshop/importing/PastImports.vue';
import { columnOf, readTable, type FileTable } from '../workshop/importing/readTable.js';
import { DAY_KEYS } from '../workshop/importing/samples.js';
import WordChoices from '../workshop/importing/WordChoices.vue';

const route = useRoute();
const router = useRouter();
const submit = useSubmit();
const notices = useNotices();
const mayImport = useSession().may('desk');
const shelf = useCoolants();
void shelf.load().catch(() => undefined);

const KINDS = [
  { value: 'machines', title: 'Machines' },
  { value: 'history', title: 'What was done before' },
] as const satisfies readonly { value: ImportTableKind; title: string }[];
const ORDERS: readonly { value: DayOrder; title: string }[] = [
  { value: 'day-first', title: '3 April' },
  { value: 'month-first', title: '4 March' },
];
const UNDATED: readonly { value: ImportInput['undated']; title: string }[] = [
  { value: 'due-now', title: 'due now: nobody knows how old it is' },
  { value: 'no-date', title: 'without a date until somebody asks' },
];
const kind = computed<ImportTableKind>(() => (route.query.table === 'history' ? 'history' : 'machines'));
const table = ref<FileTable | null>(null);
const problem = ref<string | null>(null);
const mapping = ref<Record<string, number | null>>({});
const saidOrder = ref<DayOrder>('day-first');
const undated = ref<ImportInput['undated']>('due-now');
const coolants = ref<readonly CoolantWord[]>([]);
const kinds = ref<readonly KindWord[]>([]);
const trial = ref<ImportAnswer | null>(null);
const done = ref<ImportAnswer | null>(null);
const over = ref(false);
const past = ref<InstanceType<typeof PastImports> | null>(null);

async function open(file: File | undefined): Promise<void> {
  over.value = false;
  if (!file) return;
  trial.value = null;
  done.value = null;
  submit.clear();
  const found = await readTable(file);
  problem.value = 'problem' in found ? found.problem : null;
  table.value = 'table' in found ? found.table : null;
  if (table.value) mapping.value = { ...guessMapping(kind.value, table.value.headings) };
}
watch(kind, () => {
  trial.value = null;
  done.value = null;
  if (table.value) mapping.value = { ...guessMapping(kind.value, table.value.headings) };
});

const cellsOf = (key: string): string[] => (table.value ? columnOf(table.value, mapping.value[key]) : []);
const order = computed(() => dayOrderOf(DAY_KEYS.flatMap((key) => cellsOf(key))));
const dayOrder = computed<DayOrder>(() => (order.value === 'month-first' || order.value === 'day-first' ? order.value : saidOrder.value));
const missing = computed(() => (table.value ? missingColumn(kind.value, mapping.value) : null));
/** rows that name neither a last change nor a promise */
const undatedRows = computed(() => {
  const own = table.value;
  if (!own || kind.value !== 'machines') return 0;
  const columns = [mapping.value.lastChange, mapping.value.promisedOn].filter((column): column is number => typeof column === 'number');
  return own.rows.filter((cells) => cells.some((cell) => cell.trim() !== '') && columns.every((column) => !cells[column]?.trim())).length;
});

const counts = ref<ReadonlyMap<string, number>>(new Map());
/** words of the table that this workshop's book must be told the meaning of */
watch(
  () => [table.value, mapping.value.coolant, mapping.value.what, shelf.products.length] as const,
  () => {
    const known = new Set(shelf.products.map(({ name }) => plainWord(name)));
    const names = distinctWords(cellsOf('coolant')).filter(({ word }) => !known.has(plainWord(word)));
    const works = kind.value === 'history' ? distinctWords(cellsOf('what')) : [];
    counts.value = new Map([...names, ...works].map(({ word, rows }) => [word, rows]));
    coolants.value = names.slice(0, 300).map(({ word }) => ({ name: word, as: guessUse(word) }));
    kinds.value = works
      .slice(0, 300)
      .map(({ word }) => ({ word: word.slice(0, 200), kind: guessKind(word, cellsOf('coolant').length > 0) }));
  },
);
watch([mapping, coolants, kinds, dayOrder, undated], () => (trial.value = null));

async function send(dryRun: boolean): Promise<void> {
  const own = table.value;
  if (!own) return;
  const body: ImportInput = {
    kind: kind.value,
    fileName: own.name.slice(0, 200),
    rows: own.rows,
    mapping: mapping.value as ImportInput['mapping'],
    dayOrder: dayOrder.value,
    coolants: coolants.value,
    kinds: kinds.value,
    undated: undated.value,
    dryRun,
  };
  const answer = await submit.run((idempotencyKey) => call<ImportAnswer>('POST', '/imports', { body, idempotencyKey }));
  if (!answer) return;
  trial.value = dryRun ? answer : null;
  done.value = dryRun ? null : answer;
  if (dryRun) return;
  notices.say(
    kind.value === 'machines'
      ? say('{systems} machines brought in.', { systems: answer.systems })
      : say('{works} entries brought in.', { works: answer.works }),
  );
  await Promise.all([past.value?.load(), shelf.load()]);
}
const shown = computed(() => done.value ?? trial.value);
const comes = computed(() => (trial.value ? (kind.value === 'machines' ? trial.value.systems : trial.value.works) : 0));
const bringWords = computed(() => {
  const count = comes.value;
  return kind.value === 'machines'
    ? say('Bring in {count} {count2}', { count, count2: count === 1 ? 'machine' : 'machines' })
    : say('Bring in {count} {count2}', { count, count2: count === 1 ? 'entry' : 'entries' });
});
function show(next: ImportTableKind | null): void {
  void router.replace({ query: next === 'history' ? { table: 'history' } : {} });
}
</script>

<template>
  <main class="page">
    <h1>Move in from a table</h1>
    <p v-if="!mayImport" class="quiet">{{ WHOSE.desk }}</p>
    <ChoiceRow :model-value="kind" label="Table" :options="KINDS" class="mt-2" @update:model-value="show" />
    <p class="lead">
      {{
        kind === 'machines'
          ? 'One machine a row: its owner and name at least. With the last change and its coolant, or a date that was promised, the due list stands at once; loops are laid out when a machine first comes onto a bench.'
          : 'One piece of work a row: a day, what was done, and which machine, by its tag or its name. Refills start the clocks that follow from them.'
      }}
    </p>
    <label
      class="drop"
      :class="{ over, small: table }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="open($event.dataTransfer?.files[0])"
    >
      <input type="file" accept=".csv,.tsv,.txt,text/csv,text/plain" @change="open(($event.target as HTMLInputElement).files?.[0])" />
      <span v-if="table"
        ><strong>{{ table.name }}</strong
        >, {{ table.filled }} {{ table.filled === 1 ? 'row' : 'rows' }}. Another file?</span
      >
      <span v-else>Choose a file of text (CSV), or drop it here</span>
    </label>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>

    <form v-if="table && !done" class="stack" novalidate @submit.prevent="send(true)">
      <h2>Which column holds what</h2>
      <ColumnChoice v-model="mapping" :kind="kind" :table="table" :day-order="dayOrder" />
      <ChoiceRow v-if="order === 'open'" v-model="saidOrder" label="3/4/2026 is" :options="ORDERS" />
      <WordChoices v-model:coolants="coolants" v-model:kinds="kinds" :shelf="shelf.products" :counts="counts" />
      <div v-if="undatedRows > 0">
        <p>{{ undatedRows }} {{ undatedRows === 1 ? 'machine has' : 'machines have' }} neither a last change nor a promise.</p>
        <ChoiceRow v-model="undated" label="They come in" :options="UNDATED" />
      </div>
      <p v-if="missing" class="danger">Say which column holds: {{ missing }}.</p>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <div class="row">
        <v-btn type="submit" size="x-large" :variant="trial ? 'outlined' : 'flat'" :disabled="missing !== null" :loading="submit.busy.value"
          >Try it, write nothing</v-btn
        >
        <v-btn v-if="comes > 0" size="x-large" :loading="submit.busy.value" @click="send(false)">{{ bringWords }}</v-btn>
      </div>
    </form>

    <ImportResult v-if="shown && table" :kind="kind" :answer="shown" :headings="table.headings" :done="done !== null" />
    <div v-if="done" class="row mt-4">
      <v-btn to="/systems">To the machines</v-btn>
      <v-btn v-if="kind === 'machines'" variant="outlined" @click="show('history')">Bring their history</v-btn>
    </div>
    <PastImports ref="past" @undone="done = null" />
  </main>
</template>

<style scoped>
.lead {
  margin-top: 12px;
  max-width: 72ch;
}
.drop {
  display: grid;
  place-items: center;
  min-height: 120px;
  margin: 14px 0;
  border: 2px dashed var(--ink);
  background: var(--sheet);
  cursor: pointer;
  font-size: 1.1rem;
}
.small {
  min-height: 56px;
}
.drop:focus-within {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
.over {
  background: var(--well);
}
.drop input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
</style>
