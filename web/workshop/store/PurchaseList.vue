<script setup lang="ts">
import { PURCHASE_DAYS, type PurchaseLine } from '@core/workshop/store/purchase.js';

/** What to order, and for which machine. */
defineProps<{ lines: readonly PurchaseLine[] }>();
</script>

<template>
  <section>
    <h2>To order</h2>
    <p v-if="lines.length === 0" class="quiet">
      Nothing: the shelf covers the jobs of the coming {{ PURCHASE_DAYS }} days. Set a reorder mark on a thing and it shows here in time.
    </p>
    <ul v-else class="plain-list">
      <li v-for="line in lines" :key="line.what + line.why">
        <strong>{{ line.what }}</strong> <span class="figures">{{ line.order }}</span>
        <span class="quiet why">{{ line.why }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 16px;
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}
.why {
  grid-column: 1 / -1;
}
</style>
