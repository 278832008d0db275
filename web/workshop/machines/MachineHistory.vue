<script setup lang="ts">
import type { HistoryEntry, HistoryPiece } from '@core/workshop/machines/answers.js';
import { computed, ref, watch } from 'vue';
import { get, wordsOf } from '../../base/http/api.js';
import HistoryLine from './HistoryLine.vue';
import { downloadHistory } from './listFile.js';

/** What happened to a machine, the newest first; what lies further back comes piece by piece. */
const props = defineProps<{ system: { readonly id: string; readonly name: string }; newest: HistoryPiece }>();
const earlier = ref<readonly HistoryEntry[]>([]);
const before = ref(props.newest.before);
const busy = ref(false);
const problem = ref<string | null>(null);
const entries = computed(() => [...props.newest.entries, ...earlier.value]);
// what was just written stands on top, and pushes the pieces behind it
watch(
  () => props.newest,
  (newest) => {
    earlier.value = [];
    before.value = newest.before;
  },
);

const piece = (place: string): Promise<HistoryPiece> =>
  get<HistoryPiece>(`/systems/${props.system.id}/history?before=${encodeURIComponent(place)}`);

/** Fetches what lies before, once or up to the first entry. */
async function back(isAll: boolean): Promise<boolean> {
  busy.value = true;
  problem.value = null;
  try {
    do {
      if (before.value === null) break;
      const found = await piece(before.value);
      earlier.value = [...earlier.value, ...found.entries];
      before.value = found.before;
    } while (isAll);
    return true;
  } catch (error) {
    problem.value = wordsOf(error);
    return false;
  } finally {
    busy.value = false;
  }
}
async function download(): Promise<void> {
  if (await back(true)) await downloadHistory(entries.value, props.system.name);
}
</script>

<template>
  <header class="spread mb-4">
    <h2>History</h2>
    <v-btn v-if="entries.length > 0" variant="text" class="no-print" :loading="busy" @click="download">As a table</v-btn>
  </header>
  <HistoryLine :entries="entries" />
  <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  <v-btn v-if="before !== null" variant="text" class="no-print" :loading="busy" @click="back(false)">Earlier entries</v-btn>
  <p v-if="entries.length === 0" class="quiet">Nothing yet. The first entry is the loop's plan.</p>
</template>
