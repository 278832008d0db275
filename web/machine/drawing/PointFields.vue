<script setup lang="ts">
import type { Point } from '@core/machine/loop-file/loopFile.js';
import NumberField from '../../base/units/NumberField.vue';

/** A place in the case, axis by axis. */
defineProps<{ at: Point }>();
const emit = defineEmits<{ set: [axis: 0 | 1 | 2, mm: number] }>();
const AXES = [
  { axis: 0, label: 'x' },
  { axis: 1, label: 'y' },
  { axis: 2, label: 'z' },
] as const;
</script>

<template>
  <div class="three">
    <NumberField
      v-for="{ axis, label } in AXES"
      :key="axis"
      :model-value="at[axis]"
      :label="label"
      unit="mm"
      @update:model-value="$event !== null && emit('set', axis, $event)"
    />
  </div>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  margin: 8px 0;
}
</style>
