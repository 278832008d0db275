<script setup lang="ts">
import { computed } from 'vue';
import { capital, say } from '@core/base/words/say.js';
import { LEAK_SCHOOLS, WET_SCHOOLS, type LeakSchool, type WetSchool } from '@core/physics/leak-testing/schools.js';
import { BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import { TESTED_KINDS, usualSchools, type JobSchools, type LeakAndWet } from '@core/workshop/jobs/usualSchools.js';
import { choicesOf } from '../../base/look/choices.js';

/** How leaks are looked for after each kind of job; what is usual, where the workshop says nothing. */
const model = defineModel<JobSchools>({ required: true });
defineProps<{ readonly: boolean }>();
const LEAKS = choicesOf(LEAK_SCHOOLS);
const WETS = choicesOf(WET_SCHOOLS);
const rows = computed(() =>
  TESTED_KINDS.map((kind) => ({
    kind,
    label: capital(say(BOOKED_KINDS[kind].label)),
    own: model.value[kind] ?? null,
    shown: usualSchools(kind, model.value),
  })),
);
const set = (kind: BookedKind, to: Partial<LeakAndWet>): void => {
  model.value = { ...model.value, [kind]: { ...usualSchools(kind, model.value), ...to } };
};
const asUsual = (kind: BookedKind): void => {
  const { [kind]: _gone, ...rest } = model.value;
  model.value = rest;
};
</script>

<template>
  <details class="by-kind">
    <summary>Leak tests by kind of job</summary>
    <div v-for="row in rows" :key="row.kind" class="kind">
      <strong>{{ row.label }}</strong>
      <v-select
        :model-value="row.shown.leak"
        :items="LEAKS"
        label="Leak test"
        hide-details
        :readonly="readonly"
        @update:model-value="set(row.kind, { leak: $event as LeakSchool })"
      />
      <v-select
        v-if="LEAK_SCHOOLS[row.shown.leak].wet"
        :model-value="row.shown.wet"
        :items="WETS"
        label="Only the pump runs"
        hide-details
        :readonly="readonly"
        @update:model-value="set(row.kind, { wet: $event as WetSchool })"
      />
      <span v-else />
      <button v-if="row.own && !readonly" type="button" class="link" @click="asUsual(row.kind)">as usual</button>
      <span v-else-if="!row.own" class="quiet">as usual</span>
    </div>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  cursor: pointer;
}
.kind {
  display: grid;
  grid-template-columns: 1fr 1.2fr 0.8fr 80px;
  gap: 10px;
  align-items: center;
  padding-block: 6px;
  border-top: 1px solid var(--line-soft);
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
@media (max-width: 900px) {
  .kind {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
