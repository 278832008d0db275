<script setup lang="ts">
import type { RunAnswer } from '@core/bench/benches/answers.js';
import KeyCap from '../../base/keys/KeyCap.vue';
import PhotoButton from '../../workshop/photos/PhotoButton.vue';
import type { RunDialog } from './runDialog.js';
import { JOB_KINDS } from '@core/workshop/jobs/kinds.js';

/** Whose machine it is, on which bench, and what can be said at any time. */
defineProps<{ answer: RunAnswer; waits: boolean }>();
const emit = defineEmits<{ open: [dialog: RunDialog]; photo: [photoId: string] }>();
</script>

<template>
  <div>
    <header>
      <div>
        <h1>
          <router-link :to="`/systems/${answer.systemId}`">{{ answer.systemName }}</router-link>
        </h1>
        <p class="quiet">
          <strong v-if="answer.run.procedure.service">{{ JOB_KINDS[answer.run.procedure.service.kind].short }} · </strong
          >{{ answer.loopName }}, {{ answer.ownerName }}<template v-if="answer.benchName"> · {{ answer.benchName }}</template> · revision
          {{ answer.revisionNumber
          }}<template v-if="answer.run.procedure.templateNumber"> · procedure {{ answer.run.procedure.templateNumber }}</template>
        </p>
      </div>
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
            <v-list-item v-if="!waits" @click="emit('open', 'stays-open')">Something stays open</v-list-item>
            <v-list-item v-if="!waits && answer.run.procedure.facts" @click="emit('open', 'exchange')">A part was exchanged</v-list-item>
            <v-list-item v-if="answer.run.procedure.service" @click="emit('open', 'rescope')">Change scope</v-list-item>
            <v-list-item @click="emit('open', 'leave')">Off the bench without a record</v-list-item>
          </v-list>
        </v-menu>
      </div>
    </header>
    <p v-if="answer.practice?.debrief" class="closed">This practice is over. Its debrief stands below; its log stays.</p>
    <p v-else-if="answer.run.state === 'signed-off'" class="closed">
      This run is signed off. <router-link :to="`/runs/${answer.run.id}/record`">Open its record</router-link>
    </p>
    <p v-else-if="answer.run.state === 'abandoned'" class="closed">This run was taken off the bench without a record. Its log stays.</p>
  </div>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 20px;
}
/* the buttons keep their line: the names beside them may take two */
.row {
  flex: none;
  gap: 8px;
  max-width: 100%;
}
@media (max-width: 900px) {
  header {
    flex-wrap: wrap;
  }
}
h1 {
  font-size: 1.5rem;
}
h1 a {
  text-decoration: none;
}
p {
  margin: 0;
}
.closed {
  padding: 10px 14px;
  background: var(--sheet);
  border-left: 4px solid var(--ink);
  margin-top: 6px;
}
</style>
