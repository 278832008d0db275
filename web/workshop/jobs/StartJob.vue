<script setup lang="ts">
import { tubesInOrder } from '@core/machine/catalogue/names.js';
import { computed, onMounted, reactive, ref } from 'vue';
import { DEFAULT_SCHOOLS, type Schools } from '@core/physics/leak-testing/schools.js';
import { BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import { jointsOfPart, runSchools, type WorkshopSchools } from '@core/workshop/jobs/usualSchools.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import LeakAndWetFields from './LeakAndWetFields.vue';

/** Which bench, and how leaks are looked for afterwards: by how far the loop is opened. */
const props = defineProps<{ jobId: string; kind: BookedKind; partId: string | null; file: LoopFile; systemName: string; ready: boolean }>();
const emit = defineEmits<{ started: [runId: string] }>();
const submit = useSubmit();
const benches = ref<{ id: string; name: string }[]>([]);
const benchId = ref<string | null>(null);
const schools = reactive<{ -readonly [K in keyof Schools]: Schools[K] }>({ ...DEFAULT_SCHOOLS });

onMounted(async () => {
  const [shop, today] = await Promise.all([
    get<{ workshop: { schools: WorkshopSchools }; benches: { id: string; name: string }[] }>('/workshop'),
    get<{ runs: { benchId: string | null; systemName: string }[] }>('/benches'),
  ]).catch(() => [{ workshop: { schools: DEFAULT_SCHOOLS as WorkshopSchools }, benches: [] }, { runs: [] }] as const);
  Object.assign(schools, runSchools(props.kind, shop.workshop.schools));
  benches.value = [...shop.benches];
  const taken = new Set(today.runs.filter(({ systemName }) => systemName !== props.systemName).map((run) => run.benchId));
  benchId.value = shop.benches.find(({ id }) => !taken.has(id))?.id ?? null;
});
const runs = computed(() => tubesInOrder(props.file));
/** joints of the part that is changed; more can be ticked */
const opened = ref(jointsOfPart(props.file, props.partId));
const refills = computed(() => BOOKED_KINDS[props.kind].fill !== 'none');

async function start(): Promise<void> {
  const made = await submit.run((idempotencyKey) =>
    call<{ run: { id: string } }>('POST', `/jobs/${props.jobId}/start`, {
      body: {
        benchId: benchId.value,
        schools: { ...schools, leak: schools.leak === 'opened-joints' && opened.value.length === 0 ? 'wet-only' : schools.leak },
        openedJoints: schools.leak === 'opened-joints' ? opened.value : [],
      },
      idempotencyKey,
    }),
  );
  if (made) emit('started', made.run.id);
}
</script>

<template>
  <form class="start" novalidate @submit.prevent="start">
    <h2>Onto a bench</h2>
    <v-select
      v-model="benchId"
      :items="benches"
      item-title="name"
      item-value="id"
      label="Bench"
      clearable
      :error-messages="submit.at('benchId')"
    />
    <template v-if="refills">
      <LeakAndWetFields v-model:leak="schools.leak" v-model:wet="schools.wet">
        <fieldset v-if="schools.leak === 'opened-joints'">
          <legend>Joints that are opened</legend>
          <label v-for="run in runs" :key="run.id"><input v-model="opened" type="checkbox" :value="run.id" /> {{ run.name }}</label>
        </fieldset>
      </LeakAndWetFields>
    </template>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn type="submit" size="x-large" :loading="submit.busy.value" :disabled="!ready">Put it on the bench</v-btn>
    <p v-if="!ready" class="quiet">Once the owner has agreed to the estimate.</p>
  </form>
</template>

<style scoped>
.start {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.start > .v-input {
  width: 100%;
}
p {
  margin: 0;
}
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  width: 100%;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
</style>
