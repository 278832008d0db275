<script setup lang="ts">
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import { photosOf, type Paper } from '@core/edge/papers/paper.js';
import { JOB_WORDS } from '@core/workshop/job-kinds/kinds.js';
import { dayIn } from '@core/base/units/calendar.js';
import { formatDay } from '@core/base/units/dates.js';
import { reading } from '@core/base/units/reading.js';
import { capital, sayWord } from '@core/base/words/say.js';
import { onUnmounted, ref, shallowRef, watch } from 'vue';
import PaperView from '../base/paper/PaperView.vue';
import { fetchFile, readReport } from './doorApi.js';

/** Reports to read and to keep. */
defineProps<{ reports: DoorPage['reports']; timeZone: string }>();
const paper = shallowRef<Paper | null>(null);
const shown = ref(0);
const problem = ref('');
const busy = ref(false);
const pictures = shallowRef<ReadonlyMap<string, string>>(new Map());
const letGo = (): void => pictures.value.forEach((address) => URL.revokeObjectURL(address));
onUnmounted(letGo);

async function work(doing: () => Promise<void>): Promise<void> {
  busy.value = true;
  problem.value = '';
  await doing().catch((error: unknown) => {
    problem.value = error instanceof Error ? error.message : '';
  });
  busy.value = false;
}
const open = (number: number): Promise<void> =>
  work(async () => {
    if (shown.value === number) {
      shown.value = 0;
      return;
    }
    letGo();
    pictures.value = new Map();
    paper.value = await readReport(number, reading().language);
    shown.value = number;
    const ids = photosOf(paper.value);
    const files = await Promise.all(ids.map((_, at) => fetchFile(`/reports/${number}/pictures/${at}`).catch(() => null)));
    pictures.value = new Map(ids.flatMap((id, at) => (files[at] ? [[id, URL.createObjectURL(files[at])] as const] : [])));
  });
watch(
  () => reading().language,
  () => {
    const { value: number } = shown;
    shown.value = 0;
    if (number > 0) void open(number);
  },
);
const keep = (number: number): Promise<void> =>
  work(async () => {
    const address = URL.createObjectURL(await fetchFile(`/reports/${number}/pdf?language=${reading().language}`));
    const link = document.createElement('a');
    link.href = address;
    link.download = `${paper.value?.title ?? 'report'}.pdf`;
    link.click();
    window.setTimeout(() => URL.revokeObjectURL(address), 60_000);
  });
const nameOf = (kind: string): string => capital(sayWord(JOB_WORDS[kind] ?? kind));
</script>

<template>
  <section class="sheet" aria-labelledby="reports">
    <h2 id="reports">Reports</h2>
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <template v-for="each in reports" :key="each.number">
      <button type="button" class="offer" :aria-expanded="shown === each.number" :disabled="busy" @click="open(each.number)">
        <strong>{{ nameOf(each.kind) }}</strong> <small>{{ formatDay(dayIn(timeZone, new Date(each.at))) }}</small>
      </button>
      <template v-if="shown === each.number && paper">
        <button type="button" class="act" :disabled="busy" @click="keep(each.number)">Keep it as a PDF</button>
        <PaperView :paper="paper" :pictures="pictures" />
      </template>
    </template>
  </section>
</template>
