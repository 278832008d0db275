<script setup lang="ts">
import type { Scene } from '../compute/twinEngine.js';
import FateKey, { type FateWords } from './FateKey.vue';
import type { OpeningState } from './openings.js';
import LoopDrawing from './LoopDrawing.vue';
import type { SecondLine } from './secondLine.js';

/** The loop profile on its sheet, with what its fills mean. */
withDefaults(
  defineProps<{
    scene: Scene | null;
    colour: string | null;
    /** what the drawing shows, for those who hear it */
    label: string;
    fates?: readonly FateWords[];
    openings?: ReadonlyMap<string, OpeningState> | null;
    line?: SecondLine | null;
  }>(),
  { fates: () => [], openings: null, line: null },
);
const emit = defineEmits<{ turn: [port: string] }>();

/** px; with it the figures below still stand on a bench screen */
const HEIGHT = 296;
</script>

<template>
  <section class="sheet drawing" :aria-label="label">
    <div class="stand" :style="{ minHeight: `${HEIGHT}px` }">
      <LoopDrawing
        v-if="scene"
        :unrolled="scene.unrolled"
        :picture="scene.picture"
        :colour="colour"
        :openings="openings"
        :line="line"
        :height="HEIGHT"
        :label="label"
        @turn="emit('turn', $event)"
      />
    </div>
    <FateKey v-if="fates.length > 0" class="mt-2" :colour="colour" :fates="fates" />
  </section>
</template>

<style scoped>
.drawing {
  padding: 12px 16px 14px;
}
</style>
