<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { LEAK_SCHOOLS, WET_SCHOOLS, type LeakSchool, type WetSchool } from '@core/physics/leak-testing/schools.js';

/** How leaks are looked for after a job, each choice with what it leaves open. */
const leak = defineModel<LeakSchool>('leak', { required: true });
const wet = defineModel<WetSchool>('wet', { required: true });
const choices = (all: Record<string, { label: string }>) =>
  Object.entries(all).map(([value, { label }]) => ({ value, title: sayWord(label) }));
</script>

<template>
  <v-select
    v-model="leak"
    :items="choices(LEAK_SCHOOLS)"
    label="Leak test afterwards"
    :hint="LEAK_SCHOOLS[leak].consequence"
    persistent-hint
  />
  <slot />
  <v-select
    v-if="LEAK_SCHOOLS[leak].wet"
    v-model="wet"
    :items="choices(WET_SCHOOLS)"
    label="Only the pump runs"
    :hint="WET_SCHOOLS[wet].consequence"
    persistent-hint
  />
</template>
