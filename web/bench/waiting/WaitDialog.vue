<script setup lang="ts">
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { checksBeforeWaiting, hindersWaiting, waitingNow } from '@core/bench/runs/waiting.js';
import { whyWords } from '@core/edge/words/bench.js';
import { asSentence, capital, say } from '@core/base/words/say.js';
import { standCheckWords } from '@core/edge/words/waiting.js';
import { WAIT_FOR, WAIT_FOR_KEYS, type WaitFor } from '@core/workshop/jobs/waitFor.js';
import { addDays } from '@core/base/units/calendar.js';
import { computed, reactive, ref, watch } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import FormDialog from '../../base/look/FormDialog.vue';
import { useSession } from '../../workshop/people/sessionStore.js';
import TickLines from '../../base/look/TickLines.vue';
import DayField from '../../base/units/DayField.vue';

/** A run is left to wait: for what, until when, where it lies, and what must be true before anybody walks away. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ runId: string; procedure: Procedure; state: RunState; nowMs: number; undelivered: number }>();
const emit = defineEmits<{ waits: [] }>();
const submit = useSubmit();
const session = useSession();

const already = computed(() => waitingNow(props.state));
const form = reactive<{ for: WaitFor; what: string; until: string; lies: string }>({ for: 'parts', what: '', until: '', lies: '' });
const seen = ref<string[]>([]);
let id = crypto.randomUUID();
watch(
  open,
  (now) => {
    if (!now) return;
    const { for: what = 'parts', what: text = '', until = '', lies = '' } = already.value ?? {};
    Object.assign(form, { for: what, what: text, until, lies });
    seen.value = [];
    id = crypto.randomUUID();
  },
  { immediate: true },
);
// overnight is until tomorrow
watch(
  () => form.for,
  (reason) => {
    if (reason === 'overnight' && !form.until) form.until = addDays(session.today, 1);
  },
);
const reasons = WAIT_FOR_KEYS.map((value) => ({ value, title: capital(say(WAIT_FOR[value])) }));
const LABELS: Record<WaitFor, string> = {
  parts: 'Which part',
  owner: 'What the owner must say',
  overnight: 'What comes next (may stay empty)',
  other: 'For what',
};
const checks = computed(() => (already.value ? [] : checksBeforeWaiting(props.state)));
const lines = computed(() => checks.value.map((check) => ({ id: check.check, text: standCheckWords(props.procedure, check) })));
const hindered = computed(() => {
  if (props.undelivered > 0) return say('Entries of this run are still on the device only: they must reach the server first.');
  const found = already.value ? null : hindersWaiting(props.procedure, props.state, props.nowMs);
  return found && asSentence(whyWords(props.procedure, found));
});

async function leave(): Promise<void> {
  if (hindered.value) return;
  const body = { id, ...form, what: form.what.trim(), lies: form.lies.trim(), seen: seen.value };
  const done = await submit.run(() => call('POST', `/runs/${props.runId}/wait`, { body }));
  if (!done) return;
  open.value = false;
  emit('waits');
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="already ? 'It waits on' : 'Let it wait, off the bench'"
    :button="already ? 'Write it down' : 'It waits; the bench is free'"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="720"
    @submit="leave"
  >
    <p v-if="hindered" role="alert" class="stop">{{ hindered }}</p>
    <p v-else-if="!already" class="quiet">
      What is inside, what is open and the step stay as they are. Today and the plan show it; temporary fixes and suspected lots are told at
      once.
    </p>
    <ChoiceRow v-model="form.for" :options="reasons" label="Waits for" />
    <v-text-field v-model="form.what" :label="LABELS[form.for]" :error-messages="submit.at('what')" />
    <div class="pair">
      <DayField v-model="form.until" label="Somebody looks again on" :errors="submit.at('until')" />
      <v-text-field
        v-model="form.lies"
        label="Where it lies, with what came off it"
        placeholder="shelf 3; screws in the blue tray"
        :error-messages="submit.at('lies')"
      />
    </div>
    <TickLines v-if="lines.length" v-model="seen" legend="Before anybody walks away" :lines="lines" />
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 220px 1fr;
  gap: 14px;
}
.stop {
  border-left: 6px solid var(--danger);
  padding: 6px 0 6px 12px;
  font-weight: 600;
  margin: 0;
}
@media (max-width: 640px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
