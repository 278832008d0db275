<script lang="ts">
import { sayWord } from '@core/base/words/say.js';
import type { Fate } from '@core/physics/draining/picture.js';

/** A fill of the drawing and what it stands for. */
export interface FateWords {
  readonly fate: Fate;
  readonly words: string;
}
</script>

<script setup lang="ts">
/** What the fills of the loop profile mean. */
defineProps<{ colour: string | null; fates: readonly FateWords[] }>();
</script>

<template>
  <ul class="key quiet" :style="{ '--liquid': colour ?? 'var(--ink-soft)' }">
    <li v-for="each in fates" :key="each.fate"><i :class="each.fate" aria-hidden="true" />{{ sayWord(each.words) }}</li>
  </ul>
</template>

<style scoped>
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.92rem;
}
li {
  display: flex;
  align-items: center;
  gap: 7px;
}
i {
  width: 22px;
  height: 12px;
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  background: var(--glass);
}
.low,
.liquid {
  background: var(--liquid);
}
.held {
  background: repeating-linear-gradient(45deg, var(--liquid) 0 3px, var(--glass) 3px 6px);
}
.high {
  background:
    radial-gradient(circle, var(--liquid) 1.2px, transparent 1.4px) 0 0 / 5px 5px,
    color-mix(in srgb, var(--liquid) 28%, var(--glass));
}
</style>
