<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { digitsIn, formatIn } from '@core/base/units/display.js';
import { computed, reactive, ref } from 'vue';
import { CATALOGUE } from '@core/machine/catalogue/parts.js';
import type { LoopComponent, LoopFile } from '@core/machine/loop-file/loopFile.js';
import { lackingFor, reachOf, exchangePart, type ReachVerdict } from '@core/machine/exchange/exchange.js';
import { useLearned } from '../learning/learnedStore.js';
import NumberField from '../../base/units/NumberField.vue';

/** Another part in this one's place: does it fit, do the tubes still reach, what has to be cut. */
const props = defineProps<{ loop: LoopFile; part: LoopComponent }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const learned = useLearned();
const key = ref<string | null>(null);
const room = reactive<Record<'lengthMm' | 'slots' | 'powerSockets', number | null>>({ lengthMm: null, slots: null, powerSockets: null });
const needs = reactive<Record<'lengthMm' | 'slots' | 'powerSockets', number | null>>({ lengthMm: null, slots: null, powerSockets: null });

const choices = computed(() =>
  CATALOGUE.filter(({ kind }) => kind === props.part.kind).map(({ key: value, label }) => ({ value, title: sayWord(label) })),
);
const answer = computed(() => {
  const chosen = CATALOGUE.find((each) => each.key === key.value);
  return chosen ? exchangePart(props.loop, props.part.id, learned.withLearned(chosen)) : null;
});
const tubes = computed(() => (answer.value && 'loop' in answer.value ? reachOf(props.loop, answer.value.loop, props.part.id) : []));
const WORDS: Record<ReachVerdict, (cutMm: number | null) => string> = {
  reaches: () => 'reaches',
  'too-short': (mm) => say('too short: new piece of {formatIn}', { formatIn: formatIn('mm', mm ?? 0) }),
  shorten: (mm) => say('cut off {formatIn}', { formatIn: formatIn('mm', mm ?? 0) }),
  'new-piece': (mm) => say('rigid: new piece of {formatIn}', { formatIn: formatIn('mm', mm ?? 0) }),
};
const whole = (from: typeof room, otherwise: number) => ({
  lengthMm: from.lengthMm ?? otherwise,
  slots: from.slots ?? otherwise,
  powerSockets: from.powerSockets ?? otherwise,
});
const missing = computed(() => lackingFor(whole(room, Number.MAX_SAFE_INTEGER), whole(needs, 0)));
const FIELDS = [
  { id: 'lengthMm', label: 'length', unit: 'mm' },
  { id: 'slots', label: 'slots', unit: '' },
  { id: 'powerSockets', label: 'sockets', unit: '' },
] as const;
</script>

<template>
  <details class="exchange">
    <summary>Exchange it for another</summary>
    <v-select v-model="key" class="mt-2" :items="choices" label="New part" density="comfortable" hide-details clearable />
    <p class="quiet mt-2">Room there is, and what the new part needs:</p>
    <div class="three">
      <NumberField v-for="field in FIELDS" :key="field.id" v-model="room[field.id]" :label="field.label" :unit="field.unit" />
    </div>
    <div class="three">
      <NumberField v-for="field in FIELDS" :key="field.id" v-model="needs[field.id]" :label="`needs ${field.label}`" :unit="field.unit" />
    </div>
    <p v-for="each in missing" :key="each" role="alert"><b>Does not fit.</b> {{ each }}</p>
    <p v-if="answer && 'refusal' in answer" role="alert">{{ answer.refusal }}</p>
    <ul class="plain-list figures">
      <li v-for="tube in tubes" :key="tube.id">
        {{ tube.name }}: <b>{{ WORDS[tube.verdict](tube.cutMm) }}</b>
        <span class="quiet"> has {{ digitsIn('mm', tube.hasMm) }}, needs {{ formatIn('mm', tube.wayMm) }}</span>
      </li>
    </ul>
    <v-btn v-if="answer && 'loop' in answer && missing.length === 0" class="mt-2" @click="emit('change', answer.loop)">Put it in</v-btn>
  </details>
</template>

<style scoped>
.exchange {
  margin-top: 16px;
  padding-top: 8px;
  border-top: 1px solid var(--line-soft);
}
summary {
  cursor: pointer;
  min-height: 36px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  margin: 6px 0;
}
</style>
