<script setup lang="ts">
import { onMounted, ref } from 'vue';
import type { PurchaseLine } from '@core/store/purchase.js';
import { get, wordsOf } from '../http/api.js';
import WasteShelf from '../waste/WasteShelf.vue';
import KeptParts from './KeptParts.vue';
import LotShelf from './LotShelf.vue';
import PurchaseList from './PurchaseList.vue';
import StoreShelf from './StoreShelf.vue';
import type { KeptRow, LotRow, StoreRow } from './types.js';

/** What the workshop has: lots by their level, counted things against their reorder mark, parts with a place, waste by can. */
const answer = ref<{ today: string; items: StoreRow[]; batches: LotRow[]; kept: KeptRow[]; purchase: PurchaseLine[] } | null>(null);
const problem = ref<string | null>(null);

async function load(): Promise<void> {
  try {
    answer.value = await get('/store');
    problem.value = null;
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
onMounted(load);
</script>

<template>
  <main class="page">
    <h1 class="mb-4">Store</h1>
    <p v-if="problem" role="alert" class="danger">{{ problem }} <button type="button" @click="load">Try again</button></p>
    <div v-if="answer" class="columns">
      <div class="stack">
        <LotShelf :lots="answer.batches" @changed="load" />
        <StoreShelf :items="answer.items" @changed="load" />
      </div>
      <div class="stack">
        <PurchaseList :lines="answer.purchase" />
        <WasteShelf :today="answer.today" />
        <KeptParts :parts="answer.kept" :today="answer.today" @changed="load" />
      </div>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 48px;
}
.columns > .stack {
  gap: 34px;
  align-content: start;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
