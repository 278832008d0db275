<script setup lang="ts">
import { computed, ref } from 'vue';
import { changePart } from '@core/machine/catalogue/edit.js';
import { changedSheet } from '@core/machine/loop-file/fitSheet.js';
import { fitOf } from '@core/machine/fit/verdict.js';
import type { FitSheet, LoopComponent, LoopFile, NamedModel } from '@core/machine/loop-file/loopFile.js';
import NumberField from '../../base/units/NumberField.vue';
import FitWords from './FitWords.vue';
import HoleDialog from './HoleDialog.vue';
import ModelList from './ModelList.vue';

/** Whether the part goes where it is drawn, and what its sheet and a look at the machine say about that. */
const props = defineProps<{ loop: LoopFile; part: LoopComponent; sheetOnly?: boolean }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const fit = computed<FitSheet>(() => props.part.fit ?? {});
const verdict = computed(() => (props.sheetOnly ? null : fitOf(props.loop, props.part)));
const change = (facts: Partial<FitSheet>): void =>
  emit('change', changePart(props.loop, props.part.id, { fit: changedSheet(props.part.fit, facts) }));
const isBlock = computed(() => props.part.kind === 'block');
const onCard = computed(() => props.part.place === 'card' || (props.sheetOnly && props.part.catalogue === 'block-graphics'));
function setThere(what: keyof NamedModel, value: string): void {
  const now = { model: fit.value.sits_on?.model ?? '', revision: fit.value.sits_on?.revision ?? '', [what]: value.trim() };
  const { model, revision } = now;
  change({ sits_on: model === '' ? undefined : { model, ...(revision === '' ? {} : { revision }) } });
}
const CARD = [
  { id: 'slots', label: 'slots', unit: '' },
  { id: 'power_leads', label: 'power leads', unit: '' },
  { id: 'length_mm', label: 'length', unit: 'mm' },
  { id: 'height_mm', label: 'height', unit: 'mm' },
] as const;
function setCard(id: (typeof CARD)[number]['id'], value: number | null): void {
  const isCount = id === 'slots' || id === 'power_leads';
  if (value !== null && (isCount ? value < 0 || value > 20 || !Number.isInteger(value) : value <= 0)) return;
  change({ [id]: value ?? undefined });
}
const drilling = ref(false);
const hasFoot = computed(() => ['radiator', 'reservoir', 'pump'].includes(props.part.kind));
</script>

<template>
  <section v-if="verdict || isBlock || hasFoot" class="part-fit" aria-label="Fit">
    <FitWords v-if="verdict" :verdict="verdict" :loop="loop" />
    <details v-if="isBlock || hasFoot" :open="sheetOnly">
      <summary>{{ isBlock ? 'What it fits' : 'Holes' }}</summary>
      <template v-if="isBlock">
        <ModelList :model-value="fit.listed ?? []" @update:model-value="change({ listed: [...$event] })" />
        <div v-if="!sheetOnly" class="two mt-2">
          <v-text-field
            :model-value="fit.sits_on?.model ?? ''"
            label="It sits on, as read off"
            density="compact"
            hide-details
            maxlength="80"
            @change="setThere('model', ($event.target as HTMLInputElement).value)"
          />
          <v-text-field
            :model-value="fit.sits_on?.revision ?? ''"
            :disabled="!fit.sits_on"
            label="its revision"
            density="compact"
            hide-details
            maxlength="80"
            @change="setThere('revision', ($event.target as HTMLInputElement).value)"
          />
        </div>
        <template v-if="onCard">
          <p class="quiet mt-2">The card with this block on takes:</p>
          <div class="two">
            <NumberField
              v-for="field in CARD"
              :key="field.id"
              :model-value="fit[field.id] ?? null"
              :label="field.label"
              :unit="field.unit"
              @update:model-value="setCard(field.id, $event)"
            />
          </div>
        </template>
      </template>
      <v-btn v-else size="small" variant="outlined" @click="drilling = true">Template to drill by</v-btn>
    </details>
    <HoleDialog v-if="drilling" :part="part" @holes="change({ holes_mm: [...$event] })" @close="drilling = false" />
  </section>
</template>

<style scoped>
.part-fit {
  display: grid;
  gap: 8px;
  margin-top: 12px;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
summary {
  min-height: 40px;
  cursor: pointer;
  font-weight: 620;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.two :deep(.v-input__details) {
  display: none;
}
</style>
