<script setup lang="ts">
import { computed } from 'vue';
import { conditionWords, risenPercent, signedPercent } from '@core/edge/words/condition.js';
import { conditionOf } from '@core/physics/condition/series.js';
import { partName } from '@core/physics/diagnosis/sensors.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';

/** What a machine says by itself, beside its owner's words: each part that was read under load, in a line. and what it holds of lots that
 * fail early. Nothing where it was never read. */
const props = defineProps<{ systemId: string; earlyLots?: readonly string[] }>();
const { data: page } = usePage(
  (signal) => get<ConditionPage>(`/systems/${props.systemId}/condition`, signal),
  () => props.systemId,
);
const lines = computed(() => {
  const { parts = [], readings = [], marks = [], limits = null } = (page.value ?? {}) as Partial<ConditionPage>;
  if (!limits || readings.length === 0) return [];
  return conditionOf(parts, readings, marks, limits)
    .filter(({ points }) => points.length > 0)
    .map((condition) => ({
      part: condition.part,
      name: partName(parts, condition.part),
      risen: risenPercent(condition),
      isOver: condition.isOver,
      words: conditionWords(condition),
    }));
});
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
