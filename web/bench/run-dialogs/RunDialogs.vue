<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { AIR_OUT } from '@core/bench/runs/checkIds.js';
import { airInsideKpa } from '@core/bench/runs/dryTest.js';
import { checkText, stepOf, type Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { computed } from 'vue';
import ReasonDialog from '../../base/look/ReasonDialog.vue';
import LeftOpenDialog from '../left-open/LeftOpenDialog.vue';
import CoolantReadDialog from '../runs/CoolantReadDialog.vue';
import ColourDialog from '../../workshop/colour/ColourDialog.vue';
import BypassDialog from '../services/BypassDialog.vue';
import RescopeDialog from '../services/RescopeDialog.vue';
import SwapStep from '../services/SwapStep.vue';
import WaitDialog from '../waiting/WaitDialog.vue';
import AbandonDialog from '../runs/AbandonDialog.vue';
import type { RunDialog } from '../runs/runDialog.js';
import DialogFocus from '../../base/look/DialogFocus.vue';

/** What can be said of a run at any time, each in its own dialog; one is open at a time. */
const which = defineModel<RunDialog | null>({ required: true });
const props = defineProps<{
  runId: string;
  systemId: string;
  /** null: a practice run */
  jobId: string | null;
  procedure: Procedure;
  state: RunState;
  file: LoopFile;
  /** what the loop holds by its own page */
  coolantId: string | null;
  /** step that hands are at */
  step: string;
  nowMs: number;
  /** entries that have not reached the server */
  undelivered: number;
  /** what the step still lacks, in words */
  lacks: readonly string[];
  /** why the last entry was refused */
  problem: string | null;
}>();
const emit = defineEmits<{ send: [body: RunEventBody]; override: [reason: string]; changed: []; left: [] }>();

const is = (name: RunDialog) =>
  computed({
    get: () => which.value === name,
    set: (open: boolean) => {
      which.value = open ? name : null;
    },
  });
const noting = is('note');
const missing = is('missed');
const deviating = is('deviation');
const overriding = is('override');
const staying = is('stays-open');
const exchanging = is('exchange');
const waiting = is('wait');
const leaving = is('leave');

function say(body: RunEventBody): void {
  which.value = null;
  emit('send', body);
}
/** Air of the test that still stands inside: the step is not left before it is out. */
const airOut = computed(() => {
  const own = stepOf(props.procedure, props.step);
  return own?.kind === 'dry-test' && airInsideKpa(props.procedure, props.state) !== null
    ? [{ id: AIR_OUT, text: checkText(props.procedure, own.id, AIR_OUT) }]
    : [];
});
function passOver(reason: string): void {
  say({ type: 'deviation', step: props.step, reason, ...(airOut.value.length === 0 ? {} : { airOut: true }) });
}
function override(reason: string): void {
  which.value = null;
  emit('override', reason);
}
</script>

<template>
  <ReasonDialog
    v-model="noting"
    title="Note"
    label="What you saw or did"
    button="Write it down"
    :least="1"
    @say="say({ type: 'note', step: props.step, text: $event })"
  />
  <ReasonDialog
    v-model="missing"
    title="Missing from the kit"
    label="What you reached for"
    button="Ask for it next time"
    :least="2"
    @say="say({ type: 'missed', name: $event.slice(0, 120) })"
  />
  <ReasonDialog
    v-model="deviating"
    title="Go on although it is not done"
    label="Why, for the record"
    button="Go on"
    :least="3"
    :warning="lacks.join('; ')"
    :musts="airOut"
    @say="passOver"
  />
  <ReasonDialog
    v-model="overriding"
    title="Go on against the lock"
    label="Why it is safe here, for the record"
    button="Go on"
    :least="3"
    :warning="problem ?? ''"
    @say="override"
  />
  <RescopeDialog
    v-if="which === 'rescope' && procedure.service && jobId"
    :run-id="runId"
    :job-id="jobId"
    :kind="procedure.service.kind"
    :file="file"
    :coolant-id="coolantId"
    @close="which = null"
    @changed="emit('changed')"
  />
  <ColourDialog
    v-if="which === 'colour'"
    :system-id="systemId"
    :job-id="jobId"
    :dyes="[...(procedure.service?.old?.dyes ?? []), ...state.dyes]"
    @close="which = null"
    @read="say({ type: 'colour', ...$event })"
  />
  <CoolantReadDialog v-if="which === 'coolant-read'" :procedure="procedure" :state="state" @close="which = null" @send="say" />
  <BypassDialog
    v-if="which === 'bypass'"
    :run-id="runId"
    :procedure="procedure"
    :state="state"
    :file="file"
    :undelivered="undelivered"
    @close="which = null"
    @changed="emit('changed')"
  />
  <LeftOpenDialog v-model="staying" :procedure="procedure" @send="emit('send', $event)" />
  <v-dialog v-model="exchanging" max-width="760" scrollable>
    <v-card class="pa-6">
      <DialogFocus />
      <h2>A part was exchanged</h2>
      <p class="quiet">It makes a new revision of the loop; what stood on its bag is found again when a lot is suspected.</p>
      <SwapStep :procedure="procedure" :state="state" :step="step" :locked="false" @send="emit('send', $event)" />
      <div class="mt-4"><v-btn variant="text" size="large" @click="which = null">Close</v-btn></div>
    </v-card>
  </v-dialog>
  <WaitDialog
    v-model="waiting"
    :run-id="runId"
    :procedure="procedure"
    :state="state"
    :now-ms="nowMs"
    :undelivered="undelivered"
    @waits="emit('changed')"
  />
  <AbandonDialog v-model="leaving" :run-id="runId" :practice="jobId === null" :procedure="procedure" :state="state" @left="emit('left')" />
</template>
