<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { LoopComponent } from '@core/machine/loop-file/loopFile.js';
import NumberField from '../../base/units/NumberField.vue';

/** What a part holds, how well that is known, and a reservoir's two marks. Only a number that can be is passed on. */
const props = defineProps<{ part: LoopComponent; errors?: Readonly<Partial<Record<Field, string[]>>> }>();
const emit = defineEmits<{ change: [facts: Partial<LoopComponent>] }>();
type Field = 'volume_ml' | 'volume_sd_ml' | 'max_fill_ml' | 'low_mark_ml';
const pass = (field: Field, value: number | null): void => {
  if (value !== null && value >= 0) emit('change', { [field]: value });
};
/** share of a volume that nobody said how well it is known */
const UNKNOWN_SHARE = 0.2;
const fields = computed((): readonly { field: Field; label: string; value: number | null; errors: string[] }[] => {
  const { part, errors } = props;
  const negative = part.volume_ml < 0 ? [say('A volume cannot be negative')] : [];
  const told = (field: Field, label: string, value: number | null, otherwise: string[] = []) => ({ field, label, value, errors: errors?.[field] ?? otherwise }); // prettier-ignore
  return [
    told('volume_ml', say('Volume'), part.volume_ml, negative),
    told('volume_sd_ml', say('± one sd'), part.volume_sd_ml ?? Math.round(part.volume_ml * UNKNOWN_SHARE)),
    ...(part.kind === 'reservoir'
      ? [told('max_fill_ml', say('Fill mark'), part.max_fill_ml ?? null), told('low_mark_ml', say('Low mark'), part.low_mark_ml ?? null)]
      : []),
  ];
});
</script>

<template>
  <NumberField
    v-for="{ field, label, value, errors: wrong } in fields"
    :key="field"
    :model-value="value"
    :label="label"
    unit="mL"
    :errors="wrong"
    @update:model-value="pass(field, $event)"
  />
</template>
