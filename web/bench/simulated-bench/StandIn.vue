<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { ref } from 'vue';
import { SCENARIOS, type Scenario } from '@core/bench/simulated-bench/truth.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import type { LiveBench } from '../instruments/liveBench.js';

/** On a bench without instruments: how to get some, or a stand-in to try things out with. */
const props = defineProps<{ runId: string; bench: LiveBench }>();
const asking = ref(false);
const scenario = ref<Scenario>('clean');
const submit = useSubmit();
const { busy, problem } = submit;

async function start(): Promise<void> {
  const body = { scenario: scenario.value };
  if (await submit.run(() => call<object>('POST', `/runs/${props.runId}/simulated-bench`, { body }))) asking.value = false;
}
</script>

<template>
  <div v-if="bench.source.value === null" class="stand-in no-print">
    <p class="quiet">
      No instruments speak on this bench: readings are typed. <router-link to="/workshop">Connect some</router-link> or
      <button type="button" class="link" @click="asking = !asking">let a simulated bench play this run</button>.
    </p>
    <form v-if="asking" class="row" @submit.prevent="start">
      <v-select
        v-model="scenario"
        :items="Object.entries(SCENARIOS).map(([value, title]) => ({ value, title: sayWord(title) }))"
        label="What it hides"
        density="comfortable"
        hide-details
      />
      <v-btn type="submit" size="large" :loading="busy">Start it</v-btn>
      <span class="quiet">To try things out. Everything read from it is marked as simulated, in the record too.</span>
    </form>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </div>
</template>

<style scoped>
.stand-in {
  display: grid;
  gap: 6px;
}
p {
  margin: 0;
}
.link {
  text-decoration: underline;
}
.row > .v-input {
  max-width: 320px;
}
</style>
