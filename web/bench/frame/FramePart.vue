<script setup lang="ts">
import { inject, onScopeDispose } from 'vue';
import { FRAME, type FrameRegion } from './frame.js';

/** What a step says in one region of the frame, whatever else stands around it in the step. */
const props = defineProps<{ at: FrameRegion }>();
const frame = inject(FRAME, null);
if (frame) onScopeDispose(frame.fill(props.at));
</script>

<template>
  <Teleport v-if="frame" defer :to="`[data-region='${at}']`"><slot /></Teleport>
  <slot v-else />
</template>
