<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import type { RunEventBody } from '@core/commissioning/events.js';
import type { Procedure } from '@core/commissioning/procedure.js';
import { pouredMl, type RunState } from '@core/commissioning/state.js';
import { balanceFill } from '@core/filling/fillPlan.js';
import { formatMl } from '@core/units/display.js';
import { useCoolants } from '../coolants/coolantStore.js';
import NumberField from '../units/NumberField.vue';
import FillPlanDrawing from './FillPlanDrawing.vue';

/** Pour by pour against the plan: "at most N mL now", what went in, what is to go. */
const props = defineProps<{ procedure: Procedure; state: RunState; plannedProductId: string | null; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const coolants = useCoolants();
const productId = ref<string | null>(props.state.coolant?.productId ?? props.plannedProductId);
const batchId = ref<string | null>(props.state.coolant?.batchId ?? null);
const volume = ref<number | null>(null);
const problem = ref<string | null>(null);
onMounted(() => void coolants.load());

const plan = computed(() => props.procedure.fillPlan);
const poured = computed(() => pouredMl(props.state));
const balance = computed(() => balanceFill(plan.value.total, poured.value));
const product = computed(() => coolants.find(props.state.coolant?.productId ?? productId.value));
const batches = computed(() => coolants.find(productId.value)?.batches ?? []);
const nextMl = computed(() => {
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
  const lot = chosen.batches.find(({ id }) => id === batchId.value)?.lot ?? null;
  emit('send', { type: 'coolant', productId: chosen.id, productName: chosen.name, batchId: lot === null ? null : batchId.value, lot });
}

function pour(): void {
  if (volume.value === null || volume.value <= 0) {
    problem.value = 'Enter what went in, in mL, as the jug says.';
    return;
  }
  problem.value = null;
  emit('send', { type: 'pour', volumeMl: volume.value });
  volume.value = null;
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
        @update:model-value="batchId = null"
      />
      <v-select
        v-model="batchId"
        :items="batches"
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
      <p v-if="balance.verdict === 'filling'" class="big-number">{{ Math.round(nextMl) }} <small>mL at most now</small></p>
      <p v-else class="big-number" :class="{ danger: balance.verdict === 'more-than-planned' }">
        {{ formatMl(poured) }} <small>poured</small>
      </p>
      <p aria-live="polite">
        <template v-if="state.pours.length"
          >{{ formatMl(poured) }} poured in {{ state.pours.length }} {{ state.pours.length === 1 ? 'go' : 'goes' }}:
          {{ balance.text }}.</template
        ><template v-else>Spout into the reservoir, slowly, to the fill mark.</template>
      </p>
      <form v-if="!locked" class="entry" novalidate @submit.prevent="pour">
        <NumberField v-model="volume" large label="Poured just now" unit="mL" @enter="pour" />
        <v-btn type="submit" size="x-large">{{ state.pours.length === 0 ? 'First pour is in' : 'Pulse done, poured' }}</v-btn>
      </form>
      <FillPlanDrawing :plan="plan" :colour="product?.colour ?? null" :poured="poured" />
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
