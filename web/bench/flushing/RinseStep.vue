<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { listed, say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ledgerOf } from '@core/bench/runs/contents.js';
import { openingIn, rinseStandOf, runsOverRim } from '@core/bench/runs/facts.js';
import { computed, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { runningSoak, type RunState } from '@core/bench/runs/state.js';
import { rinseForecast } from '@core/bench/runs/rinses.js';
import { CLARITY_WORDS, RINSE_LIQUIDS, RINSE_WORDS, type RinseLiquid } from '@core/machine/liquids/rinsing.js';
import { fillOrder } from '@core/bench/runs/fillOrder.js';
import { useNow } from '../../base/units/now.js';
import FillOrder from '../filling/FillOrder.vue';
import { usePour } from '../filling/usePour.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import SoakClock from './SoakClock.vue';
import CameOut from '../draining/CameOut.vue';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import RinseCurve from './RinseCurve.vue';
import WaterReading from './WaterReading.vue';

/** Rinse by rinse: what went in, what came out, how thin the old liquid is, what the water looks like. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const volume = ref<number | null>(null);
const liquid = ref<RinseLiquid | null>('distilled');
const problem = ref<string | null>(null);
const liquids = RINSE_LIQUIDS.map((value) => ({ value, title: say(RINSE_WORDS[value]) }));

const service = computed(() => props.procedure.service);
const ledger = computed(() => (service.value ? ledgerOf(service.value, props.state) : null));
const forecast = computed(() => (service.value ? rinseForecast(service.value, props.state) : null));
const shares = computed(() => forecast.value?.shares ?? []);
const coming = computed(() => forecast.value?.coming ?? []);
/** where it is let out again, and what gives air */
const outBy = computed(() => {
  const facts = service.value;
  const stand = facts && rinseStandOf(facts);
  if (!facts || !stand) return null;
  const air = listed(stand.airs.map((each) => openingIn(facts, each)));
  const loop = props.procedure.facts;
  if (loop && runsOverRim(loop, stand))
    return say('Pump off, scrap tube on {openingIn}, its end low in a jug, then air in at {air}.', {
      openingIn: openingIn(facts, stand.drain),
      air,
    });
  const drain = say('jug under {openingIn}', { openingIn: openingIn(facts, stand.drain) });
  if (air === '') return say('Pump off, then {drain}, as it stands.', { drain });
  return stand.airsFollow
    ? say('Pump off, {drain}; once it has stopped, air in at {air}.', { drain, air })
    : say('Pump off, air in at {air}, then {drain}.', { air, drain });
});
const lastWater = computed(() => props.state.service.waters.at(-1) ?? null);
const standsIn = computed(() => props.state.service.flows.findLast(({ way }) => way !== 'lost')?.way === 'in');
/** a cleaner went in last, or its clock still runs */
const cleanerStands = computed(
  () => runningSoak(props.state.service) !== null || (standsIn.value && props.state.service.rinses.at(-1)?.liquid === 'cleaner'),
);

const pourField = usePour(props);
const now = useNow(500);
/** the next order by what is inside, as in a fill; null where heights are not known */
const order = computed(() => fillOrder(props.procedure, props.state, now.value, pourField.levelMl.value));
/** hands are led order by order as in a fill; once nothing more goes in, what stands there comes out again */
const isOrdered = computed(
  () => !props.locked && order.value !== null && order.value.do !== 'finish' && runningSoak(props.state.service) === null,
);
const ownOrder = computed(() => (standsIn.value ? say('Pump off, and let it out again') : say('Fill it with rinse water')));
const rinseOf = (volumeMl: number): RunEventBody & { readonly toMark?: boolean } => ({
  type: 'rinse',
  step: 'rinse',
  liquid: liquid.value ?? 'distilled',
  volumeMl,
});

function pour(): void {
  if (volume.value === null || volume.value <= 0 || liquid.value === null) {
    problem.value = say('Enter what went in, in {unitName}.', { unitName: unitName('mL') });
    return;
  }
  problem.value = null;
  emit('send', { type: 'rinse', step: 'rinse', liquid: liquid.value, volumeMl: volume.value });
}
</script>

<template>
  <section v-if="service && ledger" class="rinse">
    <template v-if="!isOrdered">
      <FrameOrder v-if="!locked" :say="ownOrder" :how="standsIn ? outBy : null" />
      <template v-if="runningSoak(state.service) !== null" />
      <FrameFigure
        v-else-if="service.inside"
        :value="grouped(100 * ledger.shares.old, ledger.shares.old < 0.1 ? 1 : 0)"
        unit="% old liquid inside"
        estimate
      />
      <FrameFigure v-else :value="String(forecast?.rinses ?? 0)" unit="rinses" />
    </template>
    <FramePart v-else-if="service.inside" at="so-far">
      <p class="old">
        {{ grouped(100 * ledger.shares.old, ledger.shares.old < 0.1 ? 1 : 0) }} <span class="estimate">% old liquid inside</span>
      </p>
    </FramePart>
    <FramePart v-if="shares.length" at="curve">
      <RinseCurve :shares="shares" :coming="coming" :target="service.targetOldFraction" />
    </FramePart>
    <p class="quiet">
      {{
        coming.length > 0
          ? `About ${coming.length} more${shares.length > 1 ? ', each as large as the last' : ''}.`
          : state.service.rinses.length > 0
            ? 'Thin enough; the water decides.'
            : ''
      }}
      <template v-if="lastWater"
        >Last water: {{ CLARITY_WORDS[lastWater.clarity]
        }}<template v-if="lastWater.ph !== null">, pH {{ grouped(lastWater.ph, 1) }}</template
        >.</template
      >
      <span class="estimate">Taken as mixed through: let the pump run a minute.</span>
    </p>
    <template v-if="!locked">
      <FramePart v-if="!order && !standsIn" at="act">
        <form class="in" novalidate @submit.prevent="pour">
          <NumberField v-model="volume" large label="Rinse went in" unit="mL" @enter="pour" />
          <v-btn type="submit" size="x-large">It is in</v-btn>
          <ChoiceRow v-model="liquid" class="wide" label="Rinsed with" :options="liquids" />
          <p v-if="problem" role="alert" class="danger wide">{{ problem }}</p>
        </form>
      </FramePart>
      <FillOrder
        v-if="order && isOrdered"
        :order="order"
        :procedure="procedure"
        :state="state"
        :pour-field="pourField"
        :locked="locked"
        :entry-of="rinseOf"
        @send="emit('send', $event)"
      />
      <ChoiceRow v-if="order && !standsIn" v-model="liquid" label="Rinsed with" :options="liquids" />
      <SoakClock v-if="cleanerStands" step="rinse" :state="state" :locked="locked" @send="emit('send', $event)" />
      <p v-if="standsIn && isOrdered && outBy" class="quiet">{{ outBy }}</p>
      <FramePart v-if="standsIn && !isOrdered" at="act">
        <CameOut step="rinse" rinsing :expected-ml="forecast?.nextOutMl ?? null" @send="emit('send', $event)" />
      </FramePart>
      <CameOut v-else-if="standsIn" step="rinse" rinsing :expected-ml="forecast?.nextOutMl ?? null" @send="emit('send', $event)" />
      <WaterReading v-if="state.service.rinses.length" step="rinse" @send="emit('send', $event)" />
    </template>
  </section>
</template>

<style scoped>
.rinse {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.medium {
  font-size: 2.2rem;
  font-weight: 320;
}
.medium small {
  font-size: 1.1rem;
}
.in {
  display: grid;
  grid-template-columns: minmax(200px, 320px) auto;
  gap: 12px;
  justify-content: start;
}
.in .v-btn {
  height: 64px;
}
.wide {
  grid-column: 1 / -1;
}
</style>
