<script setup lang="ts">
import { midSentence } from '@core/base/words/say.js';
import KeyCap from '../../base/keys/KeyCap.vue';

/**
 * What ends the step, or what is missing for it: one button that carries the act of now. As long as something is to be looked at it
 * ticks the next of it; a button that cannot be pressed is never shown.
 */
defineProps<{ title: string; lacks: readonly string[]; next: string | null }>();
const emit = defineEmits<{ done: []; tick: []; passOver: [] }>();
</script>

<template>
  <div class="foot">
    <v-btn v-if="lacks.length === 0" class="whole" size="x-large" @click="emit('done')"
      >Done: {{ midSentence(title) }} <KeyCap action="step-done"
    /></v-btn>
    <v-btn v-else-if="next" class="whole next" size="x-large" variant="outlined" @click="emit('tick')"
      ><span class="words">✓ {{ next }}</span> <KeyCap action="tick"
    /></v-btn>
    <p v-if="lacks.length" class="lacks">
      {{ lacks.join('; ') }}. <button type="button" class="link" @click="emit('passOver')">Go on with a reason</button>
    </p>
  </div>
</template>

<style scoped>
.foot {
  display: grid;
  gap: 6px;
}
.whole {
  min-height: 64px;
  height: auto;
  padding-block: 8px;
  font-size: 1.2rem;
}
.next :deep(.v-btn__content) {
  white-space: normal;
  text-align: left;
}
.words {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.link {
  text-decoration: underline;
}
.lacks {
  color: var(--ink-soft);
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
</style>
