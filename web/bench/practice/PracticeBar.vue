<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import { formatSpan } from '@core/base/units/display.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';

/** Above a practice run: nothing of the owner's is touched, time can be set ahead, and the end brings the debrief. */
const props = defineProps<{
  runId: string;
  aheadMs: number;
  playing: boolean;
  /** reads the run again: until its clock is known here, nothing more is set ahead */
  reload: () => Promise<void>;
}>();
const submit = useSubmit();
const { busy, problem } = submit;
const skips = [
  { label: '1 min', seconds: 60 },
  { label: '10 min', seconds: 600 },
  { label: '1 h', seconds: 3600 },
  { label: '1 day', seconds: 86_400 },
];
const ahead = computed(() =>
  props.aheadMs > 0 ? say('Its clock is {formatSpan} ahead.', { formatSpan: formatSpan(props.aheadMs / 1000) }) : null,
);

const act = (path: string, body: object): Promise<unknown> =>
  submit.run(async () => {
    await call<object>('POST', `/runs/${props.runId}/${path}`, { body });
    await props.reload();
  });
</script>

<template>
  <section class="practice no-print" aria-label="Practice">
    <p><strong>Practice.</strong> No history is touched.</p>
    <v-btn variant="flat" :loading="busy" @click="act('debrief', {})">End and debrief</v-btn>
    <div v-if="playing" class="pass" role="group" aria-label="Let pass">
      <span class="quiet">Let pass</span>
      <v-btn
        v-for="skip in skips"
        :key="skip.seconds"
        variant="outlined"
        :disabled="busy"
        @click="act('skip', { seconds: skip.seconds })"
        >{{ skip.label }}</v-btn
      >
    </div>
    <v-btn v-else class="pass" :loading="busy" @click="act('simulated-bench', { scenario: 'surprise' })">Start the simulated bench</v-btn>
    <p v-if="ahead" class="quiet ahead">{{ ahead }}</p>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </section>
</template>

<style scoped>
.practice {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 12px;
  border: 1.5px dashed var(--ink);
}
p {
  margin: 0;
}
.pass,
.ahead,
.danger {
  grid-column: 1 / -1;
}
.pass {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.pass > .v-btn {
  min-width: 0;
  padding: 0 10px;
}
</style>
