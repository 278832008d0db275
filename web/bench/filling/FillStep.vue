<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { LEVEL_STAYS } from '@core/bench/runs/checkIds.js';
import { balanceWords } from '@core/edge/words/bench.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { fillFromNow, fillOrder } from '@core/bench/runs/fillOrder.js';
import { forecastOf } from '@core/physics/filling/forecast.js';
import { fillBalance, levelNow } from '@core/bench/runs/contents.js';
import { computed, onMounted, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { broughtMl, pouredMl, type RunState } from '@core/bench/runs/state.js';
import { hasReservoir } from '@core/machine/loop-file/marks.js';
import { watchFill } from '@core/physics/filling/fillWatch.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import { digitsIn, formatMl } from '@core/base/units/display.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import NumberField from '../../base/units/NumberField.vue';
import FillPlanDrawing from '../../machine/filling/FillPlanDrawing.vue';
import FillRange from '../../machine/filling/FillRange.vue';
import { useNow } from '../../base/units/now.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import ReservoirLimit from '../frame/ReservoirLimit.vue';
import FillOrderPanel from './FillOrder.vue';
import WeighPanel from './WeighPanel.vue';
import PourMix from './PourMix.vue';
import { usePour, WORTH_PUTTING_BACK_ML } from './usePour.js';

/** Pour by pour against the plan: "at most N mL now", what went in, what is to go. */
const props = defineProps<{ procedure: Procedure; state: RunState; plannedProductId: string | null; locked: boolean; liquid?: Liquid }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const coolants = useCoolants();
const productId = ref<string | null>(props.state.coolant?.productId ?? props.plannedProductId);
const lotId = ref<string | null>(props.state.coolant?.lotId ?? null);
const problem = ref<string | null>(null);
onMounted(() => void coolants.load().catch(() => undefined));

const pourField = usePour(props);
const { volume, levelMl, scaleWords, jugsMl, from } = pourField;
/** jugs of this loop that are worth putting back, each with what stands in it */
const jugs = computed(() =>
  (['drawn-off', 'own-jug'] as const)
    .filter((jug) => jugsMl.value[jug] >= WORTH_PUTTING_BACK_ML)
    .map((jug) => ({ jug, ml: jugsMl.value[jug] })),
);
const JUG_WORDS = {
  'drawn-off': 'what was drawn down in this run',
  'own-jug': 'its own jug: it came out of this loop, as old as it was',
};

const plan = computed(() => props.procedure.fillPlan);
const poured = computed(() => pouredMl(props.state));
const balance = computed(() => fillBalance(props.procedure, props.state));
/** drawn down in between: its pours tell no more of what the loop should take */
const wasDrawnDown = computed(() => props.state.outflows.some(({ kept }) => kept));
/** pours against the simulated fill; null where the loop cannot be simulated, or only what left is put back */
const watched = computed(() => {
  const fill = props.procedure.facts?.fill;
  if (!fill || plan.value.kind !== 'pulses' || wasDrawnDown.value) return null;
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
/** no mark tells what is inside: a scale does */
const isWithoutReservoir = computed(() => props.procedure.twin !== undefined && !hasReservoir(props.procedure.twin.loop));
const rowsScale = computed(() => Math.max(1, ...props.state.pours.map(({ value }) => value)));
/** how it likely ends, from what is inside now; null where heights are not known */
const forecast = computed(() => {
  const fill = fillFromNow(props.procedure, props.state);
  const { insideMl } = props.state.contents;
  return fill && insideMl !== null ? forecastOf(fill, Math.max(0, insideMl)) : null;
});
const product = computed(() => coolants.find(props.state.coolant?.productId ?? productId.value));
const lots = computed(() => coolants.find(productId.value)?.lots ?? []);
const now = useNow(500);
/** the next order by what is inside; null where heights are not known, so that only volumes tell */
const order = computed(() => fillOrder(props.procedure, props.state, now.value, levelMl.value));
/** what stands in the reservoir by the book or by the last look */
const standing = computed(() => levelNow(props.procedure, props.state, now.value));
/** mL in the reservoir at which the order of now ends; null: at the mark */
const endsAtMl = computed(() => {
  const next = order.value;
  if (next?.do === 'pour' || next?.do === 'pour-running') return next.upToMl;
  if (next?.do === 'draw-off') return next.downToMl;
  return next?.do === 'pump-on' ? (next.pour?.upToMl ?? null) : null;
});
/** mL of the next pour; null where nothing is poured now */
const pourNowMl = computed(() => {
  const next = order.value;
  if (next?.do === 'pour') return next.mostMl;
  return next?.do === 'pump-on' && next.pour ? next.pour.ml : null;
});
const volumesMl = computed(() => {
  if (plan.value.kind === 'gravity') return Math.max(0, balance.value.stillToPourMl);
  if (props.state.pours.length === 0) return plan.value.firstPourMl;
  return Math.max(0, Math.min(plan.value.workingMl, balance.value.stillToPourMl));
});

function choose(): void {
  const chosen = coolants.find(productId.value);
  if (!chosen) {
    problem.value = say('Choose the coolant that stands on the bench.');
    return;
  }
  problem.value = null;
  const lot = chosen.lots.find(({ id }) => id === lotId.value)?.lot ?? null;
  emit('send', { type: 'coolant', productId: chosen.id, productName: chosen.name, lotId: lot === null ? null : lotId.value, lot });
}

function pour(): void {
  const body = pourField.take();
  problem.value = body ? null : say('Enter what went in, in {unitName}, as the jug says.', { unitName: unitName('mL') });
  if (body) emit('send', body);
}
</script>

<template>
  <section class="fill">
    <template v-if="!state.coolant && !procedure.unit && !locked">
      <FrameOrder
        say="Say which coolant stands on the bench"
        how="Its bottle, and its lot by the label: what is inside is found again by it."
      />
      <FramePart at="act">
        <form class="coolant" @submit.prevent="choose">
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
          <p v-if="problem" role="alert" class="danger wide">{{ problem }}</p>
        </form>
      </FramePart>
    </template>
    <template v-else>
      <fieldset v-if="!locked && jugs.length" class="from">
        <legend class="quiet">Poured from</legend>
        <label
          ><input v-model="from" type="radio" :value="null" /> {{ state.coolant?.productName
          }}<template v-if="state.coolant?.lot">, lot {{ state.coolant.lot }}</template></label
        >
        <label v-for="each in jugs" :key="each.jug"
          ><input v-model="from" type="radio" :value="each.jug" /> {{ formatMl(each.ml) }}, {{ JUG_WORDS[each.jug] }}</label
        >
      </fieldset>
      <p v-else-if="procedure.unit" class="quiet">Distilled water, or the coolant that this loop will get</p>
      <p v-else class="quiet">
        {{ state.coolant?.productName }}<template v-if="state.coolant?.lot">, lot {{ state.coolant.lot }}</template>
      </p>
      <PourMix
        v-if="order && product && pourNowMl !== null && !(from && jugsMl[from] > 0)"
        :procedure="procedure"
        :state="state"
        :product="product"
        :pour-ml="pourNowMl"
      />
      <FillOrderPanel
        v-if="order"
        :order="order"
        :procedure="procedure"
        :state="state"
        :pour-field="pourField"
        :locked="locked"
        @send="emit('send', $event)"
      />
      <template v-else>
        <FrameFigure v-if="balance.verdict === 'filling'" :value="digitsIn('mL', volumesMl)" :unit="`${unitName('mL')} at most now`" />
        <FrameFigure
          v-else
          :value="digitsIn('mL', poured)"
          :unit="`${unitName('mL')} poured`"
          :danger="balance.verdict === 'more-than-planned'"
        />
        <FramePart v-if="!locked" at="act">
          <form class="entry" novalidate @submit.prevent="pour">
            <NumberField v-model="volume" large label="Poured just now" unit="mL" @enter="pour" />
            <v-btn type="submit" size="x-large">{{ state.pours.length === 0 ? 'First pour is in' : 'Pulse done, poured' }}</v-btn>
            <p v-if="scaleWords" class="quiet weighed" aria-live="polite">{{ scaleWords }}</p>
            <p v-if="problem" role="alert" class="danger weighed">{{ problem }}</p>
          </form>
        </FramePart>
      </template>
      <FramePart at="so-far">
        <p aria-live="polite">
          <template v-if="state.pours.length"
            >{{ formatMl(poured) }} poured in {{ state.pours.length }} {{ state.pours.length === 1 ? 'go' : 'goes' }}:
            {{ balanceWords(balance) }}.</template
          ><template v-else-if="procedure.facts?.gravity">The bottle gives what finds its way: note what it lost after each turn.</template
          ><template v-else>Spout into the reservoir, slowly, to the fill mark.</template>
        </p>
      </FramePart>
      <FramePart v-if="procedure.facts?.reservoir" at="limit">
        <ReservoirLimit
          :reservoir="procedure.facts.reservoir"
          :colour="product?.colour ?? null"
          :stands-ml="levelMl ?? standing?.ml ?? null"
          :measured="levelMl !== null || standing?.measured === true"
          :to-ml="endsAtMl"
          :off-at-ml="order?.do === 'pump-on' ? order.offAtMl : null"
        />
      </FramePart>
      <WeighPanel v-if="isWithoutReservoir" :procedure="procedure" :state="state" :locked="locked" @send="emit('send', $event)" />
      <p v-if="watched?.mismatch" role="alert" class="danger">{{ watched.mismatch.words }}</p>
      <FillRange v-if="forecast" :forecast="forecast" :colour="product?.colour ?? null" />
      <ol v-if="watched && state.pours.length" class="plain-list pours" aria-label="Pours so far">
        <li v-for="(row, index) in state.pours" :key="row.eventId">
          <span class="figures">{{ index + 1 }}</span>
          <span class="track" aria-hidden="true">
            <i :style="{ width: `${(100 * row.value) / rowsScale}%`, background: product?.colour ?? 'var(--ink-soft)' }" />
          </span>
          <span class="figures">{{ formatMl(row.value) }}</span>
        </li>
      </ol>
      <!-- where the fill was simulated, a plan from volumes alone would contradict it: columns fall back -->
      <FillPlanDrawing v-if="!watched && !wasDrawnDown" :plan="plan" :colour="product?.colour ?? null" :poured="poured" />
    </template>
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
  grid-template-columns: 24px 1fr 90px;
  gap: 12px;
  align-items: center;
  padding: 2px 0;
}
.from {
  display: grid;
  gap: 6px;
  border: 0;
  margin: 0;
  padding: 0;
}
.from label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 32px;
}
.from input {
  accent-color: var(--ink);
  width: 22px;
  height: 22px;
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
.weighed,
.wide {
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
