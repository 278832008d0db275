<script setup lang="ts">
import { computed } from 'vue';
import FramePart from './FramePart.vue';

/** The one figure of a step, with its unit and sense. */
const props = defineProps<{ value: string; unit?: string; estimate?: boolean; danger?: boolean; timer?: boolean }>();
/** letters of a unit and its sense that stand in one line beside three figures */
const UNIT_LETTERS = 12;
const size = computed(() => (props.value.length <= 4 ? '' : props.value.length <= 6 ? 'long' : 'longer'));
</script>

<template>
  <FramePart at="figure">
    <p
      class="big-number"
      :class="[size, { danger, 'long-unit': (unit ?? '').length > UNIT_LETTERS }]"
      :role="timer ? 'timer' : undefined"
      :aria-live="timer ? undefined : 'polite'"
    >
      {{ value }} <small v-if="unit" :class="{ estimate }">{{ unit }}</small>
    </p>
  </FramePart>
</template>

<style scoped>
/* outside a frame it is as large as any other figure of the page; inside, the frame gives the size */
.big-number {
  font-weight: 420;
}
.danger {
  font-weight: 620;
}
</style>
