<script setup lang="ts">
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
  props.aheadMs > 0 ? `Its clock is ${formatSpan(props.aheadMs / 1000)} ahead.` : 'Its clock can be set ahead.',
);

const act = (path: string, body: object): Promise<unknown> =>
  submit.run(async () => {
    await call<object>('POST', `/runs/${props.runId}/${path}`, { body });
    await props.reload();
  });
</script>

<template>
  <section class="practice no-print" aria-label="Practice">
    <p><strong>Practice.</strong> Nothing here reaches the machine’s history. {{ ahead }}</p>
    <div class="row">
      <span class="quiet">Let pass</span>
      <v-btn
        v-for="skip in skips"
        :key="skip.seconds"
        variant="outlined"
        :disabled="busy || !playing"
        @click="act('skip', { seconds: skip.seconds })"
        >{{ skip.label }}</v-btn
      >
      <v-btn v-if="!playing" :loading="busy" @click="act('simulated-bench', { scenario: 'surprise' })">Start the simulated bench</v-btn>
      <v-btn variant="flat" :loading="busy" @click="act('debrief', {})">End and debrief</v-btn>
    </div>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </section>
</template>

<style scoped>
.practice {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 24px;
  padding: 8px 14px;
  border: 1.5px dashed var(--ink);
}
p {
  margin: 0;
}
</style>
