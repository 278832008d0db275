<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { KEPT_KINDS, type KeptKind } from '@core/workshop/store/schema.js';
import NumberField from '../../base/units/NumberField.vue';
import DayField from '../../base/units/DayField.vue';

/** What is written down of a part that lies here or is lent out. */
export interface KeptForm {
  name: string;
  kind: KeptKind;
  systemId: string | null;
  place: string;
  condition: string;
  heldMl: number | null;
  lentTo: string;
  untilDay: string;
}
const form = defineModel<KeptForm>({ required: true });
defineProps<{ at: (path: string) => string[] }>();
const kinds = Object.entries(KEPT_KINDS).map(([value, title]) => ({ value, title: sayWord(title) }));
</script>

<template>
  <v-text-field v-model="form.name" label="What" :error-messages="at('name')" />
  <v-select v-model="form.kind" :items="kinds" label="Is" />
  <v-text-field v-model="form.place" label="Place" :error-messages="at('place')" />
  <v-text-field v-model="form.condition" label="Condition" :error-messages="at('condition')" />
  <NumberField v-if="form.kind === 'removed'" v-model="form.heldMl" label="Capped full, holds" unit="mL" :errors="at('heldMl')" />
  <v-text-field v-else v-model="form.lentTo" label="Who has it" :error-messages="at('lentTo')" />
  <DayField v-model="form.untilDay" label="Decide or back by" :errors="at('untilDay')" />
</template>
