<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunAnswer } from '@core/bench/benches/answers.js';
import KeyCap from '../../base/keys/KeyCap.vue';
import PhotoButton from '../../workshop/photos/PhotoButton.vue';
import type { RunState } from '@core/bench/runs/state.js';
import { computed } from 'vue';
import StepTicks from '../frame/StepTicks.vue';
import type { RunDialog } from './runDialog.js';
import { JOB_KINDS } from '@core/workshop/job-kinds/kinds.js';

/** Whose machine it is and on which bench, how far it is, and what can be said at any time. What only this device knows takes the steps' place. */
const props = defineProps<{
  answer: RunAnswer;
  waits: boolean;
  state: RunState;
  shown: string | null;
  /** entries that have not reached the server */
  undelivered: number;
  away: boolean;
}>();
const closed = computed(() => {
  const { run, practice } = props.answer;
  if (practice?.debrief) return say('This practice is over. Its debrief stands below; its log stays.');
  return run.state === 'abandoned' ? say('Taken off the bench without a record. Its log stays.') : null;
});
/** what is said of a loop is not said of a unit on its own */
const ofLoop = computed(() => !props.answer.run.procedure.unit);
const emit = defineEmits<{ open: [dialog: RunDialog]; photo: [photoId: string]; look: [step: string] }>();
</script>

<template>
  <header>
    <div class="whose">
      <h1>
        <router-link :to="`/systems/${answer.systemId}`">{{ answer.systemName }}</router-link>
      </h1>
      <p
        class="quiet"
        :title="`${answer.loopName}, revision ${answer.revisionNumber}${answer.run.procedure.templateNumber ? `, procedure ${answer.run.procedure.templateNumber}` : ''}`"
      >
        <strong v-if="answer.run.procedure.unit">out of its case: {{ answer.run.procedure.unit.name }} · </strong>
        <strong v-if="answer.run.procedure.service">{{ JOB_KINDS[answer.run.procedure.service.kind].short }} · </strong
        >{{ answer.loopName }}, {{ answer.ownerName }}<template v-if="answer.benchName"> · {{ answer.benchName }}</template>
      </p>
    </div>
    <p v-if="away && undelivered > 0" class="device" role="status">
      <strong class="figures">{{ undelivered }}</strong> {{ undelivered === 1 ? 'entry waits' : 'entries wait' }} on this device: the server
      is away, the run goes on
    </p>
    <p v-else-if="answer.run.state === 'signed-off' && !answer.practice" class="device">
      This run is signed off. <router-link :to="`/runs/${answer.run.id}/record`">Open its record</router-link>
    </p>
    <p v-else-if="closed" class="device">{{ closed }}</p>
    <StepTicks v-else class="ticks" :procedure="answer.run.procedure" :state="state" :shown="shown" @look="emit('look', $event)" />
    <div class="row no-print">
      <v-btn variant="outlined" size="large" @click="emit('open', 'note')">Note <KeyCap action="note" /></v-btn>
      <PhotoButton
        v-if="answer.run.state === 'active' && answer.run.jobId"
        :system-id="answer.systemId"
        :job-id="answer.run.jobId"
        :caption="answer.loopName"
        @taken="emit('photo', $event)"
      />
      <v-btn
        v-if="answer.run.state === 'active' && answer.run.procedure.facts"
        class="wrong"
        variant="outlined"
        size="large"
        @click="emit('open', 'trouble')"
        >Something is wrong <KeyCap action="trouble"
      /></v-btn>
      <v-menu v-if="answer.run.state === 'active'" location="bottom end">
        <template #activator="{ props: more }">
          <v-btn v-bind="more" variant="text" size="large">More</v-btn>
        </template>
        <v-list>
          <v-list-item v-if="!answer.practice && !waits" @click="emit('open', 'wait')">Let it wait, off the bench</v-list-item>
          <v-list-item v-if="!waits && ofLoop" @click="emit('open', 'missed')">Something was missing from the kit</v-list-item>
          <v-list-item v-if="!waits && ofLoop" @click="emit('open', 'stays-open')">Something stays open</v-list-item>
          <v-list-item v-if="!waits && ofLoop && answer.run.procedure.facts" @click="emit('open', 'exchange')"
            >A part was exchanged</v-list-item
          >
          <v-list-item v-if="!waits && ofLoop" @click="emit('open', 'coolant-read')">The coolant was measured</v-list-item>
          <v-list-item v-if="!waits && ofLoop" @click="emit('open', 'colour')">Colour beside the sample</v-list-item>
          <v-list-item v-if="!waits && ofLoop && answer.run.jobId && answer.run.procedure.facts" @click="emit('open', 'bypass')"
            >Leave a part out of the loop</v-list-item
          >
          <v-list-item v-if="answer.run.procedure.service" @click="emit('open', 'rescope')">Change scope</v-list-item>
          <v-list-item @click="emit('open', 'leave')">Off the bench without a record</v-list-item>
        </v-list>
      </v-menu>
    </div>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 20px;
  min-height: 48px;
}
.whose {
  flex: 0 1 auto;
  min-width: 0;
  max-width: 340px;
}
.whose p,
h1 {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h1 {
  font-size: 1.65rem;
}
h1 a {
  text-decoration: none;
}
.ticks,
.device {
  flex: 1 1 0;
}
.device {
  border-left: 5px solid var(--ink);
  background: var(--sheet);
  padding: 4px 12px;
}
.row {
  flex: none;
  gap: 8px;
}
.wrong {
  border-width: 2px;
  border-left: 6px solid var(--danger);
}
p {
  margin: 0;
}
@media (max-width: 1000px) {
  header {
    flex-wrap: wrap;
    gap: 4px 12px;
  }
  .whose {
    flex: 1 1 0;
    min-width: 180px;
  }
  .ticks,
  .device {
    order: 3;
    flex: 1 0 100%;
  }
  .row {
    flex: 0 1 auto;
    min-width: 0;
  }
}
</style>
