<script setup lang="ts">
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** An address of nothing: what it may have meant can be looked for at once. */
const route = useRoute();
const router = useRouter();
// the last word of an address is what somebody most likely meant
const last = [route.params.path ?? ''].flat().at(-1) ?? '';
const query = ref(/[a-z]{3,}/i.test(last) ? last : '');
const look = (): void => void router.push({ path: '/search', query: { q: query.value } });
</script>

<template>
  <main class="page nowhere">
    <section class="stack">
      <h1>Nothing stands here</h1>
      <p>This address belongs to no machine, loop or run of your workshop. It may have been mistyped, or it is another workshop's.</p>
      <form class="row" @submit.prevent="look">
        <v-text-field v-model="query" label="A name, a lot, a word of a note" hide-details autofocus />
        <v-btn type="submit" size="large">Look for it</v-btn>
      </form>
      <p class="row">
        <router-link to="/today">What stands on the benches</router-link>
        <router-link to="/systems">All machines</router-link>
        <router-link to="/plan">The plan</router-link>
        <router-link to="/store">The store</router-link>
      </p>
    </section>
    <!-- a bench with nothing on it -->
    <svg viewBox="0 0 320 200" class="empty-bench" aria-hidden="true">
      <path d="M20 120h280M44 120v70M276 120v70M44 160h232" />
      <path class="missing" d="M110 118V40h100v78M110 60h100" />
    </svg>
  </main>
</template>

<style scoped>
.nowhere {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 44px;
  align-items: center;
  min-height: 70vh;
}
.nowhere .v-text-field {
  min-width: 220px;
  flex: 1;
}
.row {
  gap: 12px 24px;
}
.empty-bench {
  width: 100%;
  max-width: 520px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
}
.missing {
  stroke: var(--line);
  stroke-dasharray: 8 7;
}
@media (max-width: 900px) {
  .nowhere {
    grid-template-columns: 1fr;
    align-items: start;
  }
}
</style>
