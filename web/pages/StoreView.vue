<script setup lang="ts">
import type { StoreAnswer, WasteAnswer } from '@core/workshop/store/answers.js';
import { computed } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { downloadTable, fileName } from '../base/files/download.js';
import WasteShelf from '../workshop/waste/WasteShelf.vue';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { usePriceList } from '../workshop/prices/priceStore.js';
import CoolantShelf from '../workshop/coolants/CoolantShelf.vue';
import KeptParts from '../workshop/store/KeptParts.vue';
import LotShelf from '../workshop/store/LotShelf.vue';
import PurchaseList from '../workshop/store/PurchaseList.vue';
import StoreShelf from '../workshop/store/StoreShelf.vue';
import { itemRow, keptRow, lotRow } from '../workshop/store/storeRows.js';

const coolants = useCoolants();
const prices = usePriceList();
const shelf = usePage((signal) => get<StoreAnswer>('/store', signal));
const waste = usePage((signal) => get<WasteAnswer>('/waste', signal));
const bottles = usePage(async () => {
  await Promise.all([coolants.load(), prices.load().catch(() => undefined)]);
  return true;
});
/** the shelves stand together: one that came later would push the next away from under a finger */
const stands = computed(() => [shelf, waste, bottles].every(({ settled }) => settled.value));
const problem = computed(() => [shelf, waste, bottles].map((each) => each.problem.value).find(Boolean) ?? null);
const answer = shelf.data;
const { load } = shelf;
const again = (): void => [shelf, waste, bottles].forEach((each) => void each.load());

/** The lists of the store as tables. Days as YYYY-MM-DD, volumes in mL, so that any table program sorts them. */
const lists = computed((): Readonly<Record<string, Record<string, string>[]>> => {
  const now = answer.value;
  if (!now) return {};
  return {
    'To order': now.purchase.map(({ what, order, why }) => ({ what, order, why })),
    Shelf: [...now.lots.map(lotRow), ...now.items.map(itemRow)],
    Parts: now.kept.map(keptRow),
  };
});
</script>

<template>
  <main class="page">
    <header class="spread mb-4">
      <h1>Store</h1>
      <div v-if="answer" class="row no-print">
        <v-btn variant="outlined" to="/labels">Labels</v-btn>
        <v-btn
          v-for="(rows, name) in lists"
          :key="name"
          variant="text"
          @click="downloadTable(rows, `${fileName(name, 'store')}-${answer.today}`)"
          >{{ name }} as a table</v-btn
        >
      </div>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }} <button type="button" @click="again">Try again</button></p>
    <div v-if="stands && answer" class="columns">
      <div class="stack">
        <CoolantShelf @changed="load" />
        <LotShelf :lots="answer.lots" @changed="load" />
        <StoreShelf :items="answer.items" @changed="load" />
      </div>
      <div class="stack">
        <PurchaseList :lines="answer.purchase" />
        <WasteShelf :today="answer.today" :containers="waste.data.value?.containers ?? []" @changed="waste.load" />
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
