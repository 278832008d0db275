<script setup lang="ts">
import { say, sayWord, midSentence } from '@core/base/words/say.js';
import { tubesInOrder } from '@core/machine/catalogue/names.js';
import { findingsAtBench } from '@core/machine/build-checks/beforeBuilding.js';
import type { LoopFinding } from '@core/machine/build-checks/finding.js';
import { circuitCount } from '@core/machine/loop-file/circuits.js';
import { computed, onMounted, reactive, ref, watch } from 'vue';
import { DEFAULT_SCHOOLS, LEAK_SCHOOLS, WET_SCHOOLS, type Schools } from '@core/physics/leak-testing/schools.js';
import { cannotSimulate } from '@core/bench/simulated-bench/bench.js';
import type { PracticeOf } from '@core/bench/practice/schema.js';
import type { BuildKind } from '@core/workshop/job-kinds/kinds.js';
import { jointsOfPart, runSchools, usualSchools, type WorkshopSchools } from '@core/workshop/jobs/usualSchools.js';
import type { Scenario } from '@core/bench/simulated-bench/truth.js';
import { LEAK_LIMITS } from '@core/physics/leak-testing/defaults.js';
import { loopFacts } from '@core/bench/procedures/loopFacts.js';
import { cannotPrimeWords } from '@core/edge/words/filling.js';
import { shortOfHeadWords } from '@core/edge/words/intake.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { ApiError, call, get, wordsOf } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import PracticeChoice from '../practice/PracticeChoice.vue';
import BenchTops from '../benches/BenchTops.vue';
import NumberField from '../../base/units/NumberField.vue';
import DialogFocus from '../../base/look/DialogFocus.vue';

/** Which bench, and by which school: each choice says what it leaves open. */
const props = defineProps<{
  loopId: string;
  loopName: string;
  systemName: string;
  /** of a build that was booked */
  jobId?: string;
  /** what it was booked as; missing: a commissioning */
  kind?: BuildKind;
}>();
const emit = defineEmits<{ close: []; started: [runId: string] }>();
const submit = useSubmit();
const benches = ref<{ id: string; name: string; taken: string | null }[]>([]);
const benchId = ref<string | null>(null);
const schools = reactive<{ -readonly [K in keyof Schools]: Schools[K] }>({ ...DEFAULT_SCHOOLS });
const resolution = ref<number | null>(DEFAULT_SCHOOLS.gaugeResolutionKpa);
/** the choices show once the workshop's own schools are known, so that nothing chosen is overwritten */
const ready = ref(false);
/** runs of the loop, for service work that opened only some */
const runs = ref<{ id: string; name: string }[]>([]);
const opened = ref<string[]>([]);
const lostMl = ref<number | null>(null);
/** what this loop's own twin says against it, before the machine is on the bench */
const warnings = ref<string[]>([]);
/** more than one: nothing can be led yet */
const circuits = ref(1);
/** what the build check says against this loop: it comes again in the kit and before the loop is closed */
const findings = ref<LoopFinding[]>([]);
const coolants = useCoolants();
const practising = ref(false);
/** why a simulated bench cannot play this loop */
const cannot = ref<string | null>(null);
/** how it is tested is the workshop's own way in one line; who wants another one opens it */
const changing = ref(false);
const ours = ref<Schools | null>(null);
const isOurs = computed(
  () => ours.value !== null && (['leak', 'wet', 'limit'] as const).every((each) => ours.value?.[each] === schools[each]),
);
const schoolWords = computed(() => {
  const { label, dry, wet } = LEAK_SCHOOLS[schools.leak];
  return [
    label,
    ...(dry ? [say('air test to the {label} limit', { label: sayWord(LEAK_LIMITS[schools.limit].label) })] : []),
    ...(wet ? [say('{label} of the pump alone', { label: sayWord(WET_SCHOOLS[schools.wet].label) })] : []),
  ].join(', ');
});
/** a build has no joints that stayed shut */
const leakSchools = computed(
  () =>
    Object.fromEntries(
      Object.entries(LEAK_SCHOOLS).filter(([, { openedOnly }]) => props.jobId === undefined || !openedOnly),
    ) as typeof LEAK_SCHOOLS,
);
const scenario = ref<Scenario>('surprise');
/** the service that is practised; null: a commissioning */
const job = ref<PracticeOf | null>(null);
const loopFile = ref<LoopFile | null>(null);
/** how it is tested goes with what is practised */
watch([job, practising], ([of, isPractice]) => {
  Object.assign(schools, isPractice && of ? usualSchools(of.kind) : ours.value);
  if (of && loopFile.value) opened.value = jointsOfPart(loopFile.value, of.partId);
  if (schools.leak === 'opened-joints' && isPractice && opened.value.length === 0) schools.leak = 'wet-only';
});
const problem = ref<string | null>(null);

onMounted(() => load().catch((error: unknown) => (problem.value = wordsOf(error))));

async function load(): Promise<void> {
  const [shop, today, loop] = await Promise.all([
    get<{ workshop: { schools: WorkshopSchools }; benches: { id: string; name: string }[] }>('/workshop'),
    get<{ runs: { benchId: string | null; systemName: string }[] }>('/benches'),
    get<{ file: LoopFile; coolantProductId: string | null }>(`/loops/${props.loopId}`),
    coolants.load().catch(() => undefined),
  ]);
  ours.value = runSchools(props.kind ?? 'commissioning', shop.workshop.schools);
  Object.assign(schools, ours.value);
  resolution.value = schools.gaugeResolutionKpa;
  benches.value = shop.benches.map((bench) => ({
    ...bench,
    taken: today.runs.find((run) => run.benchId === bench.id && run.systemName !== props.systemName)?.systemName ?? null,
  }));
  benchId.value = benches.value.find(({ taken }) => taken === null)?.id ?? null;
  runs.value = tubesInOrder(loop.file);
  loopFile.value = loop.file;
  cannot.value = cannotSimulate(loop.file);
  circuits.value = circuitCount(loop.file);
  ready.value = true;
  // nothing is led before it is parted
  if (circuits.value > 1) return;
  findings.value = findingsAtBench(loop.file);
  const facts = loopFacts(loop.file, coolants.liquidOf(loop.coolantProductId));
  const { fill } = facts;
  warnings.value = [...(fill && !fill.primes ? [cannotPrimeWords(fill)] : []), ...shortOfHeadWords(facts)];
}

const ofService = computed(() => practising.value && job.value !== null);
const serviceWork = () =>
  LEAK_SCHOOLS[schools.leak].openedOnly ? { openedJoints: opened.value, lostMl: ofService.value ? null : lostMl.value } : {};

async function start(): Promise<void> {
  const booked = practising.value ? undefined : props.jobId;
  const made = await submit.run((idempotencyKey) =>
    call<{ run: { id: string } }>('POST', booked ? `/jobs/${booked}/start` : '/runs', {
      body: booked
        ? { benchId: benchId.value, schools: { ...schools, gaugeResolutionKpa: resolution.value }, openedJoints: [] }
        : {
            loopId: props.loopId,
            benchId: practising.value ? null : benchId.value,
            schools: { ...schools, gaugeResolutionKpa: resolution.value },
            ...serviceWork(),
            practice: practising.value ? { scenario: scenario.value, seed: null, job: job.value } : null,
          },
      idempotencyKey,
    }).catch((error: unknown) => {
      const runId = error instanceof ApiError ? error.details.runId : undefined;
      if (typeof runId === 'string') return { run: { id: runId } };
      throw error;
    }),
  );
  if (!made) return;
  // its instruments; a bench that cannot be simulated says so on the run's page
  if (practising.value)
    await call('POST', `/runs/${made.run.id}/simulated-bench`, { body: { scenario: scenario.value } }).catch(() => undefined);
  emit('started', made.run.id);
}
</script>

<template>
  <v-dialog :model-value="true" max-width="760" scrollable @update:model-value="emit('close')">
    <v-card class="pa-6">
      <DialogFocus />
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <div v-else-if="circuits > 1" class="stack">
        <h2>{{ circuits }} circuits in one drawing</h2>
        <p>
          Each is filled, tested, drained and dated for itself, so the bench takes them one by one. Open the loop and make
          {{ circuits }} loops of it.
        </p>
        <div class="row">
          <v-btn size="x-large" :to="`/loops/${loopId}`">To the loop</v-btn
          ><v-btn variant="text" size="large" @click="emit('close')">Close</v-btn>
        </div>
      </div>
      <form v-else-if="ready" class="stack" novalidate @submit.prevent="start">
        <h2>{{ practising ? 'Practise on' : 'Commission' }} {{ midSentence(loopName) }} of {{ systemName }}</h2>
        <BenchTops v-model="benchId" v-model:practising="practising" :benches="benches" :practice="{ cannot }" />
        <p v-if="submit.at('benchId').length" role="alert" class="danger">{{ submit.at('benchId').join(' ') }}</p>
        <p class="quiet">
          <template v-if="practising">Nothing here reaches the machine’s history, its stock or its dates.</template>
          <template v-else-if="benchId === null">No bench is free: it can be led all the same, and stands on none.</template>
          <template v-else>The machine stands on the bench; its record, fill and dates follow.</template>
        </p>
        <PracticeChoice v-if="practising && loopFile" v-model:job="job" v-model:scenario="scenario" :file="loopFile" />
        <ul v-if="findings.length" class="plain-list" aria-label="The build check says">
          <li v-for="each in findings" :key="each.text" class="warning" :class="{ stops: each.weight === 'stop' }">
            <strong v-if="each.weight === 'stop'">Do not build it so: </strong>{{ each.text }} {{ each.todo }}
          </li>
        </ul>
        <p v-for="warning in ofService ? [] : warnings" :key="warning" class="warning">{{ warning }}</p>
        <p class="way">
          {{ isOurs ? 'As the workshop does' : 'For this run' }}: <strong>{{ schoolWords }}</strong>
          <button type="button" class="link" :aria-expanded="changing" @click="changing = !changing">
            {{ changing ? 'fold' : 'change' }}
          </button>
        </p>
        <template v-if="changing || LEAK_SCHOOLS[schools.leak].openedOnly">
          <fieldset>
            <legend>How leaks are looked for</legend>
            <label v-for="(school, key) in leakSchools" :key="key" class="school"
              ><input v-model="schools.leak" type="radio" :value="key" />
              <span
                ><strong>{{ school.label }}</strong> <span class="quiet">{{ school.consequence }}</span></span
              ></label
            >
          </fieldset>
          <fieldset v-if="LEAK_SCHOOLS[schools.leak].openedOnly">
            <legend>What was opened</legend>
            <div class="opened">
              <label v-for="run in runs" :key="run.id"><input v-model="opened" type="checkbox" :value="run.id" /> {{ run.name }}</label>
            </div>
            <NumberField v-if="!ofService" v-model="lostMl" class="mt-2" label="Left the loop" unit="mL" :errors="submit.at('lostMl')" />
          </fieldset>
          <fieldset v-if="LEAK_SCHOOLS[schools.leak].dry">
            <legend>What the air test must exclude</legend>
            <label v-for="(limit, key) in LEAK_LIMITS" :key="key" class="school"
              ><input v-model="schools.limit" type="radio" :value="key" />
              <span
                ><strong>{{ limit.label }}</strong> <span class="quiet">{{ limit.meaning }}</span></span
              ></label
            >
            <NumberField
              v-model="resolution"
              class="mt-2"
              label="The gauge can be read to"
              unit="kPa"
              :errors="submit.at('schools.gaugeResolutionKpa')"
            />
          </fieldset>
          <fieldset v-if="LEAK_SCHOOLS[schools.leak].wet">
            <legend>How long only the pump runs</legend>
            <label v-for="(school, key) in WET_SCHOOLS" :key="key" class="school"
              ><input v-model="schools.wet" type="radio" :value="key" />
              <span
                ><strong>{{ school.label }}</strong> <span class="quiet">{{ school.consequence }}</span></span
              ></label
            >
          </fieldset>
        </template>
        <p class="quiet">
          Figures are estimates to be checked against the makers' instructions; local rules and safety data sheets come first.
        </p>
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <div class="row">
          <v-btn type="submit" size="x-large" :loading="submit.busy.value">{{
            practising ? 'Practise' : 'Put it on the bench'
          }}</v-btn><v-btn variant="text" size="large" @click="emit('close')">Close</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.way {
  margin: 0;
  padding: 10px 0;
  border-block: 1.5px solid var(--line);
}
.link {
  text-decoration: underline;
  min-height: 32px;
  padding: 0 8px;
}
.warning {
  margin: 0;
  padding: 8px 12px;
  border-left: 5px solid var(--danger);
  background: var(--danger-ground);
}
fieldset {
  border: none;
  padding: 0;
  margin: 0;
}
.opened {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 16px;
}
.opened label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.opened input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
legend {
  font-weight: 620;
  padding: 0 0 4px;
}
.school {
  display: grid;
  grid-template-columns: 28px 1fr;
  gap: 8px;
  align-items: center;
  min-height: 48px;
  border-top: 1px solid var(--line-soft);
  cursor: pointer;
}
.school input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
</style>
