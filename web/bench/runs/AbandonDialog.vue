<script setup lang="ts">
import { asSentence, say } from '@core/base/words/say.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { checksBeforeWaiting, pumpHindersLeaving } from '@core/bench/runs/waiting.js';
import { whyWords } from '@core/edge/words/bench.js';
import { standCheckWords } from '@core/edge/words/waiting.js';
import { computed } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ReasonDialog from '../../base/look/ReasonDialog.vue';

const open = defineModel<boolean>({ required: true });
/** A practice run stands on no bench: nothing is left behind. */
const props = defineProps<{ runId: string; practice: boolean; procedure: Procedure; state: RunState }>();
const emit = defineEmits<{ left: [] }>();
const submit = useSubmit();
const after = say('The log stays, but nothing is signed off and no date is set.');
const legend = say('Before anybody walks away');

const musts = computed(() =>
  props.practice
    ? []
    : checksBeforeWaiting(props.state).map((check) => ({ id: check.check, text: standCheckWords(props.procedure, check) })),
);
const hindered = computed(() => {
  const found = props.practice ? null : pumpHindersLeaving(props.state);
  return found && asSentence(whyWords(props.procedure, found));
});

async function leave(reason: string): Promise<void> {
  if (hindered.value) return;
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
    :warning="hindered ?? after"
    :problem="submit.problem.value"
    :musts="musts"
    :legend="legend"
    @say="leave"
  />
</template>
