<script setup lang="ts">
import { computed } from 'vue';
import FramePart from './FramePart.vue';

/** One imperative sentence, and under it how it is done. */
const props = defineProps<{ say: string; how?: string | null }>();
/** letters that fit a line at full size, and at the next */
const LINE = 44;
const LONG_LINE = 62;
const size = computed(() => (props.say.length <= LINE ? '' : props.say.length <= LONG_LINE ? 'long' : 'longer'));
</script>

<template>
  <FramePart at="order">
    <div class="own" aria-live="polite">
      <p class="say" :class="size">{{ say }}</p>
      <p v-if="how" class="how">{{ how }}</p>
    </div>
  </FramePart>
</template>

<style scoped>
.say {
  font-size: 2rem;
  line-height: 1.15;
  font-weight: 640;
  text-wrap: balance;
}
.long {
  font-size: 1.6rem;
}
.longer {
  font-size: 1.28rem;
  font-weight: 560;
  text-wrap: pretty;
}
.how {
  margin-top: 3px;
  color: var(--ink-soft);
}
</style>
