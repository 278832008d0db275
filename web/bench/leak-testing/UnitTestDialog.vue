<script setup lang="ts">
import type { UnitTestCreate } from '@core/bench/commissioning/schema.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { WATER } from '@core/machine/liquids/fluids.js';
import { unitsAlone } from '@core/physics/filling/unitAlone.js';
import { formatIn, formatMlWithSd } from '@core/base/units/display.js';
import { computed, onMounted, ref } from 'vue';
import { call, get, wordsOf } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import DialogFocus from '../../base/look/DialogFocus.vue';
import BenchTops from '../benches/BenchTops.vue';

/** A pump and its reservoir tested out of the case: which one, on which bench, and what to expect of it. */
const props = defineProps<{ loopId: string; systemName: string; file: LoopFile }>();
const emit = defineEmits<{ close: []; started: [runId: string] }>();
const submit = useSubmit();
const units = computed(() => unitsAlone(props.file, WATER));
const pump = ref(units.value[0]?.pump ?? null);
const unit = computed(() => units.value.find((each) => each.pump === pump.value) ?? null);
const benches = ref<{ id: string; name: string; taken: string | null }[]>([]);
const benchId = ref<string | null>(null);
const problem = ref<string | null>(null);

onMounted(() => load().catch((error: unknown) => (problem.value = wordsOf(error))));
async function load(): Promise<void> {
  const today = await get<{ benches: { id: string; name: string }[]; runs: { benchId: string | null; systemName: string }[] }>('/benches');
  benches.value = today.benches.map((bench) => ({
    ...bench,
    taken: today.runs.find((run) => run.benchId === bench.id && run.systemName !== props.systemName)?.systemName ?? null,
  }));
  benchId.value = benches.value.find(({ taken }) => taken === null)?.id ?? null;
}
async function start(): Promise<void> {
  if (pump.value === null) return;
  const body: UnitTestCreate = { pump: pump.value, benchId: benchId.value };
  const made = await submit.run((idempotencyKey) =>
    call<{ run: { id: string } }>('POST', `/loops/${props.loopId}/unit-tests`, { body, idempotencyKey }),
  );
  if (made) emit('started', made.run.id);
}
</script>

<template>
  <v-dialog :model-value="true" max-width="680" scrollable @update:model-value="emit('close')">
    <v-card class="pa-6">
      <DialogFocus />
      <form class="stack" novalidate @submit.prevent="start">
        <h2>Test a unit out of its case</h2>
        <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
        <p v-if="units.length === 0">No pump of this loop stands under its own reservoir: there is nothing that runs on its own.</p>
        <template v-else>
          <fieldset v-if="units.length > 1">
            <legend>Which one</legend>
            <label v-for="each in units" :key="each.pump"><input v-model="pump" type="radio" :value="each.pump" /> {{ each.name }}</label>
          </fieldset>
          <p v-if="unit">
            <strong>{{ unit.name }}</strong> with a scrap of tube takes
            <span class="figures">{{ formatMlWithSd(unit.total.volumeMl, unit.total.sdMl) }}</span><template
              v-if="unit.flowLph !== null && unit.backS !== null"
              >; by the pump’s curve it is back within about {{ Math.max(1, Math.ceil(unit.backS)) }} s and runs at about
              <span class="figures estimate">{{ formatIn('L/h', unit.flowLph) }}</span></template
            >. Ten minutes by the clock, half an hour in all.
          </p>
          <BenchTops v-model="benchId" :benches="benches" />
          <p class="quiet">The machine stays where it is. What was found, and what stays inside, is the first line of the build.</p>
        </template>
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <div class="row">
          <v-btn v-if="units.length" type="submit" size="x-large" :loading="submit.busy.value">Put it on the bench</v-btn>
          <v-btn variant="text" size="large" @click="emit('close')">Close</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
fieldset {
  border: none;
  padding: 0;
  margin: 0;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
label input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
p {
  margin: 0;
}
</style>
