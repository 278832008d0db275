<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Due } from '@core/workshop/machines/answers.js';
import { reactive, watch } from 'vue';
import { addDays } from '@core/base/units/calendar.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ due: Due; today: string }>();
const emit = defineEmits<{ saved: [text: string] }>();
const submit = useSubmit();
const form = reactive({ until: '', reason: '', riskTold: false });

watch(open, (now) => {
  if (!now) return;
  const from = props.due.dueOn > props.today ? props.due.dueOn : props.today;
  Object.assign(form, { until: addDays(from, 30), reason: '', riskTold: false });
  submit.clear();
});

async function save(): Promise<void> {
  const saved = await submit.run(() =>
    call('PUT', `/due-items/${props.due.id}/postpone`, { body: { ...form, version: props.due.version } }),
  );
  if (!saved) return;
  open.value = false;
  emit('saved', say('Put off; it stays open and comes back on its new date.'));
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="The owner puts it off"
    button="Put off"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="520"
    @submit="save"
  >
    <p class="quiet">Temperatures look fine until particles choke the fins. Say so, and write down that you did.</p>
    <DayField v-model="form.until" label="Until" :errors="submit.at('until')" />
    <v-textarea v-model="form.reason" label="In the owner's words" :error-messages="submit.at('reason')" />
    <v-checkbox v-model="form.riskTold" label="The risk was told" :error-messages="submit.at('riskTold')" />
  </FormDialog>
</template>
