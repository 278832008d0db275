<script setup lang="ts">
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ReasonDialog from '../../base/look/ReasonDialog.vue';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ runId: string }>();
const emit = defineEmits<{ left: [] }>();
const submit = useSubmit();

async function leave(reason: string): Promise<void> {
  const done = await submit.run((idempotencyKey) => call('POST', `/runs/${props.runId}/abandon`, { body: { reason }, idempotencyKey }));
  if (!done) return;
  open.value = false;
  emit('left');
}
</script>

<template>
  <ReasonDialog
    v-model="open"
    title="Take it off the bench without a record"
    label="Why"
    button="Off the bench"
    :least="3"
    :warning="submit.problem.value ?? 'The log stays, but nothing is signed off and no date is set.'"
    @say="leave"
  />
</template>
