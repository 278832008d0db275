<script setup lang="ts">
import NumberField from '../../base/units/NumberField.vue';
import OwnerDays from './OwnerDays.vue';
import { computed, onMounted } from 'vue';
import PartLines from '../prices/PartLines.vue';
import PriceLines from '../prices/PriceLines.vue';
import { usePriceList } from '../prices/priceStore.js';
import { priceOfForm, type JobForm } from './jobForm.js';
import { isBuild } from '@core/workshop/job-kinds/kinds.js';
import DayField from '../../base/units/DayField.vue';

/** Hours, parts and coolant as they are told to the owner. */
const form = defineModel<JobForm>({ required: true });
const props = defineProps<{ at: (path: string) => string[]; today: string; coolantId: string | null }>();
const prices = usePriceList();
onMounted(() => void prices.load().catch(() => undefined));
const price = computed(() => priceOfForm(prices.list, form.value.kind, props.coolantId, form.value));
</script>

<template>
  <section class="estimate-fields">
    <NumberField v-model="form.hours" label="Attended hours" unit="h" :errors="at('estimate.hours')" />
    <NumberField v-model="form.coolantMl" label="Coolant" unit="mL" :errors="at('estimate.coolantMl')" />
    <v-text-field
      v-model="form.partsText"
      label="Parts to have, in words"
      placeholder="as the owner named them"
      :error-messages="at('estimate.partsText')"
    />
    <v-text-field v-model="form.priceText" label="Price told otherwise" :error-messages="at('estimate.priceText')" />
    <PartLines v-model="form.parts" :at="at" class="wide" />
    <PriceLines v-if="price" :priced="price" title="What it comes to" class="wide" />
    <p v-else-if="!prices.reckons" class="wide quiet">
      Prices are reckoned here once the workshop says what an hour costs (Workshop, Prices).
    </p>
    <DayField v-model="form.neededBy" :label="isBuild(form.kind) ? 'Wanted by' : 'Needed again by'" :min="today" :errors="at('neededBy')" />
    <DayField v-model="form.dropOffOn" :label="isBuild(form.kind) ? 'Can begin from' : 'Can come in from'" :errors="at('dropOffOn')" />
    <DayField v-model="form.partsOn" label="Parts expected" :errors="at('partsOn')" />
    <OwnerDays v-model="form.windows" :today="today" :at="at" class="wide" />
    <v-text-field v-model="form.note" label="Note for the bench" :error-messages="at('note')" />
  </section>
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}
.estimate-fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  align-items: start;
}
@media (max-width: 620px) {
  .estimate-fields {
    grid-template-columns: 1fr;
  }
}
</style>
