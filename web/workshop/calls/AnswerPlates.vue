<script setup lang="ts">
import type { Answer } from './callWords.js';

/** Due, comes in, ready, costs: each a large word and what stands behind it; dashed where nobody planned or measured it. */
defineProps<{ answers: readonly Answer[]; row?: boolean }>();
</script>

<template>
  <dl class="answer-plates" :class="{ four: row }">
    <div v-for="each in answers" :key="each.title" class="plate" :class="{ guess: each.isGuess }">
      <dt>{{ each.title }}</dt>
      <dd class="big figures">{{ each.big }}</dd>
      <dd class="small">{{ each.small }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.answer-plates {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin: 0;
}
.four {
  grid-template-columns: repeat(4, minmax(0, 1fr));
}
.plate {
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 8px 14px 10px;
  min-width: 0;
}
.guess {
  border-style: dashed;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.big {
  font-size: 2rem;
  line-height: 1.15;
}
.four .big {
  font-size: 1.6rem;
}
.small {
  overflow-wrap: anywhere;
}
.four .small {
  font-size: 0.92rem;
}
@media (max-width: 1000px) {
  .four {
    grid-template-columns: 1fr 1fr;
  }
}
@media (max-width: 600px) {
  .answer-plates,
  .four {
    grid-template-columns: 1fr;
  }
}
</style>
