<script setup lang="ts">
import { LEAK_SCHOOLS, WET_SCHOOLS, type LeakSchool, type WetSchool } from '@core/physics/leak-testing/schools.js';
import { choicesOf } from '../../base/look/choices.js';

/** How leaks are looked for after a job, each choice with what it leaves open. */
const leak = defineModel<LeakSchool>('leak', { required: true });
const wet = defineModel<WetSchool>('wet', { required: true });
</script>

<template>
  <v-select
    v-model="leak"
    :items="choicesOf(LEAK_SCHOOLS)"
    label="Leak test afterwards"
    :hint="LEAK_SCHOOLS[leak].consequence"
    persistent-hint
  />
  <slot />
  <v-select
    v-if="LEAK_SCHOOLS[leak].wet"
    v-model="wet"
    :items="choicesOf(WET_SCHOOLS)"
    label="Only the pump runs"
    :hint="WET_SCHOOLS[wet].consequence"
    persistent-hint
  />
</template>
