<script setup lang="ts">
import { capital, say, sayWord } from '@core/base/words/say.js';
import { computed, onMounted, reactive, ref } from 'vue';
import { changesLoop, JOB_KIND_KEYS, JOB_KINDS, type JobKind } from '@core/workshop/job-kinds/kinds.js';
import { CONSENT_WAY_KEYS, CONSENT_WAYS, type ConsentWay } from '@core/workshop/jobs/schema.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { usualSchools, type JobSchools, type WorkshopSchools } from '@core/workshop/jobs/usualSchools.js';
import { call, get } from '../../base/http/api.js';
import LeakAndWetFields from '../../workshop/jobs/LeakAndWetFields.vue';
import { usePage } from '../../base/http/usePage.js';
import type { JobPage } from '@core/workshop/jobs/answers.js';
import { estimateWords } from '@core/edge/words/prices.js';
import { useSession } from '../../workshop/people/sessionStore.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import PartLines, { type TypedPart } from '../../workshop/prices/PartLines.vue';
import PriceLines from '../../workshop/prices/PriceLines.vue';
import { usePriceList } from '../../workshop/prices/priceStore.js';
import { usualEstimate } from '@core/workshop/jobs/usualEstimate.js';
import { estimateOf, priceOfForm } from '../../workshop/jobs/jobForm.js';
import FormDialog from '../../base/look/FormDialog.vue';

/** Findings made the job bigger: a new kind, a new estimate, and the owner’s renewed consent, before the hands go on. */
const props = defineProps<{ runId: string; jobId: string; kind: JobKind; file: LoopFile; coolantId: string | null }>();
const emit = defineEmits<{ close: []; changed: [] }>();
const submit = useSubmit();
const session = useSession();
// what changes the loop itself is drawn and booked first
const heavier = JOB_KIND_KEYS.filter((key) => key !== props.kind && !changesLoop(key)).map((value) => ({
  value,
  title: say(JOB_KINDS[value].label),
}));
const first: JobKind = props.kind === 'strip-clean' ? 'part-replacement' : 'strip-clean';
const form = reactive({
  kind: first as JobKind,
  reason: '',
  partsText: '',
  priceText: '',
  parts: [] as TypedPart[],
  ...usualEstimate(first, props.file),
  ...usualSchools(first),
});
const ours = ref<JobSchools>({});
onMounted(async () => {
  const shop = await get<{ workshop: { schools: WorkshopSchools } }>('/workshop').catch(() => null);
  ours.value = shop?.workshop.schools.byKind ?? {};
  Object.assign(form, usualSchools(form.kind, ours.value));
});
/** what is poured again, or was opened, is tested */
const isTested = computed(() => JOB_KINDS[form.kind].fill !== 'none');
const become = (kind: JobKind): void => void Object.assign(form, usualEstimate(kind, props.file), usualSchools(kind, ours.value));
const prices = usePriceList();
onMounted(() => void prices.load().catch(() => undefined));
const price = computed(() => priceOfForm(prices.list, form.kind, props.coolantId, form));
const how = ref<ConsentWay | null>('phone');
const ways = CONSENT_WAY_KEYS.map((value) => ({ value, title: say(CONSENT_WAYS[value]) }));

/** what the owner is asked about already, and what came of it */
const {
  data: job,
  load,
  take,
} = usePage(
  (signal) => get<JobPage>(`/jobs/${props.jobId}`, signal),
  () => props.jobId,
);
const asked = computed(() => job.value?.asked ?? null);
const body = () => ({
  kind: form.kind,
  reason: form.reason,
  ...(isTested.value ? { schools: { leak: form.leak, wet: form.wet } } : {}),
  estimate: estimateOf(form),
});
/** The owner reads it on the page and answers there; the run stays as it is until then. */
async function ask(): Promise<void> {
  const after = await submit.run((idempotencyKey) =>
    call<JobPage>('POST', `/runs/${props.runId}/asked-scope`, { body: body(), idempotencyKey }),
  );
  if (after) take(after);
}
async function takeBack(): Promise<void> {
  const after = await submit.run(() => call<JobPage>('DELETE', `/runs/${props.runId}/asked-scope`));
  if (after) take(after);
}
/** What was agreed on the page becomes the run's steps. */
async function follow(): Promise<void> {
  const { value: own } = job;
  if (!own?.asked) return;
  const { kind, found, schools } = own.asked;
  const { hours, partsText, coolantMl, priceText, parts } = own.estimate;
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/runs/${props.runId}/rescope`, {
      body: {
        kind,
        reason: found,
        ...(schools ? { schools } : {}),
        how: 'page',
        estimate: { hours, partsText, coolantMl, priceText, parts },
      },
      idempotencyKey,
    }),
  );
  if (!saved) return;
  emit('changed');
  emit('close');
}

async function change(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/runs/${props.runId}/rescope`, {
      body: { ...body(), how: how.value ?? 'phone' },
      idempotencyKey,
    }),
  );
  if (!saved) return;
  emit('changed');
  emit('close');
}
</script>

<template>
  <FormDialog
    v-if="asked && job"
    title="The owner is asked"
    :button="job.consented ? 'The owner agreed; change the steps' : 'Look again'"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    @submit="job.consented ? follow() : load()"
    @close="emit('close')"
  >
    <p>
      <strong>{{ capital(sayWord(JOB_KINDS[asked.kind].label)) }}</strong>: {{ asked.found }}
    </p>
    <p class="figures">{{ estimateWords(job.estimate) }}</p>
    <p role="status">
      {{
        job.consented
          ? 'Agreed on the owner’s page.'
          : 'Not answered yet. The run stays as it is: let it wait for its owner, and free the bench, where that takes longer.'
      }}
    </p>
    <template #actions>
      <v-btn v-if="!job.consented" variant="outlined" size="large" @click="takeBack">Ask no longer</v-btn>
    </template>
  </FormDialog>
  <FormDialog
    v-else
    title="Change the scope"
    button="The owner agreed; change the steps"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="680"
    @submit="change"
    @close="emit('close')"
  >
    <v-select v-model="form.kind" :items="heavier" label="It becomes" @update:model-value="become" />
    <LeakAndWetFields v-if="isTested" v-model:leak="form.leak" v-model:wet="form.wet" />
    <v-text-field
      v-model="form.reason"
      label="What was found"
      placeholder="flakes in the first jug"
      :error-messages="submit.at('reason')"
    />
    <div class="pair">
      <NumberField v-model="form.hours" label="Attended hours in all" unit="h" :errors="submit.at('estimate.hours')" />
      <NumberField v-model="form.coolantMl" label="Coolant" unit="mL" :errors="submit.at('estimate.coolantMl')" />
    </div>
    <PartLines v-model="form.parts" :at="submit.at" />
    <PriceLines v-if="price" :priced="price" title="What it comes to" />
    <v-text-field v-model="form.priceText" label="Price told otherwise" />
    <ChoiceRow v-model="how" label="Owner agreed" :options="ways" />
    <template #actions>
      <v-btn v-if="session.account?.doorOpen" variant="outlined" size="large" :disabled="submit.busy.value" @click="ask"
        >Ask on the owner’s page</v-btn
      >
    </template>
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
