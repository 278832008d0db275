<script setup lang="ts">
import type { ImportAnswer } from '@core/workshop/importing/answers.js';
import { computed, ref, watch } from 'vue';
import { guessMapping, IMPORT_FIELDS, IMPORT_KEYS, type ImportKey } from '@core/workshop/importing/fields.js';
import { IMPORT_LIMIT, type RefusedRow } from '@core/workshop/importing/rows.js';
import { downloadText } from '../base/files/download.js';
import { call } from '../base/http/api.js';
import { useSubmit } from '../base/http/useSubmit.js';
import { useNotices } from '../base/shell/notices.js';

interface Table {
  readonly name: string;
  readonly headings: readonly string[];
  /** all of them, empty ones too: lines are counted as a table program does */
  readonly rows: readonly (readonly string[])[];
  readonly filled: number;
}

const submit = useSubmit();
const notices = useNotices();
const table = ref<Table | null>(null);
const problem = ref<string | null>(null);
const mapping = ref<Record<ImportKey, number | null>>(guessMapping([]));
const trial = ref<ImportAnswer | null>(null);
const done = ref<ImportAnswer | null>(null);
const over = ref(false);

async function open(file: File | undefined): Promise<void> {
  if (!file) return;
  problem.value = null;
  trial.value = null;
  done.value = null;
  const { default: papa } = await import('papaparse');
  // the separator is found by itself: comma, semicolon or tab
  const parsed = papa.parse<string[]>(await file.text(), { skipEmptyLines: false });
  const [headings = [], ...rows] = parsed.data;
  const filled = rows.filter((cells) => cells.some((cell) => cell.trim() !== ''));
  if (headings.length < 2 || filled.length === 0) {
    table.value = null;
    problem.value = `${file.name} is no table with a heading and rows: save it as text with commas or semicolons (CSV), with at least an owner and a machine in each row.`;
    return;
  }
  if (rows.length > IMPORT_LIMIT.rows) {
    table.value = null;
    problem.value = `${file.name} has ${rows.length} rows; at most ${IMPORT_LIMIT.rows} go in at once. Cut it in two.`;
    return;
  }
  table.value = { name: file.name, headings, rows, filled: filled.length };
  mapping.value = { ...guessMapping(headings) };
}

const columns = computed(() => [
  { value: null, title: 'not in this table' },
  ...(table.value?.headings ?? []).map((heading, value) => ({ value, title: heading.trim() || `column ${value + 1}` })),
]);
const sample = (key: ImportKey): string => {
  const column = mapping.value[key];
  if (column === null || !table.value) return '';
  return table.value.rows
    .map((cells) => cells[column]?.trim() ?? '')
    .filter(Boolean)
    .slice(0, 3)
    .join(', ');
};
const missing = computed(() => IMPORT_KEYS.find((key) => IMPORT_FIELDS[key].needed && mapping.value[key] === null) ?? null);

watch(
  mapping,
  () => {
    trial.value = null;
  },
  { deep: true },
);

async function send(dryRun: boolean): Promise<void> {
  const own = table.value;
  if (!own) return;
  const counts = await submit.run((idempotencyKey) =>
    call<ImportAnswer>('POST', '/imports', { body: { rows: own.rows, mapping: mapping.value, dryRun }, idempotencyKey }),
  );
  if (!counts) return;
  if (dryRun) trial.value = counts;
  else {
    done.value = counts;
    trial.value = null;
    notices.say(`${counts.systems} ${counts.systems === 1 ? 'system' : 'systems'} brought in.`);
  }
}

/** What was not taken, as a table with the reason, to be mended and brought again. */
async function refusedFile(refused: readonly RefusedRow[]): Promise<void> {
  const { default: papa } = await import('papaparse');
  const rows = refused.map(({ line, field, message, cells }) => [String(line), `${field}: ${message}`, ...cells]);
  downloadText(
    `${papa.unparse([['line', 'why', ...(table.value?.headings ?? [])], ...rows], { escapeFormulae: true })}\n`,
    'not-taken.csv',
    'text/csv',
  );
}
const shown = computed(() => done.value ?? trial.value);
</script>

<template>
  <main class="page">
    <h1>Bring machines from a table</h1>
    <p class="lead">
      A CSV file with one machine a row: its owner and name at least. Loops, fills and dates are entered afterwards, or follow with the
      first service.
    </p>
    <label
      class="drop"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="
        over = false;
        open($event.dataTransfer?.files[0]);
      "
    >
      <input type="file" accept=".csv,text/csv,text/plain" @change="open(($event.target as HTMLInputElement).files?.[0])" />
      <span v-if="table"
        ><strong>{{ table.name }}</strong
        >, {{ table.filled }} {{ table.filled === 1 ? 'row' : 'rows' }}. Another file?</span
      >
      <span v-else>Choose a file, or drop it here</span>
    </label>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>

    <form v-if="table && !done" class="stack" novalidate @submit.prevent="send(true)">
      <h2>Which column holds what</h2>
      <div class="fields">
        <div v-for="key in IMPORT_KEYS" :key="key" class="field">
          <v-select
            v-model="mapping[key]"
            :items="columns"
            :label="`${IMPORT_FIELDS[key].label}${IMPORT_FIELDS[key].needed ? ', needed' : ''}`"
            density="comfortable"
            hide-details
          />
          <span class="quiet sample">{{ sample(key) }}</span>
        </div>
      </div>
      <p v-if="missing" class="danger">Say which column holds: {{ IMPORT_FIELDS[missing].label }}.</p>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <div class="row">
        <v-btn type="submit" size="x-large" :variant="trial ? 'outlined' : 'flat'" :disabled="missing !== null" :loading="submit.busy.value"
          >Try it, write nothing</v-btn
        >
        <v-btn v-if="trial && trial.systems > 0" size="x-large" :loading="submit.busy.value" @click="send(false)"
          >Bring in {{ trial.systems }} {{ trial.systems === 1 ? 'machine' : 'machines' }}</v-btn
        >
      </div>
    </form>

    <section v-if="shown" aria-live="polite" class="result">
      <p class="big-number">
        {{ shown.systems }} <small>{{ shown.systems === 1 ? 'machine' : 'machines' }} {{ done ? 'brought in' : 'would come in' }}</small>
      </p>
      <p>
        {{ shown.owners }} new {{ shown.owners === 1 ? 'owner' : 'owners' }}.
        {{
          shown.refused.length === 0
            ? 'Every row is taken.'
            : `${shown.refused.length} ${shown.refused.length === 1 ? 'row is' : 'rows are'} not taken:`
        }}
      </p>
      <ul v-if="shown.refused.length" class="plain-list refused">
        <li v-for="row in shown.refused.slice(0, 50)" :key="row.line">
          <span class="figures">line {{ row.line }}</span>
          <span
            ><strong>{{ row.field }}:</strong> {{ row.message }}</span
          >
          <span class="quiet">{{ row.cells.filter(Boolean).slice(0, 4).join(', ') }}</span>
        </li>
      </ul>
      <div class="row">
        <v-btn v-if="shown.refused.length" variant="outlined" @click="refusedFile(shown.refused)">Rows not taken, as a table</v-btn>
        <v-btn v-if="done" to="/systems">To the machines</v-btn>
      </div>
    </section>
  </main>
</template>

<style scoped>
.lead {
  max-width: 66ch;
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
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 12px 28px;
}
.sample {
  display: block;
  min-height: 1.5em;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.result {
  margin-top: 22px;
}
.refused li {
  display: grid;
  grid-template-columns: 90px minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 16px;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
}
</style>
