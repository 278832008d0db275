<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { ImportedDates } from '@core/workshop/importing/answers.js';

/** How the due list would stand: over, soon, later, without a date; drawn to one scale. */
const props = defineProps<{ dates: ImportedDates }>();
const PARTS = { overdue: 'over', soon: 'due soon', later: 'later', none: 'no date yet' } as const;
const parts = computed(() =>
  (Object.keys(PARTS) as (keyof ImportedDates)[])
    .map((key) => ({ key, count: props.dates[key], words: say(PARTS[key]) }))
    .filter(({ count }) => count > 0),
);
</script>

<template>
  <div class="bar" role="img" :aria-label="parts.map(({ count, words }) => `${count} ${words}`).join(', ')">
    <div v-for="part in parts" :key="part.key" class="part" :class="part.key" :style="{ flexGrow: part.count }">
      <b class="figures">{{ part.count }}</b>
      <span>{{ part.words }}</span>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 4px;
  max-width: 860px;
}
.part {
  flex-basis: 84px;
  min-width: 0;
  border: 2px solid var(--ink);
  padding: 6px 10px;
  display: grid;
}
.part b {
  font-size: 1.7rem;
  line-height: 1.1;
}
.overdue {
  background: var(--ink);
  color: var(--sheet);
  clip-path: polygon(10px 0, 100% 0, 100% 100%, 10px 100%, 0 50%);
  padding-left: 18px;
}
.none {
  border-style: dashed;
}
@media (max-width: 600px) {
  .bar {
    flex-direction: column;
  }
}
</style>
