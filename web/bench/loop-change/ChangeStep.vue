<script setup lang="ts">
import { computed } from 'vue';
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { lacksOf, withoutPlace } from '@core/bench/runs/criteria.js';
import { stepOf, type Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { heldByBook } from '@core/bench/services/changedLoop.js';
import { formatMl } from '@core/base/units/display.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import LoopProfile from '../../machine/profile/LoopProfile.vue';
import PutAway from './PutAway.vue';
import CameOut from '../draining/CameOut.vue';

/** The loop becomes the one that was wanted: line by line, each part that comes out with its place, and then said once. */
const props = defineProps<{
  runId: string;
  procedure: Procedure;
  state: RunState;
  step: string;
  locked: boolean;
  /** entries that wait on this device: the server goes by what has reached it */
  undelivered: number;
}>();
const emit = defineEmits<{ send: [body: RunEventBody]; changed: [] }>();
const submit = useSubmit();

const change = computed(() => props.procedure.service?.change ?? null);
const step = computed(() => stepOf(props.procedure, props.step));
const marks = computed(() => props.state.steps.find(({ id }) => id === props.step)?.checks ?? {});
const open = computed(() => step.value?.checks.filter(({ id }) => (marks.value[id]?.mark ?? 'open') === 'open') ?? []);
const isRebuilt = computed(() => props.state.service.rebuilds.length > 0);
const away = computed(() => (step.value ? withoutPlace(props.procedure, step.value, props.state.service) : []));
/** mL that the book still has in a part that comes out: it runs when that is tilted */
const held = computed(() => {
  if (isRebuilt.value) return 0;
  return (change.value?.out ?? []).reduce((sum, { id }) => sum + (heldByBook(props.procedure, props.state, id) ?? 0), 0);
});
const isReady = computed(
  () =>
    !isRebuilt.value &&
    props.undelivered === 0 &&
    lacksOf(props.procedure, props.state, props.step, Date.now()).every(({ why }) => why === 'not-rebuilt'),
);
const order = computed(() => {
  if (isRebuilt.value) return say('The loop is the one that was wanted');
  return open.value[0]?.text ?? (away.value.length > 0 ? say('Say where what came out lies') : say('Look once more at the wanted drawing'));
});

async function rebuilt(): Promise<void> {
  const said = await submit.run((idempotencyKey) => call('POST', `/runs/${props.runId}/rebuilt`, { idempotencyKey }));
  if (said) emit('changed');
}
</script>

<template>
  <FrameOrder v-if="!locked" :say="order" :how="step?.lead ?? ''" />
  <FramePart at="work">
    <section v-if="!locked && !isRebuilt" class="rebuild">
      <LoopProfile v-if="change" :loop="change.wanted" :filled="new Map()" :height="120" label="The loop as it is wanted" />
      <p v-if="held >= 5" class="first">
        By the book about <b class="figures estimate">{{ formatMl(Math.round(held / 5) * 5) }}</b> stand in what comes out: tilt it over the
        jug and enter what came.
      </p>
      <CameOut :step="step?.id ?? ''" :expected-ml="held >= 5 ? held : null" @send="emit('send', $event)" />
      <PutAway v-if="away.length" :step="step?.id ?? ''" :parts="away" @send="emit('send', $event)" />
    </section>
  </FramePart>
  <FramePart v-if="!locked && isReady" at="act">
    <div class="said">
      <v-btn class="whole" size="x-large" :loading="submit.busy.value" @click="rebuilt">It is built as it was wanted</v-btn>
      <p class="quiet">From here on the loop, its joints and its refill are those of the wanted drawing; it cannot be taken back.</p>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    </div>
  </FramePart>
</template>

<style scoped>
.rebuild {
  display: grid;
  gap: 14px;
}
.rebuild p,
.said p {
  margin: 0;
}
.first {
  border-left: 5px solid var(--ink);
  padding-left: 12px;
}
.said {
  display: grid;
  gap: 6px;
}
.whole {
  min-height: 64px;
  font-size: 1.2rem;
}
</style>
