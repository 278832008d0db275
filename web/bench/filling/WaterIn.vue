<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ledgerOf } from '@core/bench/runs/contents.js';
import { computed, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { diluteReadyMix } from '@core/machine/shop-sums/dose.js';
import { formatMl, grouped } from '@core/base/units/display.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import NumberField from '../../base/units/NumberField.vue';

/** Of a service: water for vapour, and what the water left inside does to the strength of what is poured. */
const props = defineProps<{ procedure: Procedure; state: RunState; plannedProductId: string | null; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const coolants = useCoolants();
const water = ref<number | null>(null);
const topUp = computed(() => props.procedure.service?.kind === 'top-up');
const ledger = computed(() => (props.procedure.service ? ledgerOf(props.procedure.service, props.state) : null));
const product = computed(() => coolants.find(props.state.coolant?.productId ?? props.plannedProductId));
const whole = computed(() => props.procedure.service?.inside?.volumeMl ?? props.procedure.volume.volumeMl);
const waterInside = computed(() => (ledger.value?.insideMl ?? 0) * (ledger.value?.shares.water ?? 0));
const dose = computed(() => {
  const own = product.value;
  if (!own || topUp.value || props.state.pours.length > 0 || waterInside.value < 1) return null;
  // a concentrate is mixed pour by pour: see PourMix
  if (own.form === 'concentrate') return null;
  const { finalFraction } = diluteReadyMix(whole.value, Math.min(whole.value, waterInside.value), 1, 0);
  const least = own.leastFraction;
  const weak = least !== null && finalFraction < least;
  return say('Ready-mix onto {formatMl} of water ends at {finalFraction} % of its strength{say}.', {
    formatMl: formatMl(waterInside.value),
    finalFraction: Math.round(100 * finalFraction),
    say: weak ? say(': below the {least} % of its sheet, drain more first', { least: Math.round(100 * least) }) : '',
  });
});

function enter(): void {
  if (water.value === null || water.value <= 0) return;
  emit('send', { type: 'rinse', step: 'fill', liquid: 'distilled', volumeMl: water.value });
  water.value = null;
}
</script>

<template>
  <section v-if="topUp || dose" class="water">
    <p v-if="dose" class="estimate">{{ dose }}</p>
    <template v-if="topUp">
      <p>Vapour leaves as water alone: replace it with distilled water. What leaked is replaced with coolant.</p>
      <form v-if="!locked" class="entry" novalidate @submit.prevent="enter">
        <NumberField v-model="water" large label="Distilled water in" unit="mL" @enter="enter" />
        <v-btn type="submit" size="x-large" :disabled="!water">Water is in</v-btn>
      </form>
      <p v-if="ledger && ledger.inMl > 0" class="quiet">
        {{ formatMl(ledger.inMl) }} topped up; by the book {{ grouped(100 * ledger.shares.water, 1) }} % of what is inside is this water.
      </p>
    </template>
  </section>
</template>

<style scoped>
.water {
  display: grid;
  gap: 10px;
}
p {
  margin: 0;
}
.entry {
  display: grid;
  grid-template-columns: minmax(200px, 320px) auto;
  gap: 12px;
  justify-content: start;
}
.entry .v-btn {
  height: 64px;
}
</style>
