<script setup lang="ts">
import { computed } from 'vue';
import { UNITS } from '@core/workshop/store/schema.js';
import type { PartLine } from '@core/workshop/prices/estimate.js';
import NumberField from '../../base/units/NumberField.vue';
import MoneyField from './MoneyField.vue';
import { usePriceList } from './priceStore.js';

/** Parts of an estimate: chosen from the store with their price, or written. */
export interface TypedPart extends Omit<PartLine, 'amount'> {
  amount: number | null;
}
const parts = defineModel<TypedPart[]>({ required: true });
defineProps<{ at: (path: string) => string[] }>();
const prices = usePriceList();
const choices = computed(() => prices.list.items.map(({ id, name }) => ({ value: id, title: name })));

const change = (index: number, to: Partial<TypedPart>): void => {
  parts.value = parts.value.map((each, at) => (at === index ? { ...each, ...to } : each));
};
/** a name that the store knows brings unit and price; any other word is a part of its own */
function name(index: number, said: unknown): void {
  const word = typeof said === 'string' ? said : ((said as { value?: string } | null)?.value ?? '');
  const item = prices.list.items.find(({ id, name: known }) => id === word || known === word);
  change(index, item ? { itemId: item.id, what: item.name, unit: item.unit, eachMinor: item.priceMinor } : { itemId: null, what: word });
}
const add = (): void => {
  parts.value = [...parts.value, { itemId: null, what: '', amount: 1, unit: 'pcs', eachMinor: null }];
};
const drop = (index: number): void => {
  parts.value = parts.value.filter((_, at) => at !== index);
};
</script>

<template>
  <fieldset class="part-lines">
    <legend>Parts</legend>
    <div v-for="(part, index) in parts" :key="index" class="line">
      <v-combobox
        :model-value="part.what"
        :items="choices"
        :return-object="false"
        label="What"
        :error-messages="at(`estimate.parts[${index}].what`)"
        @update:model-value="name(index, $event)"
      />
      <NumberField
        :model-value="part.amount"
        label="How much"
        :unit="part.unit"
        :errors="at(`estimate.parts[${index}].amount`)"
        @update:model-value="change(index, { amount: $event })"
      />
      <v-select
        v-if="part.itemId === null"
        :model-value="part.unit"
        :items="[...UNITS]"
        label="In"
        @update:model-value="change(index, { unit: $event })"
      />
      <MoneyField
        v-if="part.itemId === null && prices.reckons"
        :model-value="part.eachMinor"
        label="Price, if known"
        :currency="prices.currency"
        :errors="at(`estimate.parts[${index}].eachMinor`)"
        @update:model-value="change(index, { eachMinor: $event })"
      />
      <button type="button" class="drop" :aria-label="`Leave out ${part.what || 'this part'}`" @click="drop(index)">Leave out</button>
    </div>
    <v-btn variant="outlined" @click="add">{{ parts.length === 0 ? 'Name a part' : 'Another part' }}</v-btn>
  </fieldset>
</template>

<style scoped>
.part-lines {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  color: var(--ink-soft);
}
.line {
  display: grid;
  grid-template-columns: minmax(160px, 1.6fr) minmax(96px, 0.8fr) 88px minmax(110px, 1fr) auto;
  gap: 4px 10px;
  align-items: start;
}
.drop {
  grid-column: -2;
  min-height: 44px;
  text-decoration: underline;
}
@media (max-width: 620px) {
  .line {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
