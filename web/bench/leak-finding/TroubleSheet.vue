<script setup lang="ts">
import { isInsidePart } from '@core/machine/seals/places.js';
import { say } from '@core/base/words/say.js';
import { LEAK_AMOUNT, LEAK_WHEN, type LeakAmount, type LeakWhen } from '@core/bench/leak-finding/causes.js';
import { FILL_SYMPTOM_KEYS, FILL_SYMPTOMS, type FillSymptom } from '@core/bench/fill-troubles/causes.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { Procedure, StepKind } from '@core/bench/runs/procedure.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { computed, nextTick, ref, watch } from 'vue';
import { LABEL_PX, type PlaceDot } from '@core/physics/profile/drawing.js';
import LoopProfile from '../../machine/profile/LoopProfile.vue';

/**
 * Something is wrong: what it is, where on the picture, and it is on record; the wording comes after. It lies over what hands would do
 * next and never over the pump's switch; while the pump runs its own first thing is the switch.
 */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  procedure: Procedure;
  file: LoopFile;
  colour: string | null;
  pumpOn: boolean;
  /** share of each part that holds liquid; null: full */
  filled?: ReadonlyMap<string, number> | null;
  /** step that hands are at: what shows in an air test shows under air */
  stepKind?: StepKind | null;
}>();
const emit = defineEmits<{ send: [body: RunEventBody]; pumpOff: [] }>();

const KINDS = { leak: 'A leak', spill: 'A spill', doubt: 'Felt wrong', fill: 'The filling' } as const;
type Kind = keyof typeof KINDS;
/** nothing is proposed: a hurried touch would put down what did not happen */
const kind = ref<Kind | null>(null);
const place = ref<string | null>(null);
const text = ref('');
const SHOWS_IN: Partial<Record<StepKind, LeakWhen>> = {
  'dry-test': 'under-pressure',
  fill: 'first-pour',
  rinse: 'first-pour',
  power: 'warm',
  baseline: 'warm',
};
const when = ref<LeakWhen>('pump-start');
const amount = ref<LeakAmount>('drip');
const electronics = ref(false);
const symptom = ref<FillSymptom | null>(null);
const problem = ref<string | null>(null);
const sheet = ref<HTMLElement | null>(null);
watch(open, async (is) => {
  kind.value = null;
  place.value = null;
  symptom.value = null;
  text.value = '';
  electronics.value = false;
  when.value = (props.stepKind && SHOWS_IN[props.stepKind]) || 'pump-start';
  problem.value = null;
  if (!is) return;
  await nextTick();
  sheet.value?.focus();
});
const WHEN: Record<LeakWhen, string> = {
  'first-pour': 'while pouring',
  'pump-start': 'when the pump started',
  'under-pressure': 'under air pressure',
  'after-minutes': 'after some minutes',
  'after-hours': 'after hours',
  warm: 'once warm',
  'after-moving': 'after it was moved',
};
const AMOUNT: Record<LeakAmount, string> = { gush: 'it gushes', drip: 'it drips', seep: 'it seeps' };
const SAYS: Record<Kind, string> = {
  doubt: 'No liquid goes in until that part was tested on its own.',
  leak: 'Supply off first. The pump stays locked until it is mended, the record unsigned until it was tested again.',
  fill: 'Pump off while you look. The causes come ranked, each with its next check.',
  spill: 'Blot, rinse as the part’s maker advises, then a day to dry before power.',
};
const parts = computed(() => props.procedure.facts?.parts ?? []);
const joints = computed(() => props.procedure.facts?.joints ?? []);
const seals = computed(() => props.procedure.facts?.seals ?? []);
const sealGroups = computed(() =>
  kind.value === 'leak'
    ? [
        { label: say('Plug, cap or valve'), seals: seals.value.filter(({ id }) => !isInsidePart(id)) },
        { label: say('Ring, gasket or end inside a part'), seals: seals.value.filter(({ id }) => isInsidePart(id)) },
      ].filter((group) => group.seals.length > 0)
    : [],
);
const asksPlace = computed(() => kind.value === 'doubt' || kind.value === 'leak');
/** what can be touched: parts that felt wrong; where it is wet also the tubes, each with its two joints */
const places = computed(() => (kind.value === 'leak' ? [...parts.value, ...joints.value, ...seals.value] : parts.value));
const dots = computed((): PlaceDot[] =>
  places.value.map(({ id, name }) => ({ id, label: name, state: id === place.value ? 'wrong' : 'open' })),
);

function write(): void {
  if (kind.value === null) {
    problem.value = say('Touch what it is first.');
    return;
  }
  if (asksPlace.value && place.value === null) {
    problem.value =
      kind.value === 'doubt' ? say('Touch the part that felt wrong.') : say('Touch the place where it is wet: the towel names the joint.');
    return;
  }
  if (kind.value === 'fill' && symptom.value === null) {
    problem.value = say('Touch what is seen.');
    return;
  }
  const words = text.value.trim();
  if (kind.value === 'doubt') emit('send', { type: 'doubt', part: place.value as string, text: words || say('something felt wrong') });
  else if (kind.value === 'leak')
    emit('send', { type: 'leak', at: place.value as string, when: when.value, amount: amount.value, text: words });
  else if (kind.value === 'fill') emit('send', { type: 'fill-trouble', symptom: symptom.value as FillSymptom, text: words });
  else emit('send', { type: 'spill', onElectronics: electronics.value, text: words || say('coolant spilled') });
  open.value = false;
}
</script>

<template>
  <form
    v-if="open"
    ref="sheet"
    class="sheet"
    role="dialog"
    aria-label="Something is wrong"
    tabindex="-1"
    novalidate
    @submit.prevent="write"
    @keydown.esc="open = false"
  >
    <header>
      <h2>Something is wrong</h2>
      <button v-if="pumpOn" type="button" class="pump-off" @click="emit('pumpOff')">Pump off</button>
      <v-btn variant="text" size="large" @click="open = false">Close</v-btn>
    </header>
    <div class="kinds" role="group" aria-label="What it is">
      <button v-for="(label, key) in KINDS" :key="key" type="button" :aria-pressed="kind === key" @click="kind = key">
        {{ label }}
      </button>
    </div>
    <div v-if="kind === 'fill'" class="places" role="group" aria-label="What is seen">
      <button v-for="each in FILL_SYMPTOM_KEYS" :key="each" type="button" :aria-pressed="symptom === each" @click="symptom = each">
        {{ FILL_SYMPTOMS[each] }}
      </button>
    </div>
    <template v-if="asksPlace">
      <div class="picture">
        <LoopProfile
          :loop="file"
          :colour="colour"
          :height="190"
          :dots="dots"
          :filled="filled ?? null"
          :label-px="LABEL_PX.bench"
          label="Loop: touch the place"
          @touch="place = $event"
        />
      </div>
      <p v-if="place" class="chosen">{{ places.find(({ id }) => id === place)?.name }}</p>
      <details class="by-name">
        <summary>By name</summary>
        <div class="places" role="group" aria-label="Part">
          <button v-for="part in parts" :key="part.id" type="button" :aria-pressed="place === part.id" @click="place = part.id">
            {{ part.name }}
          </button>
        </div>
        <div v-if="kind === 'leak'" class="places joints" role="group" aria-label="Tube with its two joints">
          <button v-for="joint in joints" :key="joint.id" type="button" :aria-pressed="place === joint.id" @click="place = joint.id">
            {{ joint.name }}
          </button>
        </div>
        <div v-for="group in sealGroups" :key="group.label" class="places" role="group" :aria-label="group.label">
          <button v-for="seal in group.seals" :key="seal.id" type="button" :aria-pressed="place === seal.id" @click="place = seal.id">
            {{ seal.name }}
          </button>
        </div>
      </details>
    </template>
    <div v-if="kind === 'leak'" class="pair">
      <v-select v-model="when" :items="LEAK_WHEN.map((value) => ({ value, title: WHEN[value] }))" label="It showed" hide-details />
      <v-select v-model="amount" :items="LEAK_AMOUNT.map((value) => ({ value, title: AMOUNT[value] }))" label="How much" hide-details />
    </div>
    <v-checkbox v-if="kind === 'spill'" v-model="electronics" label="It reached electronics: supply off at the wall first" hide-details />
    <template v-if="kind !== null">
      <v-text-field
        v-model="text"
        :label="kind === 'doubt' ? 'What it felt like (a crack, a slip, too easy)' : 'In words, if there is time'"
        hide-details
      />
      <p class="quiet">{{ SAYS[kind] }}</p>
    </template>
    <div v-if="kind !== null || problem" class="record">
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <v-btn v-if="kind !== null" type="submit" size="x-large" block>Put it on record</v-btn>
    </div>
  </form>
</template>

<style scoped>
/* over picture, order, figure and act; the pump's switch and the head stay where they are */
.sheet {
  grid-row: picture-start / act-end;
  grid-column: picture-start / picture-end;
  z-index: 20;
  background: var(--sheet);
  border: 3px solid var(--ink);
  border-left: 8px solid var(--danger);
  padding: 14px 20px;
  overflow: hidden auto;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 20px;
}
.kinds {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 10px;
}
.kinds button {
  min-height: 84px;
  font-size: 1.4rem;
  font-weight: 620;
  border: 2.5px solid var(--ink);
  border-radius: 3px;
}
.pump-off {
  flex: 1;
  min-height: 92px;
  font-size: 2rem;
  font-weight: 700;
  background: var(--danger);
  color: var(--on-danger);
  border-radius: 3px;
}
.picture {
  background: var(--ground);
}
.chosen {
  font-size: 1.3rem;
  font-weight: 620;
}
.places {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px;
  margin-bottom: 8px;
}
.places button {
  min-height: 52px;
  padding: 4px 12px;
  border: 1.5px solid var(--line);
  border-radius: 3px;
  text-align: left;
}
[aria-pressed='true'],
.kinds [aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}
summary {
  min-height: 40px;
  cursor: pointer;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
p {
  margin: 0;
}
/* in reach of a wet thumb, however much stands above it */
.record {
  position: sticky;
  bottom: -14px;
  padding: 10px 0 14px;
  background: var(--sheet);
  z-index: 1;
}
/* held upright the switch stands in the middle: the sheet ends above it */
@media (max-width: 1000px) {
  .sheet {
    grid-row: picture-start / so-far-end;
    grid-column: picture-start / picture-end;
  }
  .kinds button {
    min-height: 56px;
    font-size: 1.2rem;
  }
  .pump-off {
    min-height: 64px;
  }
}
@media (max-width: 600px) {
  header {
    flex-wrap: wrap;
    gap: 8px;
  }
  .pump-off {
    flex-basis: 100%;
    order: 1;
  }
  .kinds {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
