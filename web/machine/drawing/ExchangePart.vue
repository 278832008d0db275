<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { digitsIn, formatIn } from '@core/base/units/display.js';
import { computed, ref } from 'vue';
import { CATALOGUE } from '@core/machine/catalogue/parts.js';
import type { LoopComponent, LoopFile } from '@core/machine/loop-file/loopFile.js';
import { reachOf, exchangePart, type ReachVerdict } from '@core/machine/exchange/exchange.js';
import { fitOf } from '@core/machine/fit/verdict.js';
import { useLearned } from '../learning/learnedStore.js';
import FitWords from './FitWords.vue';
import { useOwnParts } from './ownPartStore.js';

/** Another part in this one's place: does it fit, do the tubes still reach, what has to be cut. */
const props = defineProps<{ loop: LoopFile; part: LoopComponent }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const learned = useLearned();
const key = ref<string | null>(null);
const own = useOwnParts();
/** the workshop's own first: of those somebody entered what they need */
const parts = computed(() => [...own.picks.map(({ part }) => part), ...CATALOGUE].filter(({ kind }) => kind === props.part.kind));
const choices = computed(() => parts.value.map(({ key: value, label }) => ({ value, title: sayWord(label) })));
const answer = computed(() => {
  const chosen = parts.value.find((each) => each.key === key.value);
  return chosen ? exchangePart(props.loop, props.part.id, learned.withLearned(chosen)) : null;
});
/** whether the new one goes where the old one was, by its sheet and the case */
const verdict = computed(() => {
  const next = answer.value && 'loop' in answer.value ? answer.value.loop : null;
  const part = next?.components.find(({ id }) => id === props.part.id);
  return next && part ? fitOf(next, part) : null;
});
const tubes = computed(() => (answer.value && 'loop' in answer.value ? reachOf(props.loop, answer.value.loop, props.part.id) : []));
const WORDS: Record<ReachVerdict, (cutMm: number | null) => string> = {
  reaches: () => 'reaches',
  'too-short': (mm) => say('too short: new piece of {formatIn}', { formatIn: formatIn('mm', mm ?? 0) }),
  shorten: (mm) => say('cut off {formatIn}', { formatIn: formatIn('mm', mm ?? 0) }),
  'new-piece': (mm) => say('rigid: new piece of {formatIn}', { formatIn: formatIn('mm', mm ?? 0) }),
};
</script>

<template>
  <details class="exchange">
    <summary>Exchange it for another</summary>
    <v-select v-model="key" class="mt-2" :items="choices" label="New part" density="comfortable" hide-details clearable />
    <FitWords v-if="verdict" class="mt-2" :verdict="verdict" :loop="loop" />
    <p v-if="answer && 'refusal' in answer" role="alert">{{ answer.refusal }}</p>
    <ul class="plain-list figures">
      <li v-for="tube in tubes" :key="tube.id">
        {{ tube.name }}: <b>{{ WORDS[tube.verdict](tube.cutMm) }}</b>
        <span class="quiet"> has {{ digitsIn('mm', tube.hasMm) }}, needs {{ formatIn('mm', tube.wayMm) }}</span>
      </li>
    </ul>
    <v-btn v-if="answer && 'loop' in answer && verdict?.state !== 'does-not'" class="mt-2" @click="emit('change', answer.loop)"
      >Put it in</v-btn
    >
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
</style>
