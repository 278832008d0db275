<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { isStoredUnit, scaleOf, shownIn, storedFrom, unitName } from '@core/base/units/shown.js';
import { reading } from '@core/base/units/reading.js';

/**
 * A number with its unit, which is its reader's: what is typed in fluid ounces is millilitres in the form. Takes 12.5 and 12,5; anything else
 * is named, not repaired.
 */
const value = defineModel<number | null>({ required: true });
const props = defineProps<{
  label: string;
  /** whose it is, where the same stands several times on a page: read out before the label */
  of?: string;
  unit: string;
  errors?: string[];
  large?: boolean;
  hint?: string;
}>();
const emit = defineEmits<{ enter: [] }>();

const shownUnit = computed(() => unitName(props.unit));
const show = (number: number | null): string => {
  if (number === null) return '';
  const { unit } = props;
  const scale = isStoredUnit(unit) ? scaleOf(unit) : null;
  const asIs = scale === null || (scale.factor === 1 && scale.zero === 0);
  // what a product of two figures leaves behind the sixth decimal is nobody's figure
  const text =
    asIs || !isStoredUnit(unit) ? String(Number(number.toFixed(6))) : String(Number(shownIn(unit, number).toFixed(scale.more + 1)));
  return reading().language === 'de' ? text.replace('.', ',') : text;
};
const text = ref(show(value.value));
const wrong = ref<string | null>(null);

watch(value, (now) => {
  // half a number ("12,") is none yet, and stays as it is typed
  if ((parse(text.value) ?? null) !== now) text.value = show(now);
});

function parse(raw: string): number | null | undefined {
  const trimmed = raw.trim().replace('\u2212', '-').replace(',', '.');
  if (trimmed === '') return null;
  if (!/^-?\d*\.?\d+$/.test(trimmed)) return undefined;
  return isStoredUnit(props.unit) ? storedFrom(props.unit, Number(trimmed)) : Number(trimmed);
}

function read(raw: string): void {
  text.value = raw;
  const parsed = parse(raw);
  wrong.value = parsed === undefined ? say('A number, in {shownUnit}', { shownUnit: shownUnit.value }) : null;
  value.value = parsed === undefined ? null : parsed;
}
</script>

<template>
  <v-text-field
    :model-value="text"
    :label="label"
    :aria-label="of && `${of}: ${label}`"
    :suffix="shownUnit"
    inputmode="decimal"
    autocomplete="off"
    :hint="hint"
    :persistent-hint="Boolean(hint)"
    :class="{ 'number-large': large }"
    :error-messages="wrong ? [wrong] : errors"
    @update:model-value="read"
    @keydown.enter="emit('enter')"
  />
</template>

<style scoped>
.number-large :deep(input) {
  font-size: 1.75rem;
  font-variant-numeric: tabular-nums;
  min-height: 62px;
  padding-block: 20px 6px;
}
:deep(input) {
  font-variant-numeric: tabular-nums;
}
</style>
