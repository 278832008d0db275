<script setup lang="ts">
import { computed } from 'vue';
import { fromMinor, toMinor } from '@core/workshop/prices/money.js';
import NumberField from '../../base/units/NumberField.vue';

/** A price, typed as people write it, kept in whole minor units. */
const value = defineModel<number | null>({ required: true });
const props = defineProps<{ label: string; currency: string; errors?: string[]; hint?: string }>();
const amount = computed({
  get: () => (value.value === null ? null : fromMinor(value.value, props.currency)),
  set: (typed) => (value.value = typed === null ? null : toMinor(typed, props.currency)),
});
</script>

<template>
  <NumberField v-model="amount" :label="label" :unit="currency" :errors="errors ?? []" :hint="hint ?? ''" />
</template>
