<script setup lang="ts">
import { onScopeDispose, ref } from 'vue';
import { wordsOf } from '../../base/http/api.js';
import { latest } from '../../base/http/latest.js';
import { downloadList } from '../machines/listFile.js';
import type { LinesAsked } from './linesPath.js';
import { allLines } from './useLines.js';

/** The list that is shown as a table: all of it, page by page, which can be ended. */
const props = defineProps<{ asked: LinesAsked; today: string; found: number }>();
/** how many are here; null: nothing is fetched */
const done = ref<number | null>(null);
const problem = ref<string | null>(null);
const fetching = latest();

async function download(): Promise<void> {
  const turn = fetching.begin();
  done.value = 0;
  problem.value = null;
  try {
    const lines = await allLines(props.asked, (here) => (done.value = here), turn.signal);
    if (turn.counts) await downloadList(lines, props.today);
  } catch (error) {
    if (turn.counts) problem.value = wordsOf(error);
  } finally {
    if (turn.counts) done.value = null;
  }
}
function end(): void {
  fetching.cancel();
  done.value = null;
}
onScopeDispose(end);
</script>

<template>
  <span v-if="done !== null" class="row" role="status">
    <span class="quiet figures">{{ done }} of {{ found }}</span>
    <v-btn variant="text" size="large" @click="end">Cancel</v-btn>
  </span>
  <template v-else>
    <span v-if="problem" role="alert" class="danger">{{ problem }}</span>
    <v-btn variant="text" size="large" @click="download">As a table</v-btn>
  </template>
</template>
