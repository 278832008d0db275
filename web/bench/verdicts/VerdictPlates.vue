<script setup lang="ts">
import type { Verdict } from '@core/bench/runs/verdicts.js';
import { plateWords } from '@core/edge/words/verdicts.js';

/** What a run can claim, a plate for each; one that was not earned is an empty frame with its reason. */
defineProps<{ verdicts: readonly Verdict[] }>();
</script>

<template>
  <ul v-if="verdicts.length" class="plain-list plates" aria-label="Verdicts">
    <li v-for="each in verdicts" :key="each.verdict" :class="each.earned ? 'earned' : 'empty'">
      <span class="word">{{ plateWords(each).word }}</span>
      <span class="visually-hidden">{{ each.earned ? ':' : ', not earned:' }}</span>
      <span class="under figures">{{ plateWords(each).under }}</span>
    </li>
  </ul>
</template>

<style scoped>
.plates {
  width: 100%;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
}
li {
  display: grid;
  gap: 2px;
  align-content: center;
  min-height: 92px;
  padding: 10px 14px;
  border: 3px solid var(--ink);
  border-radius: 3px;
}
.earned {
  background: var(--ink);
  color: var(--ground);
}
.empty {
  border-style: dashed;
  border-width: 2px;
}
.word {
  font-size: 1.5rem;
  font-weight: 640;
  line-height: 1.1;
}
.empty .word {
  font-weight: 420;
  color: var(--ink-soft);
}
.under {
  line-height: 1.25;
}
</style>
