<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { OUTFLOW_WORDS, OUTFLOWS } from '@core/bench/runs/entries/outflow.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ref } from 'vue';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';

/** What was poured and is not inside: over the lid, drawn off, spilled. */
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const ways = OUTFLOWS.map((value) => ({ value, title: say(OUTFLOW_WORDS[value]) }));
const way = ref<(typeof OUTFLOWS)[number] | null>('ran-over');
const volume = ref<number | null>(null);

function enter(): void {
  if (!volume.value || volume.value <= 0 || way.value === null) return;
  emit('send', { type: 'outflow', way: way.value, volumeMl: volume.value });
  volume.value = null;
}
</script>

<template>
  <details class="outflow">
    <summary>Some of it left again</summary>
    <form class="row" novalidate @submit.prevent="enter">
      <ChoiceRow v-model="way" label="How it left" :options="ways" />
      <NumberField v-model="volume" label="About how much" unit="mL" @enter="enter" />
      <v-btn type="submit" size="large" variant="outlined" :disabled="!volume || volume <= 0">Enter</v-btn>
    </form>
  </details>
</template>

<style scoped>
.outflow {
  width: 100%;
}
summary {
  cursor: pointer;
  padding: 10px 0;
}
.row > .v-input {
  max-width: 220px;
}
</style>
