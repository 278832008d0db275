<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed, watch } from 'vue';
import type { PracticeOf } from '@core/bench/practice/schema.js';
import { PRACTISED, SCENARIOS, scenariosFor, type Scenario } from '@core/bench/simulated-bench/truth.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { ABOUT_A_PART, JOB_KINDS, type JobKind } from '@core/workshop/job-kinds/kinds.js';

/** What is practised at the table, on which part, and what the bench may hide from it. */
const props = defineProps<{ file: LoopFile }>();
/** null: a commissioning */
const job = defineModel<PracticeOf | null>('job', { required: true });
const scenario = defineModel<Scenario>('scenario', { required: true });

const COMMISSIONING = 'commissioning';
const first = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const kinds = [
  { value: COMMISSIONING, title: say('Commissioning') },
  ...PRACTISED.map((kind) => ({ value: kind as string, title: first(sayWord(JOB_KINDS[kind].label)) })),
];
const parts = computed(() =>
  props.file.components
    .filter(({ kind }) => ['block', 'radiator', 'pump'].includes(kind))
    .map((part) => ({ value: part.id, title: shortName(part) })),
);
const kind = computed({
  get: () => job.value?.kind ?? COMMISSIONING,
  set: (wanted: string) => {
    const aboutPart = ABOUT_A_PART.includes(wanted as JobKind);
    job.value = wanted === COMMISSIONING ? null : { kind: wanted as JobKind, partId: aboutPart ? (parts.value[0]?.value ?? null) : null };
  },
});
const partId = computed({
  get: () => job.value?.partId ?? null,
  set: (wanted) => {
    if (job.value) job.value = { ...job.value, partId: wanted };
  },
});
const hidden = computed(() => scenariosFor(job.value?.kind ?? null).map((value) => ({ value, title: say(SCENARIOS[value]) })));
watch(hidden, (all) => {
  if (!all.some(({ value }) => value === scenario.value)) scenario.value = all[0]?.value ?? 'clean';
});
</script>

<template>
  <div class="practise">
    <v-select v-model="kind" :items="kinds" label="What is practised" hide-details />
    <v-select v-if="job && job.partId !== null" v-model="partId" :items="parts" label="Part that is changed" hide-details />
    <v-select v-model="scenario" :items="hidden" label="What it hides" hide-details />
  </div>
</template>

<style scoped>
.practise {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px;
}
</style>
