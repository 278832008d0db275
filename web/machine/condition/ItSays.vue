<script setup lang="ts">
import { signedPercent } from '@core/edge/words/condition.js';
import type { SaidByPart } from './useSays.js';

/** What a machine says by itself, beside its owner's words: each part that was read under load, in a line. and what it holds of lots that
 * fail early. Nothing where it was never read. */
defineProps<{ systemId: string; lines: readonly SaidByPart[]; earlyLots?: readonly string[] }>();
const percent = (risen: number | null): string => (risen === null ? '–' : `${Math.round(risen) === 0 ? '±' : ''}${signedPercent(risen)} %`);
</script>

<template>
  <section v-if="lines.length || earlyLots?.length" class="says" aria-label="What it says by itself">
    <header class="spread">
      <h2>What it says by itself</h2>
      <router-link v-if="lines.length" :to="`/systems/${systemId}/condition`">Its condition</router-link>
    </header>
    <ul class="plain-list">
      <li v-for="line in lines" :key="line.part">
        <strong>{{ line.name }}</strong>
        <span class="figures">{{ percent(line.risen) }}</span>
        <span :class="{ danger: line.isOver }">{{ line.words }}</span>
      </li>
      <li v-for="lot in earlyLots" :key="lot" class="lot">
        <strong>{{ lot }}</strong>
        <span
          >fails earlier here than others: look at the liquid and its sample.
          <router-link to="/workshop/lives">Learned lives</router-link></span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.says li {
  display: grid;
  grid-template-columns: 110px 66px 1fr;
  gap: 12px;
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}
.says .lot {
  grid-template-columns: minmax(0, 190px) 1fr;
}
</style>
