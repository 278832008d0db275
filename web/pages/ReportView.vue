<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { photosOf, type Paper } from '@core/edge/papers/paper.js';
import { computed, watch } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import PaperView from '../base/paper/PaperView.vue';

/** The report of a signed run as its owner keeps it, the way he reads. */
const props = defineProps<{ id: string }>();
const { data: paper, problem } = usePage(
  (signal) => get<Paper>(`/runs/${props.id}/report`, signal),
  () => props.id,
);
const pictures = computed(() => new Map((paper.value ? photosOf(paper.value) : []).map((id) => [id, `/api/photos/${id}`])));
watch(paper, (own) => {
  if (own) document.title = say('{name} · Lavacrum', { name: own.title });
});
const print = (): void => window.print();
</script>

<template>
  <main class="page">
    <div v-if="problem" class="stack">
      <h1>No report</h1>
      <p role="alert">{{ problem }}</p>
    </div>
    <template v-else-if="paper">
      <header class="spread no-print">
        <h1>What the owner keeps</h1>
        <div class="row">
          <v-btn size="large" :href="`/api/runs/${id}/report.pdf`">As a PDF</v-btn>
          <v-btn variant="outlined" size="large" @click="print">Print</v-btn>
          <v-btn variant="text" size="large" :to="`/runs/${id}/record`">The record</v-btn>
        </div>
      </header>
      <PaperView class="mt-4" :paper="paper" :pictures="pictures" />
    </template>
  </main>
</template>
