<script setup lang="ts">
import { LEAK_AMOUNT, LEAK_WHEN, type LeakAmount, type LeakWhen } from '@core/bench/leak-finding/causes.js';
import { FILL_SYMPTOM_KEYS, FILL_SYMPTOMS, type FillSymptom } from '@core/bench/fill-troubles/causes.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, ref, watch } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import FormDialog from '../../base/look/FormDialog.vue';

/** Something is wrong: one touch, which part, and it is on record. The wording comes after. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ procedure: Procedure; pumpOn?: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();

const KINDS = { doubt: 'Felt wrong', leak: 'A leak', spill: 'A spill', fill: 'The filling' } as const;
const kind = ref<keyof typeof KINDS>('doubt');
const place = ref<string | null>(null);
const text = ref('');
const when = ref<LeakWhen>('pump-start');
const amount = ref<LeakAmount>('drip');
const electronics = ref(false);
const symptom = ref<FillSymptom>('level-stays');
const problem = ref<string | null>(null);
watch(open, () => {
  place.value = null;
  text.value = '';
  electronics.value = false;
  problem.value = null;
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
const parts = computed(() => props.procedure.facts?.parts ?? []);
const joints = computed(() => props.procedure.facts?.joints ?? []);

function say(): void {
  if ((kind.value === 'doubt' || kind.value === 'leak') && place.value === null) {
    problem.value =
      kind.value === 'doubt' ? 'Touch the part that felt wrong.' : 'Touch the place where it is wet: the towel names the joint.';
    return;
  }
  const words = text.value.trim();
  if (kind.value === 'doubt') emit('send', { type: 'doubt', part: place.value as string, text: words || 'something felt wrong' });
  else if (kind.value === 'leak')
    emit('send', { type: 'leak', at: place.value as string, when: when.value, amount: amount.value, text: words });
  else if (kind.value === 'fill') emit('send', { type: 'fill-trouble', symptom: symptom.value, text: words });
  else emit('send', { type: 'spill', onElectronics: electronics.value, text: words || 'coolant spilled' });
  open.value = false;
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="Something is wrong"
    button="Put it on record"
    :problem="problem"
    :width="820"
    size="x-large"
    @submit="say"
  >
    <button v-if="pumpOn" type="button" class="pump-off" @click="emit('send', { type: 'pump', on: false })">Pump off</button>
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
    <template v-if="kind === 'doubt' || kind === 'leak'">
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
    </template>
    <div v-if="kind === 'leak'" class="pair">
      <v-select v-model="when" :items="LEAK_WHEN.map((value) => ({ value, title: WHEN[value] }))" label="It showed" hide-details />
      <v-select v-model="amount" :items="LEAK_AMOUNT.map((value) => ({ value, title: AMOUNT[value] }))" label="How much" hide-details />
    </div>
    <v-checkbox v-if="kind === 'spill'" v-model="electronics" label="It reached electronics: supply off at the wall first" hide-details />
    <v-text-field
      v-model="text"
      :label="kind === 'doubt' ? 'What it felt like (a crack, a slip, too easy)' : 'In words, if there is time'"
      hide-details
    />
    <p class="quiet">
      {{
        kind === 'doubt'
          ? 'No liquid goes in until that part was tested on its own.'
          : kind === 'leak'
            ? 'Supply off first. The pump stays locked until it is mended, the record unsigned until it was tested again.'
            : kind === 'fill'
              ? 'Pump off while you look. The causes come ranked, each with its next check.'
              : 'Blot, rinse as the part’s maker advises, then a day to dry before power.'
      }}
    </p>
  </FormDialog>
</template>

<style scoped>
.pump-off {
  min-height: 88px;
  width: 100%;
  font-size: 1.9rem;
  font-weight: 600;
  background: var(--danger);
  color: var(--on-danger);
  border-radius: 3px;
}
.kinds,
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.kinds button,
.places button {
  min-height: var(--touch);
  padding: 0 18px;
  border: 1.5px solid var(--line);
  border-radius: 3px;
}
.kinds [aria-pressed='true'],
.places [aria-pressed='true'] {
  background: var(--slab);
  color: var(--on-slab);
}
.joints button {
  min-height: 46px;
  padding: 0 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
