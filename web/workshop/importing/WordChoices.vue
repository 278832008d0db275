<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';
import { COOLANT_CLASSES, COOLANT_CLASS_KEYS } from '@core/machine/liquids/classes.js';
import { JOB_WORDS } from '@core/workshop/job-kinds/kinds.js';
import {
  guessColour,
  HISTORY_KINDS,
  type CoolantUse,
  type CoolantWord,
  type HistoryKind,
  type KindWord,
} from '@core/workshop/importing/words.js';

/** Words of the workshop's own table: what each coolant is, what each kind of work was. */
const props = defineProps<{
  shelf: readonly { id: string; name: string; colour: string }[];
  /** rows that have the word */
  counts: ReadonlyMap<string, number>;
}>();
const coolants = defineModel<readonly CoolantWord[]>('coolants', { required: true });
const kinds = defineModel<readonly KindWord[]>('kinds', { required: true });

const USES = computed(() => [
  ...COOLANT_CLASS_KEYS.map((key) => ({
    value: `make ${key}`,
    title: say('new on the shelf: {label}', { label: sayWord(COOLANT_CLASSES[key].label) }),
  })),
  ...props.shelf.map(({ id, name }) => ({ value: `known ${id}`, title: say('the same as {name}', { name }) })),
  { value: 'unknown', title: say('nobody knows: it mixes with nothing') },
]);
const asText = (use: CoolantUse): string =>
  use.use === 'known' ? `known ${use.productId}` : use.use === 'make' ? `make ${use.coolantClass}` : 'unknown';
function asUse(text: string): CoolantUse {
  const [use, value = ''] = text.split(' ');
  if (use === 'known') return { use, productId: value };
  return use === 'make' ? { use, coolantClass: value as (typeof COOLANT_CLASS_KEYS)[number] } : { use: 'unknown' };
}
const colourOf = ({ name, as }: CoolantWord): string | null =>
  as.use === 'make' ? guessColour(name) : as.use === 'known' ? (props.shelf.find(({ id }) => id === as.productId)?.colour ?? null) : null;
const KINDS = HISTORY_KINDS.map((value) => ({ value, title: sayWord(JOB_WORDS[value]) ?? value }));
const rows = (word: string): string => {
  const count = props.counts.get(word) ?? 0;
  return count === 1 ? '1 row' : say('{count} rows', { count });
};
</script>

<template>
  <section v-if="coolants.length" class="words">
    <h2>Coolants that the shelf does not know by this name</h2>
    <ul class="plain-list">
      <li v-for="(word, index) in coolants" :key="word.name">
        <span
          class="drop"
          :style="colourOf(word) ? { background: colourOf(word) ?? '' } : {}"
          :class="{ none: !colourOf(word) }"
          aria-hidden="true"
        />
        <span
          ><strong>{{ word.name }}</strong> <span class="quiet figures">{{ rows(word.name) }}</span></span
        >
        <v-select
          :model-value="asText(word.as)"
          :items="USES"
          :label="`What ${word.name} is`"
          density="compact"
          hide-details
          @update:model-value="coolants = coolants.map((each, at) => (at === index ? { ...each, as: asUse($event) } : each))"
        />
      </li>
    </ul>
  </section>
  <section v-if="kinds.length" class="words">
    <h2>What was done, in the table’s words</h2>
    <ul class="plain-list">
      <li v-for="(word, index) in kinds" :key="word.word">
        <span
          ><strong>{{ word.word }}</strong> <span class="quiet figures">{{ rows(word.word) }}</span></span
        >
        <v-select
          :model-value="word.kind"
          :items="KINDS"
          :label="`What ${word.word} was`"
          density="compact"
          hide-details
          @update:model-value="kinds = kinds.map((each, at) => (at === index ? { ...each, kind: $event as HistoryKind } : each))"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.words {
  margin-top: 22px;
}
.words li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 340px);
  gap: 14px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
  max-width: 820px;
}
.words li:has(.drop) {
  grid-template-columns: 22px minmax(0, 1fr) minmax(0, 340px);
}
.drop {
  width: 22px;
  height: 22px;
  border: 2px solid var(--ink);
}
.drop.none {
  border-style: dashed;
}
@media (max-width: 600px) {
  .words li,
  .words li:has(.drop) {
    grid-template-columns: 22px minmax(0, 1fr);
  }
  .words li > :last-child {
    grid-column: 1 / -1;
  }
}
</style>
