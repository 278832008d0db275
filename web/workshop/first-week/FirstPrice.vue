<script setup lang="ts">
import type { Shop } from '@core/workshop/people/answers.js';
import { onMounted, ref } from 'vue';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import MoneyField from '../prices/MoneyField.vue';
import { usePriceList } from '../prices/priceStore.js';

/** What an hour costs; tax, currency and kinds with their own price stand under Workshop. */
const emit = defineEmits<{ done: [] }>();
const submit = useSubmit();
const prices = usePriceList();
const hourMinor = ref<number | null>(null);
onMounted(() => void prices.load().catch(() => undefined));
async function save(): Promise<void> {
  const saved = await submit.run(async () => {
    const { workshop } = await get<Shop>('/workshop');
    await call('PUT', '/workshop/rates', { body: { ...workshop.rates, hourMinor: hourMinor.value, version: workshop.version } });
    return true;
  });
  if (saved) emit('done');
}
</script>

<template>
  <form class="row" novalidate @submit.prevent="save">
    <MoneyField v-model="hourMinor" label="An hour of work" :currency="prices.currency" :errors="submit.at('hourMinor')" />
    <v-btn type="submit" size="large" :loading="submit.busy.value" :disabled="hourMinor === null">So much an hour</v-btn>
    <v-btn size="large" variant="outlined" to="/workshop/prices">Currency, tax, more</v-btn>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
  </form>
</template>

<style scoped>
.row > .v-input {
  flex: 1 1 180px;
}
</style>
