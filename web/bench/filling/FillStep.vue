<script setup lang="ts">
import { LEVEL_STAYS } from '@core/bench/runs/checkIds.js';
import { balanceWords } from '@core/edge/words/bench.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { AT_MARK_WITHIN_ML, fillBalance, roomToMark } from '@core/bench/runs/contents.js';
import { computed, onMounted, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { broughtMl, pouredMl, type RunState } from '@core/bench/runs/state.js';
import { watchFill } from '@core/physics/filling/fillWatch.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import { formatMl } from '@core/base/units/display.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import NumberField from '../../base/units/NumberField.vue';
import FillPlanDrawing from '../../machine/filling/FillPlanDrawing.vue';
import LevelBar from '../../machine/filling/LevelBar.vue';
import { usePour } from './usePour.js';

/** Pour by pour against the plan: "at most N mL now", what went in, what is to go. */
const props = defineProps<{ procedure: Procedure; state: RunState; plannedProductId: string | null; locked: boolean; liquid?: Liquid }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const coolants = useCoolants();
const productId = ref<string | null>(props.state.coolant?.productId ?? props.plannedProductId);
const lotId = ref<string | null>(props.state.coolant?.lotId ?? null);
const problem = ref<string | null>(null);
onMounted(() => void coolants.load().catch(() => undefined));

const pourField = usePour(props);
const { volume, levelMl, scaleWords } = pourField;

const plan = computed(() => props.procedure.fillPlan);
const poured = computed(() => pouredMl(props.state));
const balance = computed(() => fillBalance(props.procedure, props.state));
/** pours against the simulated fill; null where the loop cannot be simulated, or only what left is put back */
const watched = computed(() => {
  const fill = props.procedure.facts?.fill;
  if (!fill || plan.value.kind !== 'pulses') return null;
  return watchFill({
    passiveMl: fill.passiveMl,
    pulses: fill.pulses,
    totalMl: fill.totalMl,
    holds: plan.value.total,
    pours: props.state.pours.map(({ value }) => value),
    broughtMl: broughtMl(props.state),
    levelStays: props.state.steps.find(({ kind }) => kind === 'fill')?.checks[LEVEL_STAYS]?.mark === 'done',
  });
});
const rowsScale = computed(() =>
  Math.max(1, ...(watched.value?.rows ?? []).map(({ pouredMl: ml, plannedMl }) => Math.max(ml, plannedMl ?? 0))),
);
const product = computed(() => coolants.find(props.state.coolant?.productId ?? productId.value));
const lots = computed(() => coolants.find(productId.value)?.lots ?? []);
const runningMl = computed(() => (watched.value && watched.value.nextAtMostMl > 0.5 ? watched.value.whileRunningMl : null));
/** room up to the mark where the level is known: by its sensor while the pump stands, or read and not moved since */
const roomMl = computed(() => {
  const reservoir = props.procedure.facts?.reservoir;
  const byHand = roomToMark(props.procedure, props.state);
  if (!reservoir || levelMl.value === null || props.state.pump?.on === true) return byHand;
  return Math.max(0, reservoir.fillMarkMl - levelMl.value);
});
const nextMl = computed(() => (roomMl.value === null ? plannedMl.value : Math.min(plannedMl.value, roomMl.value)));
/** nothing more goes in as it stands: only a running pump, or a turn, makes room */
const isAtMark = computed(
  () =>
    balance.value.verdict === 'filling' &&
    runningMl.value === null &&
    props.state.pours.length > 0 &&
    roomMl.value !== null &&
    (roomMl.value < AT_MARK_WITHIN_ML || Math.round(nextMl.value) === 0),
);
const plannedMl = computed(() => {
  if (watched.value && watched.value.nextAtMostMl > 0.5) return watched.value.nextAtMostMl;
  if (plan.value.kind === 'gravity') return Math.max(0, balance.value.stillToPourMl);
  if (props.state.pours.length === 0) return plan.value.firstPourMl;
  return Math.max(0, Math.min(plan.value.workingMl, balance.value.stillToPourMl));
});

function choose(): void {
  const chosen = coolants.find(productId.value);
  if (!chosen) {
    problem.value = 'Choose the coolant that stands on the bench.';
    return;
  }
  problem.value = null;
  const lot = chosen.lots.find(({ id }) => id === lotId.value)?.lot ?? null;
  emit('send', { type: 'coolant', productId: chosen.id, productName: chosen.name, lotId: lot === null ? null : lotId.value, lot });
}

function pour(): void {
  const body = pourField.take();
  problem.value = body ? null : 'Enter what went in, in mL, as the jug says.';
  if (body) emit('send', body);
}
</script>

<template>
  <section class="fill">
    <form v-if="!state.coolant && !locked" class="coolant" @submit.prevent="choose">
      <v-select
        v-model="productId"
        :items="coolants.products"
        item-title="name"
        item-value="id"
        label="Coolant on the bench"
        @update:model-value="lotId = null"
      />
      <v-select
        v-model="lotId"
        :items="lots"
        item-title="lot"
        item-value="id"
        label="Lot"
        clearable
        no-data-text="No lot recorded; add one under Workshop"
      />
      <v-btn type="submit" size="x-large">This one</v-btn>
    </form>
    <template v-else>
      <p class="quiet">
        {{ state.coolant?.productName }}<template v-if="state.coolant?.lot">, lot {{ state.coolant.lot }}</template>
      </p>
      <p v-if="isAtMark" class="big-number">Full <small>to the mark now</small></p>
      <p v-else-if="balance.verdict === 'filling'" class="big-number">
        {{ Math.round(runningMl ?? nextMl) }} <small>{{ runningMl === null ? 'mL at most now' : 'mL while the pump runs' }}</small>
      </p>
      <p v-else class="big-number" :class="{ danger: balance.verdict === 'more-than-planned' }">
        {{ formatMl(poured) }} <small>poured</small>
      </p>
      <p v-if="isAtMark">
        More would run over as it stands: pump on, and pour what is missing while it runs and the level falls, never above the mark. Where
        the level stays, gas is left inside: go on with that as the reason; bleeding and turning let it out.
      </p>
      <p aria-live="polite">
        <template v-if="state.pours.length"
          >{{ formatMl(poured) }} poured in {{ state.pours.length }} {{ state.pours.length === 1 ? 'go' : 'goes' }}:
          {{ balanceWords(balance) }}.</template
        ><template v-else>Spout into the reservoir, slowly, to the fill mark.</template>
      </p>
      <p v-if="runningMl !== null && balance.verdict === 'filling'">
        Pump on, and pour as fast as it draws, until liquid comes back: stopped on the way, the whole column falls back and runs over.
      </p>
      <p v-if="watched?.mismatch" role="alert" class="danger">{{ watched.mismatch.words }}</p>
      <p v-else-if="watched && watched.pulsesLeft > 0 && state.pours.length" class="quiet">
        About {{ watched.pulsesLeft }} {{ watched.pulsesLeft === 1 ? 'pulse' : 'pulses' }} to go<template v-if="watched.nextRunS !== null"
          >, the next {{ watched.nextRunS.toFixed(1) }} s of pump<template v-if="watched.nextSpeed !== null">
            at {{ Math.round(100 * watched.nextSpeed) }} % speed</template
          ></template
        >. <span class="estimate">Simulated from this loop’s heights and curves.</span>
      </p>
      <LevelBar
        v-if="levelMl !== null && procedure.facts?.reservoir"
        :level-ml="levelMl"
        :reservoir="procedure.facts.reservoir"
        :colour="product?.colour ?? null"
      />
      <form v-if="!locked" class="entry" novalidate @submit.prevent="pour">
        <NumberField v-model="volume" large label="Poured just now" unit="mL" @enter="pour" />
        <v-btn type="submit" size="x-large">{{ state.pours.length === 0 ? 'First pour is in' : 'Pulse done, poured' }}</v-btn>
        <p v-if="scaleWords" class="quiet weighed" aria-live="polite">{{ scaleWords }}</p>
      </form>
      <ol v-if="watched && watched.rows.length" class="plain-list pours" aria-label="Pours against the plan">
        <li v-for="(row, index) in watched.rows" :key="index">
          <span class="figures">{{ index + 1 }}</span>
          <span class="track" aria-hidden="true">
            <i :style="{ width: `${(100 * row.pouredMl) / rowsScale}%`, background: product?.colour ?? 'var(--ink-soft)' }" />
            <b v-if="row.plannedMl !== null" :style="{ left: `${(100 * row.plannedMl) / rowsScale}%` }" />
          </span>
          <span class="figures"
            >{{ Math.round(row.pouredMl) }} mL
            <span class="quiet">{{ row.plannedMl === null ? 'not planned' : `planned ${Math.round(row.plannedMl)}` }}</span></span
          >
        </li>
      </ol>
      <!-- where the fill was simulated, a plan from volumes alone would contradict it: columns fall back -->
      <FillPlanDrawing v-if="!watched" :plan="plan" :colour="product?.colour ?? null" :poured="poured" />
    </template>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </section>
</template>

<style scoped>
.fill {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.pours li {
  display: grid;
  grid-template-columns: 24px 1fr 190px;
  gap: 12px;
  align-items: center;
  padding: 2px 0;
}
.track {
  position: relative;
  height: 16px;
  background: var(--well);
}
.track i {
  display: block;
  height: 100%;
  border: 1.5px solid var(--ink);
}
.track b {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 3px;
  background: var(--ink);
}
.coolant {
  display: grid;
  grid-template-columns: 1.4fr 1fr auto;
  gap: 12px;
}
.entry {
  display: grid;
  grid-template-columns: minmax(200px, 320px) auto;
  gap: 12px;
  justify-content: start;
}
.weighed {
  grid-column: 1 / -1;
}
.entry .v-btn {
  height: 64px;
}
@media (max-width: 700px) {
  .coolant,
  .entry {
    grid-template-columns: 1fr;
  }
}
</style>
