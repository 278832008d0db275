<script setup lang="ts">
import type { LoopComponent } from '@core/machine/loop-file/loopFile.js';
import NumberField from '../../base/units/NumberField.vue';

/** What a part holds, how well that is known, and a reservoir's two marks. Only a number that can be is passed on. */
const props = defineProps<{ part: LoopComponent; errors?: Readonly<Partial<Record<Field, string[]>>> }>();
const emit = defineEmits<{ change: [facts: Partial<LoopComponent>] }>();
type Field = 'volume_ml' | 'volume_sd_ml' | 'max_fill_ml' | 'low_mark_ml';
const pass = (field: Field, value: number | null): void => {
  if (value !== null && value >= 0) emit('change', { [field]: value });
};
const negative = (): string[] => (props.part.volume_ml < 0 ? ['A volume cannot be negative'] : []);
/** share of a volume that nobody said how well it is known */
const UNKNOWN_SHARE = 0.2;
</script>

<template>
  <NumberField
    :model-value="part.volume_ml"
    label="Volume"
    unit="mL"
    :errors="errors?.volume_ml ?? negative()"
    @update:model-value="pass('volume_ml', $event)"
  />
  <NumberField
    :model-value="part.volume_sd_ml ?? Math.round(part.volume_ml * UNKNOWN_SHARE)"
    label="± one sd"
    unit="mL"
    :errors="errors?.volume_sd_ml ?? []"
    @update:model-value="pass('volume_sd_ml', $event)"
  />
  <template v-if="part.kind === 'reservoir'">
    <NumberField
      :model-value="part.max_fill_ml ?? null"
      label="Fill mark"
      unit="mL"
      :errors="errors?.max_fill_ml ?? []"
      @update:model-value="pass('max_fill_ml', $event)"
    />
    <NumberField
      :model-value="part.low_mark_ml ?? null"
      label="Low mark"
      unit="mL"
      :errors="errors?.low_mark_ml ?? []"
      @update:model-value="pass('low_mark_ml', $event)"
    />
  </template>
</template>
