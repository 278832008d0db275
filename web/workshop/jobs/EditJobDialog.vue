<script setup lang="ts">
import { ABOUT_A_PART, BOOKED_KINDS, isBuild as isBuildKind, mayWant } from '@core/workshop/job-kinds/kinds.js';
import type { JobPage } from '@core/workshop/jobs/answers.js';
import { computed, reactive, watch } from 'vue';
import { shortName } from '@core/machine/catalogue/names.js';
import { usePriceList } from '../prices/priceStore.js';
import { usePage } from '../../base/http/usePage.js';
import { pourOf, type PourChoice } from '@core/workshop/jobs/pourChoice.js';
import PourFields from './PourFields.vue';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { besideAs, besideMinutes } from '@core/workshop/jobs/beside.js';
import BesideWorks from './BesideWorks.vue';
import EstimateFields from './EstimateFields.vue';
import IntakeFields from './IntakeFields.vue';
import { adviseByHistory } from '@core/workshop/jobs/historyAdvice.js';
import { RINSES } from '@core/workshop/jobs/usualEstimate.js';
import { daysOf, estimateOf, intakeOf, type JobForm } from './jobForm.js';
import ScopeLadder from './ScopeLadder.vue';
import FormDialog from '../../base/look/FormDialog.vue';

/** Changes a job that was not begun; a new kind or estimate asks for a new consent. */
const props = defineProps<{ job: JobPage }>();
const emit = defineEmits<{ close: []; saved: [] }>();
const submit = useSubmit();
const { intake, estimate } = props.job;
const form = reactive<JobForm>({
  ...intake,
  signs: [...intake.signs],
  ...estimate,
  parts: estimate.parts.map((each) => ({ ...each })),
  kind: props.job.kind,
  partId: props.job.partId,
  productId: props.job.productId,
  beside: [...props.job.beside],
  wanted: props.job.change?.number ?? null,
  neededBy: props.job.neededBy ?? '',
  partsOn: props.job.partsOn ?? '',
  dropOffOn: props.job.dropOffOn ?? '',
  windows: props.job.windows.map((each) => ({ ...each })),
  note: props.job.note,
});
// what goes along takes its time, and what is left out gives it back
watch(
  () => besideMinutes(besideAs(form.kind, form.beside)),
  (now, before) => {
    if (form.hours !== null) form.hours = Math.max(0, Number((form.hours + (now - before) / 60).toFixed(2)));
  },
);
const prices = usePriceList();
const { data: pours } = usePage((signal) => get<PourChoice>(`/loops/${props.job.loop.id}/pours`, signal));
const poured = computed(() => pourOf(pours.value, form.productId ?? props.job.loop.coolantProductId));
const advice = computed(() => adviseByHistory(form, props.job.history, poured.value?.verdict ?? null));
const isBuild = computed(() => isBuildKind(form.kind));
const needsPart = computed(() => !isBuildKind(form.kind) && ABOUT_A_PART.includes(form.kind));
/** another kind than the one that was booked becomes a change of the loop by its drawing */
const wantsDrawing = computed(() => form.kind === 'loop-change' && props.job.kind !== 'loop-change');
const parts = computed(() => props.job.loop.file.components.map((part) => ({ value: part.id, title: shortName(part) })));

async function save(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call('PUT', `/jobs/${props.job.id}`, {
      body: {
        kind: form.kind,
        partId: needsPart.value ? form.partId : null,
        wanted: mayWant(form.kind) ? form.wanted : null,
        productId: form.productId,
        beside: besideAs(form.kind, form.beside),
        intake: intakeOf(form),
        estimate: estimateOf(form),
        ...daysOf(form),
        note: form.note,
        version: props.job.version,
      },
      idempotencyKey,
    }),
  );
  if (!saved) return;
  emit('saved');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Change this job"
    button="Save"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="1100"
    @submit="save"
    @close="emit('close')"
  >
    <div class="columns">
      <IntakeFields
        :system-id="job.system.id"
        :build="isBuild"
        :model-value="form"
        :baseline-flow-lph="job.history.baselineFlowLph"
        :at="submit.at"
      />
      <div class="stack">
        <ScopeLadder v-if="!isBuildKind(form.kind)" v-model="form.kind" :advice="advice" :file="job.loop.file" />
        <p v-if="wantsDrawing" class="quiet">
          What the loop shall become is drawn and saved as wanted; book that from the drawing, and cancel this job.
        </p>
        <v-select
          v-if="needsPart"
          v-model="form.partId"
          :items="parts"
          label="Which part is changed"
          :error-messages="submit.at('partId')"
        />
        <PourFields
          v-if="pours && BOOKED_KINDS[form.kind].fill === 'anew'"
          v-model="form.productId"
          :choice="pours"
          :now-id="job.loop.coolantProductId"
          :today="job.today"
          :currency="prices.currency"
          :rinses="RINSES.includes(form.kind) || isBuild"
          @flush="form.kind = 'flush-refill'"
        />
        <BesideWorks v-model="form.beside" :kind="form.kind" :file="job.loop.file" />
        <EstimateFields :model-value="form" :at="submit.at" :today="job.today" :coolant-id="form.productId ?? job.loop.coolantProductId" />
      </div>
    </div>
  </FormDialog>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1fr 1.15fr;
  gap: 32px;
  align-items: start;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
