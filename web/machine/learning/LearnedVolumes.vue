<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { wordsOf } from '../../base/http/api.js';
import { useLearned } from './learnedStore.js';

/** Prior and learned volume of every catalogue part that signed-off fills hold, drawn on one scale. */
const learned = useLearned();
const problem = ref<string | null>(null);
onMounted(() => learned.load().catch((error: unknown) => (problem.value = wordsOf(error))));

const most = computed(() =>
  Math.max(1, ...learned.items.map(({ prior, learned: now }) => Math.max(prior.volumeMl + prior.sdMl, now.volumeMl + now.sdMl))),
);
const left = (ml: number): string => `${Math.max(0, (100 * ml) / most.value)}%`;
</script>

<template>
  <section class="mt-10">
    <h2>Volumes learned from {{ learned.fills }} signed-off fills</h2>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <p v-else-if="learned.items.length === 0" class="quiet mt-2">
      Nothing yet. Every commissioning that is signed off with what was poured narrows the volumes of its parts; the next plan begins with
      them.
    </p>
    <template v-else>
      <p class="quiet">
        Open bar: general estimate. Solid: learned, one standard deviation either way. New parts are added with the learned volume.
      </p>
      <ul class="plain-list rows">
        <li v-for="item in learned.items" :key="item.key">
          <span>{{ item.label }}</span>
          <span class="scale" aria-hidden="true">
            <i class="prior" :style="{ left: left(item.prior.volumeMl - item.prior.sdMl), width: left(2 * item.prior.sdMl) }" />
            <i class="now" :style="{ left: left(item.learned.volumeMl - item.learned.sdMl), width: left(2 * item.learned.sdMl) }" />
          </span>
          <span class="figures"
            ><b>{{ Math.round(item.learned.volumeMl) }} ± {{ item.learned.sdMl.toFixed(item.learned.sdMl < 10 ? 1 : 0) }} mL</b>
            <span class="quiet"> was {{ Math.round(item.prior.volumeMl) }} ± {{ Math.round(item.prior.sdMl) }}</span></span
          >
          <span class="quiet figures">{{ item.fills }} {{ item.fills === 1 ? 'fill' : 'fills' }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.rows {
  margin-top: 8px;
}
.rows li {
  display: grid;
  grid-template-columns: 250px 1fr 260px 70px;
  gap: 18px;
  align-items: center;
  padding: 7px 0;
  border-top: 1px solid var(--line-soft);
}
.scale {
  position: relative;
  height: 20px;
}
.scale i {
  position: absolute;
  min-width: 3px;
}
.prior {
  top: 2px;
  bottom: 2px;
  border: 1.5px solid var(--ink-soft);
}
.now {
  top: 6px;
  bottom: 6px;
  background: var(--ink);
}
@media (max-width: 900px) {
  .rows li {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
