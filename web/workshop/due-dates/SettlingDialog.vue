<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Due } from '@core/workshop/machines/answers.js';
import { reactive, watch } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import NumberField from '../../base/units/NumberField.vue';
import FormDialog from '../../base/look/FormDialog.vue';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  due: Due;
  /** no mark shows a level: what went in to the brim says it */
  noReservoir?: boolean;
}>();
const emit = defineEmits<{ saved: [text: string] }>();
const submit = useSubmit();
const form = reactive<{ levelChangeMm: number | null; toppedUpMl: number | null; note: string }>({
  levelChangeMm: null,
  toppedUpMl: null,
  note: '',
});

watch(open, (now) => {
  if (!now) return;
  Object.assign(form, { levelChangeMm: null, toppedUpMl: null, note: '' });
  submit.clear();
});

async function save(outcome: 'settled' | 'not-settled'): Promise<void> {
  const saved = await submit.run(() =>
    call('PUT', `/due-items/${props.due.id}/close`, { body: { outcome, ...form, version: props.due.version } }),
  );
  if (!saved) return;
  open.value = false;
  emit(
    'saved',
    outcome === 'settled' ? say('Settled; the check is closed.') : say('Not settled: the check stays open and comes back in three days.'),
  );
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="noReservoir ? 'What it took since hand-over' : 'Level against its mark'"
    button="It has settled"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="520"
    @submit="save('settled')"
  >
    <p v-if="noReservoir" class="quiet">
      This loop has no reservoir, so no mark shows a level: cold, standing, the fill port at its top, distilled water in until it stands at
      the brim less its air cushion. A few millilitres are air that came home; more each time is vapour, or a leak.
    </p>
    <p v-else class="quiet">
      Compare at the same coolant temperature as at hand-over, pump running. A level that keeps falling is a leak, or vapour through the
      tube walls.
    </p>
    <NumberField v-if="noReservoir" v-model="form.toppedUpMl" label="Topped up" unit="mL" :errors="submit.at('toppedUpMl')" />
    <NumberField
      v-else
      v-model="form.levelChangeMm"
      label="Change since hand-over"
      unit="mm"
      hint="below the mark is negative"
      :errors="submit.at('levelChangeMm')"
    />
    <v-textarea v-model="form.note" label="Note: who looked, photo or visit" :error-messages="submit.at('note')" />
    <template #actions>
      <v-btn variant="outlined" size="large" :disabled="submit.busy.value" @click="save('not-settled')">Not settled yet</v-btn>
    </template>
  </FormDialog>
</template>
