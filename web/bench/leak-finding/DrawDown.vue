<script setup lang="ts">
import { drawDownTo } from '@core/bench/runs/drawDown.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { formatMl } from '@core/base/units/display.js';
import { computed, ref } from 'vue';
import NumberField from '../../base/units/NumberField.vue';

/** The level is brought below a joint so that it can be undone: which inlet, which valve, how much; what came is kept and goes back in. */
const props = defineProps<{ procedure: Procedure; state: RunState; place: string; nowMs: number }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();

/** mL below which nothing is drawn: a towel takes it */
const WORTH_DRAWING_ML = 20;
/** mL below which nothing is told of it */
const DROPS_ML = 5;
const plan = computed(() => drawDownTo(props.procedure, props.state, props.place, props.nowMs));
const wants = computed(() => plan.value !== null && plan.value.drawFirstMl >= WORTH_DRAWING_ML);
const labelOf = (port: string): string => props.procedure.facts?.ports.find(({ name }) => name === port)?.label ?? port;
const inletsShut = computed(() => (plan.value?.airs ?? []).filter((port) => !props.state.openPorts.has(port)));
/** the plan reckons with its own openings alone: an open cap would run over when the column comes down */
const shutFirst = computed(() =>
  [...props.state.openPorts].filter((port) => !(plan.value?.airs ?? []).includes(port) && port !== plan.value?.drawAt),
);
/** by hose while the column above still stands: the reservoir is low before it comes down */
const hoseFirst = computed(() =>
  inletsShut.value.length > 0 && (plan.value?.byHoseFirstMl ?? 0) >= WORTH_DRAWING_ML ? (plan.value?.byHoseFirstMl ?? 0) : 0,
);
const drawMl = computed(() => hoseFirst.value || (plan.value?.drawFirstMl ?? 0));
const drawAt = computed(() => plan.value?.drawAt ?? null);
const runsMl = computed(() => (plan.value?.joints ?? []).reduce((sum, { volumeMl }) => sum + volumeMl, 0) + (plan.value?.insideMl ?? 0));
const drawn = ref<number | null>(null);
const openOf = (port: string): boolean => props.state.openPorts.has(port);

function enter(): void {
  if (!drawn.value || drawn.value <= 0) return;
  emit('send', { type: 'outflow', way: 'drawn-off', volumeMl: drawn.value, kept: true, ...(drawAt.value ? { at: drawAt.value } : {}) });
  drawn.value = null;
}
const toggle = (port: string): void => emit('send', { type: 'port', port, open: !openOf(port) });
</script>

<template>
  <div v-if="plan" class="draw">
    <p v-if="!wants" class="now">
      The liquid stands below it: it can be undone over a towel<template v-if="runsMl >= DROPS_ML"
        >; about {{ formatMl(runsMl) }} come with it, a jug under both sides</template
      >.
    </p>
    <template v-else>
      <p v-if="shutFirst[0]" class="now">
        First
        <v-btn size="large" @click="toggle(shutFirst[0])">shut {{ labelOf(shutFirst[0]) }}</v-btn>
      </p>
      <p v-else-if="inletsShut[0] && !hoseFirst" class="now">
        Give it air first:
        <v-btn size="large" @click="toggle(inletsShut[0])">Open {{ labelOf(inletsShut[0]) }}</v-btn>
      </p>
      <p v-else-if="!hoseFirst && drawAt && !openOf(drawAt)" class="now">
        A clean jug under it, then
        <v-btn size="large" @click="toggle(drawAt)">open {{ labelOf(drawAt) }}</v-btn>
      </p>
      <p v-else class="now">
        Draw <strong>{{ formatMl(drawMl) }}</strong> {{ drawAt ? `at ${labelOf(drawAt)}` : 'out of the reservoir, by hose' }}, into a clean
        jug<template v-if="drawAt">; then shut it</template>.
      </p>
      <form
        v-if="!shutFirst[0] && (hoseFirst || (!inletsShut[0] && (!drawAt || openOf(drawAt))))"
        class="came"
        novalidate
        @submit.prevent="enter"
      >
        <NumberField v-model="drawn" label="Drawn down" unit="mL" />
        <v-btn type="submit" size="large" :disabled="!drawn">It came, kept clean</v-btn>
      </form>
    </template>
    <p v-if="!wants && drawAt === null && [...state.openPorts].length" class="quiet">
      Shut again once it is mended: {{ [...state.openPorts].map(labelOf).join(', ') }}.
    </p>
    <p v-if="wants" class="quiet estimate">By what is inside and the parts’ volumes; a towel and a jug stay under the joint.</p>
  </div>
</template>

<style scoped>
.draw {
  display: grid;
  gap: 10px;
}
.now {
  font-size: 1.15rem;
  margin: 0;
}
.came {
  display: grid;
  grid-template-columns: minmax(160px, 240px) auto;
  gap: 12px;
  justify-content: start;
  align-items: center;
}
p {
  margin: 0;
}
</style>
