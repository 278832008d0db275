<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, onMounted, reactive, ref } from 'vue';
import { changesLoop, JOB_KIND_KEYS, JOB_KINDS, type JobKind } from '@core/workshop/jobs/kinds.js';
import { CONSENT_WAY_KEYS, CONSENT_WAYS, type ConsentWay } from '@core/workshop/jobs/schema.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { usualSchools, type JobSchools, type WorkshopSchools } from '@core/workshop/jobs/usualSchools.js';
import { call, get } from '../../base/http/api.js';
import LeakAndWetFields from '../../workshop/jobs/LeakAndWetFields.vue';
import { useSubmit } from '../../base/http/useSubmit.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import PartLines, { type TypedPart } from '../../workshop/prices/PartLines.vue';
import PriceLines from '../../workshop/prices/PriceLines.vue';
import { usePriceList } from '../../workshop/prices/priceStore.js';
import { estimateOf, priceOfForm, usualEstimate } from '../../workshop/jobs/jobForm.js';
import FormDialog from '../../base/look/FormDialog.vue';

/** Findings made the job bigger: a new kind, a new estimate, and the owner’s renewed consent, before the hands go on. */
const props = defineProps<{ runId: string; kind: JobKind; file: LoopFile; coolantId: string | null }>();
const emit = defineEmits<{ close: []; changed: [] }>();
const submit = useSubmit();
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

async function change(): Promise<void> {
  const { kind, reason, leak, wet } = form;
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/runs/${props.runId}/rescope`, {
      body: { kind, reason, ...(isTested.value ? { schools: { leak, wet } } : {}), how: how.value ?? 'phone', estimate: estimateOf(form) },
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
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
