<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { fillBalance } from '@core/bench/runs/contents.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { FillOrder } from '@core/bench/runs/fillOrder.js';
import { computed, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { formatMl } from '@core/base/units/display.js';
import { fillOrderWords } from '@core/edge/words/filling.js';
import { pourSdMl } from '@core/physics/measuring/errors.js';
import NumberField from '../../base/units/NumberField.vue';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import { shutEntries } from '../runs/shutEntries.js';
import LevelRead from './LevelRead.vue';
import OutflowForm from './OutflowForm.vue';
import type { Pour } from './usePour.js';

/** What the hands do next while a loop is filled, one order at a time, and the field that answers it. */
const props = defineProps<{
  order: FillOrder;
  procedure: Procedure;
  state: RunState;
  pourField: Pour;
  locked: boolean;
  /** entry of a pour that is no coolant: water of a rinse */
  entryOf?: (volumeMl: number) => RunEventBody;
}>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const { volume, scaleWords, levelMl } = props.pourField;
const drawn = ref<number | null>(null);
const problem = ref<string | null>(null);
/** a pour above what there was room for, before somebody says that it is right */
const doubtful = ref<{ readonly toMark: boolean; readonly overMl: number } | null>(null);

const words = computed(() => fillOrderWords(props.order, props.procedure));
const isRound = computed(() => props.state.contents.standing?.isRound === true);
const pumpOn = computed(() => props.state.pump?.on === true);
/** the pump runs, or did after the last pour: somebody may have seen liquid come back */
const mayReturn = computed(() => {
  const poured = [props.state.pours.at(-1)?.at, props.state.service.rinses.at(-1)?.at].map((at) => (at ? Date.parse(at) : 0));
  const stopped = props.state.pumpRuns.at(-1)?.stoppedAt ?? null;
  return !isRound.value && (pumpOn.value || (stopped !== null && Date.parse(stopped) > Math.max(...poured)));
});
const mostMl = computed(() => {
  const { order } = props;
  if (order.do === 'pour') return order.mostMl;
  return pumpOn.value || order.do === 'pour-running' ? null : 0;
});
/** with instruments the next order comes as soon as the level has risen: the pour behind it must still be entered */
const showsPour = computed(() => props.order.do === 'pour' || pumpOn.value || levelMl.value !== null || volume.value !== null);
/** the total is only told: the level decides */
const toGoMl = computed(() => {
  const { stillToPourMl, verdict } = fillBalance(props.procedure, props.state);
  return verdict === 'filling' ? stillToPourMl : null;
});

function pour(toMark: boolean): void {
  const ml = volume.value;
  if (ml === null || ml <= 0) {
    problem.value = say('Enter what went in, in {unitName}, as the jug says.', { unitName: unitName('mL') });
    return;
  }
  problem.value = null;
  // a level sensor has seen the pour already: what it says is room is what is left of it
  const overMl = mostMl.value === null || levelMl.value !== null ? 0 : ml - mostMl.value - 2 * pourSdMl(ml);
  if (overMl > 5 && doubtful.value === null) {
    doubtful.value = { toMark, overMl: ml - (mostMl.value ?? 0) };
    return;
  }
  const body = props.pourField.take();
  doubtful.value = null;
  if (!body) return;
  const entry = props.entryOf?.(ml) ?? body;
  emit('send', (pumpOn.value ? entry : { ...entry, toMark }) as RunEventBody);
}

function shut(): void {
  if (props.order.do !== 'shut') return;
  for (const body of shutEntries(props.order)) emit('send', body);
}

function drawOff(): void {
  if (drawn.value === null || drawn.value <= 0) return;
  emit('send', { type: 'outflow', way: 'drawn-off', volumeMl: drawn.value });
  drawn.value = null;
}
</script>

<template>
  <div
    class="fill-order"
    :data-order="order.do"
    :data-most="mostMl === null ? '' : Math.floor(mostMl)"
    :data-mark="Math.round(procedure.facts?.reservoir?.fillMarkMl ?? 0)"
  >
    <FrameOrder :say="words.order" :how="words.how" />
    <FrameFigure :value="words.big" :unit="words.small" :estimate="words.isEstimate" />
    <FramePart at="act">
      <form v-if="!locked && showsPour" class="entry" novalidate @submit.prevent="pour(true)">
        <NumberField v-model="volume" large label="Poured just now" unit="mL" @enter="pour(true)" />
        <template v-if="pumpOn"><v-btn type="submit" size="x-large">Poured while it runs</v-btn></template>
        <template v-else>
          <v-btn type="submit" size="x-large">Poured up to the mark</v-btn>
          <v-btn size="x-large" variant="outlined" @click="pour(false)">Poured, below the mark</v-btn>
        </template>
        <p v-if="scaleWords" class="quiet wide" aria-live="polite">{{ scaleWords }}</p>
      </form>
      <p v-if="doubtful" role="alert" class="doubt">
        {{ formatMl(doubtful.overMl) }} more than there was room for. If the pump ran in between, or more fitted than reckoned, enter it as
        it is; if the figure slipped, correct it.
        <v-btn size="large" variant="outlined" @click="pour(doubtful.toMark)">It went in</v-btn>
      </p>
      <v-btn v-if="!locked && mayReturn" size="large" variant="outlined" @click="emit('send', { type: 'returned' })"
        >Liquid comes back at the return</v-btn
      >
      <v-btn v-if="!locked && order.do === 'shut'" size="x-large" @click="shut">Shut</v-btn>
      <LevelRead
        v-if="!locked && order.do === 'read-level'"
        :mark-ml="procedure.facts?.reservoir?.fillMarkMl ?? null"
        @send="emit('send', $event)"
      />
      <form v-if="!locked && order.do === 'draw-off'" class="entry" novalidate @submit.prevent="drawOff">
        <NumberField v-model="drawn" large label="Drawn off" unit="mL" @enter="drawOff" />
        <v-btn type="submit" size="x-large" :disabled="!drawn">Drawn off</v-btn>
      </form>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    </FramePart>
    <p v-if="toGoMl !== null && order.do !== 'finish'" class="quiet">
      About {{ formatMl(toGoMl) }} to go by the parts’ volumes. <span class="estimate">The level decides.</span>
    </p>
    <OutflowForm v-if="!locked && state.pours.length > 0" @send="emit('send', $event)" />
  </div>
</template>

<style scoped>
.fill-order {
  display: grid;
  gap: 12px;
  justify-items: start;
}
p {
  margin: 0;
}
.entry {
  display: grid;
  grid-template-columns: minmax(180px, 240px) auto auto;
  gap: 12px;
  justify-content: start;
}
.entry .v-btn {
  height: 64px;
  padding-inline: 16px;
}
.wide {
  grid-column: 1 / -1;
}
.doubt {
  border-left: 5px solid var(--danger);
  padding-left: 12px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr;
  }
}
</style>
