<script setup lang="ts">
import type { StoreAnswer } from '@core/workshop/store/answers.js';
import { computed } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { downloadTable, fileName } from '../base/files/download.js';
import WasteShelf from '../workshop/waste/WasteShelf.vue';
import CoolantShelf from '../workshop/coolants/CoolantShelf.vue';
import KeptParts from '../workshop/store/KeptParts.vue';
import LotShelf from '../workshop/store/LotShelf.vue';
import PurchaseList from '../workshop/store/PurchaseList.vue';
import StoreShelf from '../workshop/store/StoreShelf.vue';
import { itemRow, keptRow, lotRow } from '../workshop/store/storeRows.js';

const { data: answer, problem, load } = usePage((signal) => get<StoreAnswer>('/store', signal));

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
    <p v-if="problem" role="alert" class="danger">{{ problem }} <button type="button" @click="load">Try again</button></p>
    <div v-if="answer" class="columns">
      <div class="stack">
        <CoolantShelf @changed="load" />
        <LotShelf :lots="answer.lots" @changed="load" />
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
