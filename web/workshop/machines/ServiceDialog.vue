<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { LoopOfSystem } from '@core/workshop/machines/answers.js';
import { computed, reactive, watch } from 'vue';
import { type ServiceInput } from '@core/workshop/machines/schema.js';
import { JOB_KINDS, REFILLING, SERVICE_KIND_KEYS, type ServiceKind } from '@core/workshop/job-kinds/kinds.js';
import { useCoolants } from '../coolants/coolantStore.js';
import { CAUSES } from '@core/bench/inspection/grade.js';
import { CAUSE_KEYS, type CauseKey } from '@core/workshop/due-dates/facts.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import NumberField from '../../base/units/NumberField.vue';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';

/** Enters a service that was done; a refill starts the clocks again. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ systemId: string; loops: readonly LoopOfSystem[]; today: string }>();
const emit = defineEmits<{ saved: [text: string] }>();
const coolants = useCoolants();
const submit = useSubmit();
const form = reactive<{
  loopId: string;
  kind: ServiceKind;
  doneOn: string;
  productId: string | null;
  drainedMl: number | null;
  pouredMl: number | null;
  lotId: string | null;
  ended: CauseKey | null;
  note: string;
  finding: string;
}>(blank());

function blank() {
  const loop = props.loops[0];
  return {
    loopId: loop?.id ?? '',
    kind: 'drain-refill' as ServiceKind,
    doneOn: props.today,
    productId: loop?.coolantProductId ?? null,
    drainedMl: null,
    pouredMl: null,
    lotId: null,
    ended: null,
    note: '',
    finding: '',
  };
}

watch(
  open,
  (now) => {
    if (!now) return;
    void coolants.load();
    Object.assign(form, blank());
    submit.clear();
  },
  { immediate: true },
);

const refills = computed(() => REFILLING.includes(form.kind));
/** lots of the coolant that was poured, and that nobody knows */
const lots = computed(() => [
  { value: null, title: say('not known') },
  ...(coolants.find(form.productId)?.lots ?? []).map(({ id, lot }) => ({ value: id, title: lot })),
]);
watch(
  () => form.productId,
  () => (form.lotId = null),
);
const causes = [
  { value: null, title: say('still good, or not looked at') },
  ...CAUSE_KEYS.map((value) => ({ value, title: say(CAUSES[value]) })),
];
const kinds = SERVICE_KIND_KEYS.map((value) => ({ value, title: say(JOB_KINDS[value].label) }));

async function save(): Promise<void> {
  const body: ServiceInput = {
    ...form,
    productId: refills.value ? form.productId : null,
    drainedMl: refills.value ? form.drainedMl : null,
    pouredMl: refills.value ? form.pouredMl : null,
    lotId: refills.value ? form.lotId : null,
  };
  const saved = await submit.run((idempotencyKey) => call('POST', `/systems/${props.systemId}/services`, { body, idempotencyKey }));
  if (!saved) return;
  open.value = false;
  emit('saved', refills.value ? say('Service recorded; a settling check and the next date are open.') : say('Service recorded.'));
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="Record a service that was done"
    button="Record"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="720"
    @submit="save"
  >
    <v-select v-if="loops.length > 1" v-model="form.loopId" :items="[...loops]" item-title="name" item-value="id" label="Loop" />
    <div class="pair">
      <v-select v-model="form.kind" :items="kinds" label="What was done" :error-messages="submit.at('kind')" />
      <DayField v-model="form.doneOn" label="On" :max="today" :errors="submit.at('doneOn')" />
    </div>
    <template v-if="refills">
      <div class="pair">
        <v-select
          v-model="form.productId"
          :items="coolants.products"
          item-title="name"
          item-value="id"
          label="Coolant poured"
          :error-messages="submit.at('productId')"
        />
        <v-select v-model="form.lotId" :items="lots" label="Its lot" :error-messages="submit.at('lotId')" />
      </div>
      <div class="pair">
        <NumberField v-model="form.drainedMl" label="Came out" unit="mL" :errors="submit.at('drainedMl')" />
        <NumberField v-model="form.pouredMl" label="Went in" unit="mL" :errors="submit.at('pouredMl')" />
      </div>
    </template>
    <v-select v-model="form.ended" :items="causes" label="The coolant that came out" :error-messages="submit.at('ended')" />
    <v-textarea v-model="form.finding" label="Finding, if any" :error-messages="submit.at('finding')" />
    <v-textarea v-model="form.note" label="Note" :error-messages="submit.at('note')" />
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
@media (max-width: 600px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
