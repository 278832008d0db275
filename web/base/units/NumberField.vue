<script setup lang="ts">
import { ref, watch } from 'vue';

/** A number with its unit. Takes 12.5 and 12,5; anything else is named, not repaired. */
const value = defineModel<number | null>({ required: true });
const props = defineProps<{ label: string; unit: string; errors?: string[]; large?: boolean; hint?: string }>();
const emit = defineEmits<{ enter: [] }>();

const show = (number: number | null): string => (number === null ? '' : String(number));
const text = ref(show(value.value));
const wrong = ref<string | null>(null);

watch(value, (now) => {
  // half a number ("12,") is none yet, and stays as it is typed
  if ((parse(text.value) ?? null) !== now) text.value = show(now);
});

function parse(raw: string): number | null | undefined {
  const trimmed = raw.trim().replace('\u2212', '-').replace(',', '.');
  if (trimmed === '') return null;
  return /^-?\d*\.?\d+$/.test(trimmed) ? Number(trimmed) : undefined;
}

function read(raw: string): void {
  text.value = raw;
  const parsed = parse(raw);
  wrong.value = parsed === undefined ? `A number, in ${props.unit}` : null;
  value.value = parsed === undefined ? null : parsed;
}
</script>

<template>
  <v-text-field
    :model-value="text"
    :label="label"
    :suffix="unit"
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
