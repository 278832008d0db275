<script setup lang="ts">
import type { BenchRun } from '@core/bench/benches/answers.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { computed, defineAsyncComponent } from 'vue';

/** the drawing of a loop comes with the first machine that is shown */
const LoopProfile = defineAsyncComponent(() => import('../../machine/profile/LoopProfile.vue'));
/** The loop of a machine that is worked on, small, with what is inside now. Its place is there before the drawing is. */
const props = defineProps<{ run: BenchRun; file: LoopFile | null; height: number }>();
const filled = computed(() => (props.run.inside ? new Map(Object.entries(props.run.inside)) : null));
</script>

<template>
  <div class="picture" :style="{ minHeight: `${height}px` }">
    <LoopProfile
      v-if="file"
      :loop="file"
      :colour="run.colour"
      :filled="filled"
      :height="height"
      bare
      :label="`Loop of ${run.systemName}`"
    />
  </div>
</template>

<style scoped>
/* it gives way when the screen gets narrower */
.picture {
  min-width: 0;
}
</style>
