<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { PASTE_ON } from '@core/bench/runs/checkIds.js';
import { placesOf, stepOf, type Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { nameIn } from '@core/machine/catalogue/names.js';
import { PASTE_MEDIA, type PasteMedium } from '@core/workshop/due-dates/paste.js';
import { computed, ref } from 'vue';
import { choicesOf } from '../../base/look/choices.js';

/** Which blocks went back on something new: from here on it has an age and a day. */
const props = defineProps<{ procedure: Procedure; state: RunState; step: string; locked: boolean; due: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const MEDIA = choicesOf(PASTE_MEDIA);
const blocks = computed(() =>
  (props.procedure.twin?.loop.components ?? [])
    .filter(({ kind }) => kind === 'block')
    .map(({ id }) => ({ value: id, title: nameIn(placesOf(props.procedure), id) })),
);
const chosen = ref<string[]>([]);
const medium = ref<PasteMedium>('paste');
const product = ref('');
const written = computed(() =>
  props.state.service.pastes.map(({ eventId, items, medium: of, product: by }) => ({
    eventId,
    words: say('{blocks}: new {medium}{product}', {
      blocks: items.map((id) => nameIn(placesOf(props.procedure), id)).join(', '),
      medium: say(PASTE_MEDIA[of].label),
      product: by ? `, ${by}` : '',
    }),
  })),
);
function write(): void {
  if (chosen.value.length === 0) return;
  emit('send', { type: 'pasted', step: props.step, items: [...chosen.value], medium: medium.value, product: product.value.trim() });
  // what is written down is done: one touch for both
  const own = stepOf(props.procedure, props.step)?.checks.some(({ id }) => id === PASTE_ON);
  const mark = props.state.steps.find(({ id }) => id === props.step)?.checks[PASTE_ON]?.mark;
  if (own && mark !== 'done') emit('send', { type: 'check', step: props.step, check: PASTE_ON, mark: 'done' });
  chosen.value = [];
}
</script>

<template>
  <details v-if="blocks.length > 0" class="paste" :open="due">
    <summary>New paste or pads: which block, which kind</summary>
    <ul v-if="written.length > 0" class="plain-list">
      <li v-for="each in written" :key="each.eventId">{{ each.words }}</li>
    </ul>
    <form v-if="!locked" novalidate @submit.prevent="write">
      <v-select v-model="chosen" :items="blocks" label="Under which blocks" multiple chips hide-details />
      <v-select v-model="medium" :items="MEDIA" label="With what" hide-details />
      <v-text-field v-model="product" label="As its tube calls it" hide-details autocomplete="off" />
      <v-btn type="submit" size="large" variant="outlined" :disabled="chosen.length === 0">Write it down</v-btn>
    </form>
  </details>
</template>

<style scoped>
.paste summary {
  min-height: 44px;
  padding-block: 10px;
  cursor: pointer;
}
.paste form {
  display: grid;
  gap: 10px;
  padding-bottom: 12px;
}
</style>
