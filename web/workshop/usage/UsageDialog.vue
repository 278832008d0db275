<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { reactive } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import NumberField from '../../base/units/NumberField.vue';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';

/** A reading of an hour meter. What a log says of hours comes in with the log, on the machine's condition. */
const props = defineProps<{ systemId: string; today: string }>();
const emit = defineEmits<{ close: []; saved: [text: string] }>();
const submit = useSubmit();
const form = reactive({
  source: 'meter',
  fromOn: null,
  on: props.today,
  hours: null as number | null,
  meanCoolantC: null as number | null,
  note: '',
});
async function save(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call<{ moved: unknown[] }>('POST', `/systems/${props.systemId}/usage`, { body: form, idempotencyKey }),
  );
  if (!saved) return;
  emit('saved', saved.moved.length > 0 ? say('Kept; its date moves.') : say('Kept; no date moves.'));
  emit('close');
}
</script>

<template>
  <FormDialog
    title="How long it ran, how warm"
    button="Keep it"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="600"
    @submit="save"
    @close="emit('close')"
  >
    <p class="quiet">Two readings at least a week apart make a rate. A count that fell is taken for a new meter.</p>
    <div class="pair">
      <DayField v-model="form.on" label="Read on" :errors="submit.at('on')" />
      <NumberField v-model="form.hours" label="The meter shows" unit="h" :errors="submit.at('hours')" />
      <NumberField v-model="form.meanCoolantC" label="Mean coolant, if known" unit="°C" :errors="submit.at('meanCoolantC')" />
    </div>
    <v-text-field v-model="form.note" label="Note" :error-messages="submit.at('note')" />
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
p {
  margin: 0;
}
</style>
