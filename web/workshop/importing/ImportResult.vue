<script setup lang="ts">
import { computed, ref } from 'vue';
import type { ImportAnswer } from '@core/workshop/importing/answers.js';
import { cellProblemWords } from '@core/edge/words/importing.js';
import { importLabel, type ImportTableKind } from '@core/workshop/importing/fields.js';
import { downloadText } from '../../base/files/download.js';
import ImportedDatesBar from './ImportedDatesBar.vue';

/** What came in or would, what would not and why, what was left out of rows that do. */
const props = defineProps<{ kind: ImportTableKind; answer: ImportAnswer; headings: readonly string[]; done: boolean }>();
const PAGE = 40;
const shownRefused = ref(PAGE);
const shownLeft = ref(PAGE);
/** One line for what is wrong with many rows in the same way. */
const leftOut = computed(() => {
  const groups = new Map<string, { label: string; words: string; lines: number[] }>();
  for (const { line, key, value, problem } of props.answer.leftOut) {
    const [label, words] = [importLabel(props.kind, key), cellProblemWords(problem, value)];
    const group = groups.get(`${label} ${words}`);
    if (group) group.lines.push(line);
    else groups.set(`${label} ${words}`, { label, words, lines: [line] });
  }
  return [...groups.values()];
});
const many = (count: number, one: string, more: string): string => `${count} ${count === 1 ? one : more}`;
const main = computed(() => (props.kind === 'machines' ? props.answer.systems : props.answer.works));
const what = computed(() =>
  props.kind === 'machines' ? (main.value === 1 ? 'machine' : 'machines') : main.value === 1 ? 'entry' : 'entries',
);
const beside = computed(() =>
  [
    props.answer.owners > 0 ? many(props.answer.owners, 'new owner', 'new owners') : '',
    props.answer.coolants > 0 ? many(props.answer.coolants, 'new coolant on the shelf', 'new coolants on the shelf') : '',
    props.answer.refused.length === 0 ? 'every row is taken' : '',
  ]
    .filter(Boolean)
    .join(', '),
);

/** What was not taken, as a table with the reason, to be mended and brought again. */
async function refusedFile(): Promise<void> {
  const { default: papa } = await import('papaparse');
  const rows = props.answer.refused.map(({ line, problems, cells }) => [
    String(line),
    problems.map(({ key, value, problem }) => `${importLabel(props.kind, key)}: ${cellProblemWords(problem, value)}`).join('; '),
    ...cells,
  ]);
  downloadText(`${papa.unparse([['line', 'why', ...props.headings], ...rows], { escapeFormulae: true })}\n`, 'not-taken.csv', 'text/csv');
}
</script>

<template>
  <section aria-live="polite" class="result">
    <p class="big-number">
      {{ main }} <small>{{ what }} {{ done ? 'brought in' : 'would come in' }}</small>
    </p>
    <p v-if="beside">{{ beside.charAt(0).toUpperCase() }}{{ beside.slice(1) }}.</p>
    <template v-if="main > 0">
      <h2>{{ done ? 'The due list stands' : 'The due list would stand like this' }}</h2>
      <ImportedDatesBar :dates="answer.dates" />
    </template>
    <template v-if="answer.refused.length">
      <h2>{{ many(answer.refused.length, 'row is not taken', 'rows are not taken') }}</h2>
      <ul class="plain-list lines">
        <li v-for="row in answer.refused.slice(0, shownRefused)" :key="row.line">
          <span class="figures">line {{ row.line }}</span>
          <span>
            <template v-for="(each, index) in row.problems" :key="index"
              ><br v-if="index" /><strong>{{ importLabel(kind, each.key) }}:</strong>
              {{ cellProblemWords(each.problem, each.value) }}</template
            >
          </span>
          <span class="quiet">{{ row.cells.filter(Boolean).slice(0, 4).join(', ') }}</span>
        </li>
      </ul>
      <div class="row">
        <v-btn v-if="answer.refused.length > shownRefused" variant="text" @click="shownRefused += 400"
          >{{ answer.refused.length - shownRefused }} more</v-btn
        >
        <v-btn variant="outlined" @click="refusedFile">Rows not taken, as a table</v-btn>
      </div>
    </template>
    <template v-if="answer.leftOut.length">
      <h2>
        {{ many(answer.leftOut.length, 'cell is left out', 'cells are left out') }},
        {{ answer.leftOut.length === 1 ? 'its row comes' : 'their rows come' }} in
      </h2>
      <ul class="plain-list lines">
        <li v-for="(each, index) in leftOut.slice(0, shownLeft)" :key="index" class="grouped">
          <span
            ><strong>{{ each.label }}:</strong> {{ each.words }}</span
          >
          <span class="figures quiet"
            >{{ each.lines.length === 1 ? 'line' : `${each.lines.length} lines:` }} {{ each.lines.join(', ') }}</span
          >
        </li>
      </ul>
      <v-btn v-if="leftOut.length > shownLeft" variant="text" @click="shownLeft += 400">{{ leftOut.length - shownLeft }} more</v-btn>
    </template>
  </section>
</template>

<style scoped>
.result {
  margin-top: 22px;
}
.result h2 {
  margin: 20px 0 8px;
}
.lines li {
  display: grid;
  grid-template-columns: 80px minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 16px;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
}

.lines .grouped {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
@media (max-width: 600px) {
  .lines .grouped {
    grid-template-columns: 1fr;
    gap: 2px;
  }
  .lines li {
    grid-template-columns: 70px minmax(0, 1fr);
  }
  .lines li > :nth-child(3) {
    grid-column: 2;
  }
}
</style>
