<script setup lang="ts">
import { formatIn } from '@core/base/units/display.js';
import { computed, ref } from 'vue';
import type { Procedure, StepKind } from '@core/bench/runs/procedure.js';
import { currentKind, type RunState } from '@core/bench/runs/state.js';
import { TEST_GAUGE_KPA } from '@core/physics/leak-testing/defaults.js';
import type { HandMove } from '@core/bench/simulated-bench/hands.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import type { LiveBench } from '../instruments/liveBench.js';
import HandsInService from './HandsInService.vue';
import NumberField from '../../base/units/NumberField.vue';

/** Hands of a simulated bench: what a real one would feel. What is read and written down stays with the run. */
const props = defineProps<{ benchId: string; bench: LiveBench; procedure: Procedure; state: RunState }>();
const submit = useSubmit();
const { busy, problem } = submit;
const pourMl = ref<number | null>(100);
const stopsAtMark = ref(true);
const joint = ref<string | null>(props.procedure.facts?.joints[0]?.id ?? null);
const joints = computed(() => props.procedure.facts?.joints ?? []);
const places = computed(() => [...joints.value, ...(props.procedure.facts?.parts ?? [])]);
const names = computed(() => new Map(places.value.map(({ id, name }) => [id, name])));
const testKpa = computed(() => Math.min(TEST_GAUGE_KPA, props.procedure.facts?.mostGaugeKpa ?? TEST_GAUGE_KPA));
/** the simulation knows runs by their id; people by their name */
const seen = computed(() => {
  const told = props.bench.seen.value;
  if (!told) return null;
  return [...names.value].reduce((text, [id, name]) => text.replace(new RegExp(`\\b(at|under) ${id}\\.`), `$1 ${name}.`), told.text);
});

const KINDS_WITH_HANDS: readonly StepKind[] = ['dry-test', 'fill', 'wet-run', 'bleed', 'power', 'repair', 'baseline'];
const KINDS_OF_SERVICE: readonly StepKind[] = ['drain', 'rinse', 'inspect', 'clean'];
/** in other steps hands do what the list says, and nothing is to be noticed */
const isAtHand = computed(() => {
  const kind = currentKind(props.state);
  return kind !== null && (KINDS_WITH_HANDS.includes(kind) || (props.procedure.service !== undefined && KINDS_OF_SERVICE.includes(kind)));
});

/** one after the other: a drain is opened once air gets in */
const move = (...wanted: readonly HandMove[]): Promise<void | null | undefined> =>
  submit.run(async () => {
    for (const each of wanted) await call<object>('POST', `/benches/${props.benchId}/hands`, { body: each });
  });
</script>

<template>
  <section v-if="isAtHand" class="hands" aria-label="Hands at the simulated bench">
    <h3>Your hands, simulated</h3>
    <div v-if="currentKind(state) === 'dry-test'" class="row">
      <v-btn variant="outlined" size="large" :disabled="busy" @click="move({ do: 'pump-up', gaugeKpa: testKpa })"
        >Pump up to {{ formatIn('kPa', testKpa) }}</v-btn
      >
      <v-btn variant="text" size="large" :disabled="busy" @click="move({ do: 'let-out' })">Let the air out</v-btn>
    </div>
    <div v-if="currentKind(state) === 'dry-test'" class="row">
      <v-select
        v-model="joint"
        :items="places"
        item-title="name"
        item-value="id"
        label="Water brushed on"
        hide-details
        density="comfortable"
      />
      <v-btn variant="outlined" size="large" :disabled="busy || joint === null" @click="joint && move({ do: 'brush', joint })"
        >Brush it on</v-btn
      >
    </div>
    <form
      v-if="['fill', 'wet-run', 'bleed', 'rinse'].includes(currentKind(state) ?? '')"
      class="row"
      novalidate
      @submit.prevent="pourMl && move({ do: 'pour', ml: pourMl, toMark: stopsAtMark })"
    >
      <NumberField v-model="pourMl" label="Pour" unit="mL" />
      <v-btn type="submit" variant="outlined" size="large" :disabled="busy || !pourMl || pourMl <= 0">Pour</v-btn>
      <v-checkbox v-model="stopsAtMark" label="stop at the mark" hide-details density="comfortable" />
    </form>
    <HandsInService v-if="procedure.service" :procedure="procedure" :state="state" :busy="busy" @move="move(...$event)" />
    <div v-if="['fill', 'wet-run', 'bleed', 'power', 'repair'].includes(currentKind(state) ?? '')" class="row">
      <v-btn variant="outlined" size="large" :disabled="busy" @click="move({ do: 'look' })">Look around</v-btn>
      <v-btn variant="text" size="large" :disabled="busy" @click="move({ do: 'knock' })">Tap the tubes</v-btn>
    </div>
    <div v-if="['fill', 'wet-run', 'bleed'].includes(currentKind(state) ?? '')" class="row">
      <v-select
        v-model="joint"
        :items="places"
        item-title="name"
        item-value="id"
        label="Two fingers along"
        hide-details
        density="comfortable"
      />
      <v-btn variant="outlined" size="large" :disabled="busy || joint === null" @click="joint && move({ do: 'feel', at: joint })"
        >Feel it</v-btn
      >
    </div>
    <div v-if="currentKind(state) === 'baseline'" class="row">
      <v-btn variant="outlined" size="large" :disabled="busy" @click="move({ do: 'load', on: true })">Start the load</v-btn>
      <v-btn variant="text" size="large" :disabled="busy" @click="move({ do: 'load', on: false })">End the load</v-btn>
    </div>
    <p class="seen" aria-live="polite">{{ seen ?? 'What eyes and ears notice comes here.' }}</p>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </section>
</template>

<style scoped>
.hands {
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  border: 1.5px dashed var(--ink);
}
h3 {
  font-size: 1rem;
  margin: 0;
}
.row > .v-input {
  max-width: 380px;
}
p {
  margin: 0;
}
.seen {
  font-size: 1.1rem;
}
</style>
