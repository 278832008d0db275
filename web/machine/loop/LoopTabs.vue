<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { isComputed, LOOP_TABS, type LoopTab } from './loopTabs.js';

/** The one page of a loop: what is looked at, always in the same place. */
const tab = defineModel<LoopTab>({ required: true });
defineProps<{ /** nothing can be computed before the loop is saved and drawn */ onlyLaidOut: boolean }>();
const KEYS = Object.keys(LOOP_TABS) as LoopTab[];
</script>

<template>
  <nav class="tabs no-print" aria-label="What to look at">
    <button
      v-for="key in KEYS"
      :key="key"
      type="button"
      :class="{ now: tab === key }"
      :aria-current="tab === key ? 'page' : undefined"
      :disabled="onlyLaidOut && isComputed(key)"
      :title="onlyLaidOut && isComputed(key) ? 'Once the loop is saved with its parts' : undefined"
      @click="tab = key"
    >
      {{ sayWord(LOOP_TABS[key]) }}
    </button>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.tabs button {
  min-height: 48px;
  padding: 0 13px;
  border-radius: 3px;
}
.tabs .now {
  background: var(--slab);
  color: var(--on-slab);
  font-weight: 600;
}
.tabs button:disabled {
  color: var(--ink-soft);
  cursor: default;
}
</style>
