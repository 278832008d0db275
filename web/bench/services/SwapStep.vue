<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import FramePart from '../frame/FramePart.vue';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { RunState, HandSwap } from '@core/bench/runs/state.js';
import { computed, onMounted, reactive, ref, watch } from 'vue';
import { placesOf, stepOf, type Procedure } from '@core/bench/runs/procedure.js';
import { swapWords } from '@core/bench/runs/entries/swapped.js';
import { withoutPlace } from '@core/bench/runs/criteria.js';
import { usedWords } from '@core/bench/runs/entries/used.js';
import { nameIn } from '@core/machine/catalogue/names.js';
import { gradeItem } from '@core/bench/inspection/grade.js';
import { get } from '../../base/http/api.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import PutAway from '../loop-change/PutAway.vue';
import LeftOpenDialog from '../left-open/LeftOpenDialog.vue';
import LeftOpenList from '../left-open/LeftOpenList.vue';

/** What goes out, what goes in, what it takes from the shelf. */
const props = defineProps<{
  procedure: Procedure;
  state: RunState;
  step: string;
  locked: boolean;
  picked?: { readonly id: string } | null;
  /** something else leads the step: what else went in or out is one touch away */
  folded?: boolean;
}>();
const isOpen = ref(false);
const own = computed(() => stepOf(props.procedure, props.step));
const mends = computed(() => own.value?.does.includes('mends') === true);
const emit = defineEmits<{ send: [body: RunEventBody] }>();
interface Shelf {
  id: string;
  name: string;
  lot: string;
  unit: string;
  count: number;
}
const shelf = ref<Shelf[]>([]);
onMounted(async () => {
  shelf.value = (await get<{ items: Shelf[] }>('/store').catch(() => ({ items: [] }))).items;
});

const ACTIONS: { value: HandSwap; title: string }[] = [
  { value: 'renewed', title: 'seal renewed' },
  { value: 'replaced', title: 'replaced' },
  { value: 'removed', title: 'taken out' },
  { value: 'fitted', title: 'fitted' },
];
const TEXT: Record<HandSwap, string> = {
  renewed: 'Which ring, which size',
  replaced: 'With what',
  removed: 'Where it lies now',
  fitted: 'What was fitted',
};
const service = computed(() => props.procedure.service);
/** a build has no sheet: its parts and tubes */
const items = computed(() => (service.value?.items ?? placesOf(props.procedure)).map(({ id, name }) => ({ value: id, title: name })));
const places = computed(() =>
  placesOf({ ...(props.procedure.facts ? { facts: props.procedure.facts } : {}) }).map(({ id, name }) => ({ value: id, title: name })),
);
const wanted = computed(() =>
  (service.value?.items ?? []).flatMap((item) => {
    const seen = props.state.service.sheet.get(item.id);
    if (!seen) return [];
    const graded = gradeItem(item.kind, seen.last);
    const done = props.state.service.swaps.some((swap) => swap.item === item.id);
    return graded.grade === 'replace' || graded.renewSeal ? [{ item, graded, done }] : [];
  }),
);
const leaving = ref(false);
const item = ref<string | null>(props.procedure.service?.takeOut?.part ?? null);
const action = ref<HandSwap | null>('replaced');
const text = ref('');
const held = ref<number | null>(null);
/** what stood on the bag of what goes in, where somebody kept it */
const bag = reactive({ make: '', lot: '' });
const goesIn = computed(() => action.value === 'replaced' || action.value === 'fitted');
const usedId = ref<string | null>(null);
const usedCount = ref<number | null>(1);
/** where it went: then its bag is found again place by place */
const usedAt = ref<string | null>(null);
const problem = ref<string | null>(null);

// touched on the picture
watch(
  () => props.picked,
  (touched) => {
    if (touched) item.value = touched.id;
  },
);

function choose(id: string, replace: boolean): void {
  item.value = id;
  action.value = replace ? 'replaced' : 'renewed';
}
function swap(): void {
  if (goesIn.value && (bag.make.trim() === '') !== (bag.lot.trim() === '')) {
    problem.value = say('A lot is found again by make and lot together: enter both, or neither.');
    return;
  }
  if (item.value === null || action.value === null || !text.value.trim()) {
    problem.value = say('Say which part, what was done with it, and with what or where it lies.');
    return;
  }
  problem.value = null;
  emit('send', {
    type: 'swapped',
    step: props.step,
    item: item.value,
    action: action.value,
    text: text.value.trim(),
    heldMl: action.value === 'removed' ? (held.value ?? 0) : 0,
    ...(goesIn.value && bag.make.trim() && bag.lot.trim() ? { bag: { make: bag.make.trim(), lot: bag.lot.trim() } } : {}),
  });
  text.value = '';
  held.value = null;
  Object.assign(bag, { make: '', lot: '' });
}
/** parts of a loop that is over, without a place yet: most lie in one box */
const away = computed(() => (own.value?.does.includes('puts-away') ? withoutPlace(props.procedure, own.value, props.state.service) : []));
function use(): void {
  const found = shelf.value.find(({ id }) => id === usedId.value);
  if (!found || usedCount.value === null || usedCount.value <= 0) return;
  emit('send', {
    type: 'used',
    step: props.step,
    itemId: found.id,
    itemName: `${found.name}${found.lot ? say(', lot {lot}', { lot: found.lot }) : ''}`,
    count: usedCount.value,
    ...(usedAt.value ? { item: usedAt.value } : {}),
    ...(usedAt.value && found.lot ? { bag: { make: found.name, lot: found.lot } } : {}),
  });
  usedAt.value = null;
  found.count -= usedCount.value;
}
const done = computed(() => [
  ...props.state.service.swaps.map((swap) => ({ id: swap.eventId, words: swapWords(swap, nameIn(placesOf(props.procedure), swap.item)) })),
  ...props.state.service.used.map((used) => ({ id: used.eventId, words: usedWords(used) })),
]);
</script>

<template>
  <FramePart at="work">
    <button v-if="folded && !locked && !isOpen" type="button" class="link" @click="isOpen = true">
      A seal, a lot, something from the shelf
    </button>
    <section v-else class="swap">
      <ul v-if="wanted.length" class="plain-list wanted" aria-label="What the sheet asks for">
        <li v-for="each in wanted" :key="each.item.id" :class="{ done: each.done }">
          <button type="button" :disabled="locked" @click="choose(each.item.id, each.graded.grade === 'replace')">
            <strong>{{ each.item.name }}</strong> <span>{{ each.graded.grade === 'replace' ? 'replace' : 'renew its O-ring' }}</span>
            <span class="quiet">{{ each.done ? 'done' : each.graded.rule }}</span>
          </button>
        </li>
      </ul>
      <PutAway v-if="!locked && away.length" :step="step" :parts="away" @send="emit('send', $event)" />
      <form v-if="!locked" class="entry" novalidate @submit.prevent="swap">
        <v-select v-model="item" :items="items" label="Part, plug or run" hide-details />
        <ChoiceRow v-model="action" label="It was" :options="ACTIONS" />
        <v-text-field v-model="text" :label="TEXT[action ?? 'replaced']" hide-details />
        <NumberField v-if="action === 'removed'" v-model="held" label="Capped full, holds" unit="mL" />
        <div v-if="goesIn" class="bag">
          <v-text-field v-model="bag.make" label="Make on its bag, if kept" autocomplete="off" hide-details />
          <v-text-field v-model="bag.lot" label="Lot on its bag" autocomplete="off" hide-details />
        </div>
        <v-btn type="submit" size="large">Write it down</v-btn>
      </form>
      <form v-if="!locked && shelf.length" class="shelf" novalidate @submit.prevent="use">
        <v-select
          v-model="usedId"
          :items="
            shelf.map(({ id, name, lot, count, unit }) => ({ value: id, title: `${name}${lot ? `, lot ${lot}` : ''} (${count} ${unit})` }))
          "
          label="From the shelf"
          hide-details
        />
        <v-select v-model="usedAt" :items="places" label="Went to, if one place" clearable hide-details />
        <NumberField v-model="usedCount" label="How many" :unit="shelf.find(({ id }) => id === usedId)?.unit ?? 'pcs'" />
        <v-btn type="submit" size="large" variant="outlined" :disabled="usedId === null">Used</v-btn>
      </form>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <template v-if="mends && !locked">
        <LeftOpenList :state="state" />
        <v-btn variant="outlined" size="large" @click="leaving = true">This fix is temporary</v-btn>
        <LeftOpenDialog v-model="leaving" :procedure="procedure" @send="emit('send', $event)" />
      </template>
      <ul v-if="done.length" class="plain-list done-list">
        <li v-for="each in done" :key="each.id">{{ each.words }}</li>
      </ul>
    </section>
  </FramePart>
</template>

<style scoped>
button.link {
  min-height: 44px;
  text-decoration: underline;
  justify-self: start;
}
.swap {
  display: grid;
  gap: 14px;
}
.swap p {
  margin: 0;
}
.wanted button {
  display: grid;
  grid-template-columns: 1fr auto 1.4fr;
  gap: 16px;
  width: 100%;
  min-height: 48px;
  align-items: center;
  text-align: left;
  border-bottom: 1px solid var(--line-soft);
}
.wanted .done {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.entry {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.entry > * {
  width: 100%;
}
.entry .v-btn {
  width: auto;
}
.bag {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.shelf {
  display: grid;
  grid-template-columns: 1fr 1fr 150px auto;
  gap: 12px;
}
.shelf .v-btn {
  height: 56px;
}
.done-list li {
  padding: 6px 0 6px 14px;
  border-left: 3px solid var(--line);
}
</style>
