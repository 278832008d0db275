<script setup lang="ts">
import { computed } from 'vue';
import { changeBetween, isWetChange } from '@core/machine/loop-change/loopChange.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { isOutline } from '@core/machine/loop-file/outline.js';
import ChangeWork from './ChangeWork.vue';

/** What is being drawn against what is inside: the work of a job, while it is drawn. */
const props = defineProps<{ inside: LoopFile; drawn: LoopFile }>();
const work = computed(() => {
  const change = isOutline(props.inside) ? null : changeBetween(props.inside, props.drawn);
  return change && isWetChange(change) ? change : null;
});
</script>

<template>
  <ChangeWork v-if="work" class="sheet work" :work="work" :wanted="drawn" />
</template>

<style scoped>
.work {
  padding: 12px 14px;
  margin-top: 14px;
}
</style>
