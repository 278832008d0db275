<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { weightOf, type FitVerdict } from '@core/machine/fit/verdict.js';
import { FIT_STATES, fitWords } from '@core/machine/fit/words.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';

/** Whether a part fits, in a word, and why not or what is still to be measured. */
defineProps<{ verdict: FitVerdict; loop: Pick<LoopFile, 'components'> }>();
</script>

<template>
  <div class="fit" :class="verdict.state">
    <b>{{ sayWord(FIT_STATES[verdict.state]) }}</b>
    <ul v-if="verdict.reasons.length" class="plain-list">
      <li v-for="(reason, index) in verdict.reasons" :key="index" :class="{ quiet: weightOf(reason) !== 'against' }">
        {{ fitWords(loop, reason) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.fit {
  padding: 4px 0 4px 10px;
  border-left: 5px solid var(--ink);
}
.not-known {
  border-left-style: dotted;
}
.does-not {
  border-left-color: var(--danger);
}
.does-not > b {
  color: var(--danger);
}
</style>
