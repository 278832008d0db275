<script setup lang="ts">
import { toHave } from '@core/edge/words/loopChange.js';
import { buildWork } from '@core/machine/loop-change/buildWork.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { computed } from 'vue';
import ChangeWork from '../../machine/loop-change/ChangeWork.vue';
import type { JobForm } from './jobForm.js';

/** What a build takes by its drawing: each part with whether it fits, what is to be had, what is cut. */
const parts = defineModel<JobForm['parts']>({ required: true });
const props = defineProps<{ file: LoopFile }>();
const work = computed(() => buildWork(props.file));
const needs = computed(() => toHave(work.value));
const isTaken = computed(() => needs.value.every(({ what }) => parts.value.some((each) => each.what === what)));
/** what is listed by hand already stays as it is */
function take(): void {
  const more = needs.value.filter(({ what }) => !parts.value.some((each) => each.what === what));
  parts.value = [...parts.value, ...more.map((each) => ({ ...each, itemId: null, eachMinor: null }))];
}
</script>

<template>
  <details class="needs">
    <summary>What it takes by its drawing: {{ work.in.length }} parts, {{ work.made.length }} tubes</summary>
    <ChangeWork :work="work" :wanted="file" />
    <v-btn v-if="!isTaken" variant="outlined" @click="take">Take what fits into the estimate</v-btn>
    <p v-else class="quiet">All of it is in the estimate.</p>
  </details>
</template>

<style scoped>
.needs > :not(summary) {
  margin-top: 12px;
}
summary {
  min-height: 44px;
  padding-block: 10px;
  cursor: pointer;
}
p {
  margin: 0;
}
</style>
