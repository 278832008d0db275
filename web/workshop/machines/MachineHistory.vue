<script setup lang="ts">
import type { HistoryEntry, HistoryPiece } from '@core/workshop/machines/answers.js';
import { computed, ref, shallowRef, watch } from 'vue';
import { get, wordsOf } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import HistoryLine from './HistoryLine.vue';
import { downloadHistory } from './listFile.js';

/** What happened to a machine, the newest first; what lies further back comes piece by piece. @param at asks anew when it changes */
const props = defineProps<{ system: { readonly id: string; readonly name: string }; at: unknown }>();
const piece = (before: string | null, signal?: AbortSignal): Promise<HistoryPiece> =>
  get<HistoryPiece>(`/systems/${props.system.id}/history${before === null ? '' : `?before=${encodeURIComponent(before)}`}`, signal);
const newest = usePage(
  (signal) => piece(null, signal),
  () => props.at,
);
const earlier = shallowRef<readonly HistoryEntry[]>([]);
const before = ref<string | null>(null);
const busy = ref(false);
const problem = ref<string | null>(null);
const entries = computed(() => [...(newest.data.value?.entries ?? []), ...earlier.value]);
// what was just written stands on top, and pushes the pieces behind it
watch(newest.data, (now) => {
  earlier.value = [];
  before.value = now?.before ?? null;
});

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
  <p v-if="problem ?? newest.problem.value" role="alert" class="danger">{{ problem ?? newest.problem.value }}</p>
  <v-btn v-if="before !== null" variant="text" class="no-print" :loading="busy" @click="back(false)">Earlier entries</v-btn>
  <p v-if="newest.data.value && entries.length === 0" class="quiet">Nothing yet. The first entry is the loop's plan.</p>
</template>
