<script setup lang="ts">
import { digitsIn, formatMl } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { unitVerdict } from '@core/bench/runs/verdicts.js';
import { outflowMl, pouredMl, type RunState } from '@core/bench/runs/state.js';
import { computed, ref } from 'vue';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import FrameFigure from '../frame/FrameFigure.vue';
import FramePart from '../frame/FramePart.vue';

/** The end of a unit's own test: what came out over the jug, what stays inside by the book, and what it was found to be. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const cameMl = ref<number | null>(null);
const tight = ref<'tight' | 'leaks' | null>(null);
const how = ref(say('ten minutes, scrap of tube, fresh towel'));
const problem = ref<string | null>(null);
const VERDICTS = [
  { value: 'tight' as const, title: say('Tight: the towel is dry') },
  { value: 'leaks' as const, title: say('It leaks') },
];

const leftMl = computed(() => Math.max(0, props.state.contents.insideMl ?? 0));
const isOut = computed(() => outflowMl(props.state) > 0);
const said = computed(() => unitVerdict(props.procedure, props.state));

function letOut(): void {
  if (cameMl.value === null || cameMl.value <= 0) {
    problem.value = say('Enter what stands in the jug, in {unitName}.', { unitName: unitName('mL') });
    return;
  }
  problem.value = null;
  emit('send', { type: 'outflow', way: 'drawn-off', volumeMl: cameMl.value });
  cameMl.value = null;
}
function judge(): void {
  const { unit } = props.procedure;
  if (!unit || tight.value === null || how.value.trim().length < 3) {
    problem.value = say('Say whether it is tight, and how it was tested.');
    return;
  }
  problem.value = null;
  const found = { tight: tight.value === 'tight', how: how.value.trim() };
  emit('send', { type: 'part-test', part: unit.pump, ...found, leftMl: Math.round(leftMl.value) });
  emit('send', { type: 'part-test', part: unit.reservoir, ...found, leftMl: 0 });
  tight.value = null;
}
</script>

<template>
  <FrameFigure :value="digitsIn('mL', leftMl)" :unit="isOut ? `${unitName('mL')} stay inside` : `${unitName('mL')} to let out`" />
  <FramePart v-if="!locked && !isOut" at="act">
    <form class="row" novalidate @submit.prevent="letOut">
      <NumberField v-model="cameMl" large label="In the jug" unit="mL" @enter="letOut" />
      <v-btn type="submit" size="x-large">It came out</v-btn>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    </form>
  </FramePart>
  <FramePart v-else-if="!locked && !said" at="act">
    <form class="judge" novalidate @submit.prevent="judge">
      <ChoiceRow v-model="tight" label="It is" :options="VERDICTS" />
      <v-text-field v-model="how" label="How it was tested" hide-details />
      <v-btn type="submit" size="x-large" :disabled="tight === null">That is what it was</v-btn>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    </form>
  </FramePart>
  <FramePart at="so-far">
    <p aria-live="polite">
      {{ formatMl(pouredMl(state)) }} poured, {{ formatMl(outflowMl(state)) }} out again<template v-if="said"
        >. {{ procedure.unit?.name }} {{ said.tight ? 'is tight' : 'leaks' }}, {{ said.how }}</template
      >.
    </p>
  </FramePart>
  <p v-if="said && !said.tight" class="danger">
    It leaks: sign off says so. The build begins with it in doubt, and nothing wet goes in before somebody found it tight.
  </p>
</template>

<style scoped>
.row,
.judge {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.judge .v-text-field {
  min-width: 260px;
  flex: 1 1 260px;
}
p {
  margin: 0;
}
</style>
