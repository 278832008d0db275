<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ref } from 'vue';
import NumberField from '../../base/units/NumberField.vue';

/** The level as an eye reads it off the reservoir. */
const props = defineProps<{ markMl?: number | null }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const level = ref<number | null>(null);
const problem = ref<string | null>(null);

function read(): void {
  if (level.value === null || level.value < 0) {
    problem.value = say('Read the level off the reservoir, in {unitName}.', { unitName: unitName('mL') });
    return;
  }
  problem.value = null;
  emit('send', { type: 'level', levelMl: level.value });
  level.value = null;
}
/** the commonest reading, in one touch: the eye has looked all the same */
function atMark(): void {
  problem.value = null;
  if (props.markMl) emit('send', { type: 'level', levelMl: props.markMl });
}
</script>

<template>
  <form class="level" novalidate @submit.prevent="read">
    <NumberField v-model="level" large label="Level in the reservoir" unit="mL" @enter="read" />
    <v-btn type="submit" size="x-large">Level read</v-btn>
    <v-btn v-if="markMl && level === null" size="x-large" variant="outlined" @click="atMark">It stands at the mark</v-btn>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </form>
</template>

<style scoped>
.level {
  display: grid;
  grid-template-columns: minmax(180px, 240px) auto auto;
  gap: 12px;
  justify-content: start;
}
.v-btn {
  height: 64px;
  padding-inline: 16px;
}
p {
  grid-column: 1 / -1;
  margin: 0;
}
@media (max-width: 700px) {
  .level {
    grid-template-columns: 1fr;
  }
}
</style>
