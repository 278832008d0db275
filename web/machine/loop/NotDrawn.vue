<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import { formatMl, formatMlWithSd, formatTube } from '@core/base/units/display.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { outlineOf, UNSTATED_VOLUME } from '@core/machine/loop-file/outline.js';
import { findTubeMaterial } from '@core/machine/materials/tubes.js';

/** A loop that nobody laid out: what was stated of it, and what waits for its parts. */
const props = defineProps<{ file: LoopFile; loopId: string }>();
const stated = computed(() => {
  const outline = outlineOf(props.file);
  if (!outline) return '';
  const { volumeMl, tube } = outline;
  const volume =
    volumeMl === null
      ? say('Nobody stated its volume: {formatMlWithSd} is assumed.', {
          formatMlWithSd: formatMlWithSd(UNSTATED_VOLUME.volumeMl, UNSTATED_VOLUME.sdMl),
        })
      : say('Stated: {formatMl}.', { formatMl: formatMl(volumeMl) });
  const material = tube?.material ? (findTubeMaterial(tube.material)?.label ?? tube.material) : '';
  return tube
    ? say('{volume} Tube {formatTube}{material}.', { volume, formatTube: formatTube(tube), material: material ? `, ${material}` : '' })
    : volume;
});
</script>

<template>
  <div class="not-drawn">
    <p>{{ stated }} Its dates run. Before it comes onto a bench its parts are laid out, once.</p>
    <v-btn size="large" variant="outlined" :to="`/loops/${loopId}`" class="no-print">Lay out the loop</v-btn>
  </div>
</template>

<style scoped>
.not-drawn {
  border-top: 2px dashed var(--line);
  margin-top: 12px;
  padding-top: 14px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
.not-drawn p {
  margin: 0;
  max-width: 60ch;
}
</style>
