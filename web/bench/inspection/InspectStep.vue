<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import FramePart from '../frame/FramePart.vue';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, reactive, ref, useId, watch } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import {
  asksForCause,
  DEPOSITS,
  FINISHES,
  GRADE_WORDS,
  gradeItem,
  HAS_SEAL,
  isTube,
  SEALS,
  SIDES,
  SOUND,
  SURFACES,
  WALLS,
  WEARS,
  type Deposit,
  type Finish,
  type ItemFindings,
  type Seal,
  type Side,
  type Surface,
  type Wall,
} from '@core/bench/inspection/grade.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import PhotoButton from '../../workshop/photos/PhotoButton.vue';
import CauseForm from './CauseForm.vue';

/** The inspection sheet: every part, plug and run once; each tap says what becomes of it and by which rule. */
const props = defineProps<{
  procedure: Procedure;
  state: RunState;
  systemId: string;
  jobId: string | null;
  locked: boolean;
  picked?: { readonly id: string } | null;
}>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();

type Form = { -readonly [K in keyof ItemFindings]: ItemFindings[K] };
const items = computed(() => props.procedure.service?.items ?? []);
const at = ref<string | null>(null);
/** its button stands outside the form, where every step has its act */
const formId = useId();
/** of a plug alone */
const UNSAID = { side: null, finish: null };
const form = reactive<Form & { side: Side | null; finish: Finish | null }>({ ...UNSAID, ...SOUND });

const seenOf = (id: string): ItemFindings | null => props.state.service.sheet.get(id)?.last ?? null;
const rows = computed(() =>
  items.value.map((item) => {
    const seen = seenOf(item.id);
    return { item, seen, graded: seen ? gradeItem(item.kind, seen) : null };
  }),
);
const open = computed(() => rows.value.filter(({ seen }) => seen === null));
const chosen = computed(() => items.value.find(({ id }) => id === at.value) ?? open.value[0]?.item ?? items.value[0] ?? null);
const preview = computed(() => (chosen.value ? gradeItem(chosen.value.kind, form) : null));
const causeAsked = computed(() => asksForCause([...props.state.service.sheet.values()].map(({ first }) => first)));
const tube = computed(() => chosen.value !== null && isTube(chosen.value.kind));
/** what stood on its bag, as far as it was written down when it went in */
const lotWords = computed(() => {
  const bag = props.procedure.fitted?.find(({ item }) => item === chosen.value?.id);
  return bag ? say('{make}, lot {lot}', { make: bag.make, lot: bag.lot }) : say('Its lot is not known.');
});
const wears = computed(() => (chosen.value ? sayWord(WEARS[chosen.value.kind]) : null));

// touched on the picture
watch(
  () => props.picked,
  (touched) => {
    if (touched) at.value = touched.id;
  },
);
watch(
  () => chosen.value?.id,
  (id) => Object.assign(form, UNSAID, SOUND, id ? (seenOf(id) ?? {}) : {}),
  { immediate: true },
);

function keep(findings: ItemFindings): void {
  const item = chosen.value;
  if (!item) return;
  const { side, finish, ...seen } = findings;
  emit('send', {
    type: 'inspected',
    step: 'inspect',
    item: item.id,
    findings: { ...seen, ...(side ? { side } : {}), ...(finish ? { finish } : {}) },
  });
  const next = rows.value.find((row) => row.seen === null && row.item.id !== item.id);
  at.value = next?.item.id ?? item.id;
}
const WORDS: Readonly<Record<Deposit | Surface | Seal | Wall | Side | Finish, string>> = {
  none: 'none',
  film: 'film',
  layer: 'layer',
  blocked: 'blocked',
  sound: 'sound',
  'plating-loss': 'plating gone',
  pitted: 'pitted',
  cracked: 'cracked',
  supple: 'supple',
  flattened: 'flattened',
  cut: 'cut',
  clear: 'clear',
  coloured: 'coloured',
  hard: 'hard',
  inlet: 'the inlet',
  outlet: 'the outlet',
  nickel: 'nickel',
  chrome: 'chrome',
  black: 'black',
  bare: 'bare metal',
  plastic: 'plastic',
};
const options = <T extends keyof typeof WORDS>(values: readonly T[]) => values.map((value) => ({ value, title: say(WORDS[value]) }));
</script>

<template>
  <section class="inspect">
    <p class="count figures" aria-live="polite">
      <b>{{ open.length }}</b> {{ open.length === 1 ? 'item to look at' : 'items to look at' }}
    </p>
    <ol class="plain-list sheet-list" aria-label="Inspection sheet">
      <li v-for="{ item, graded } in rows" :key="item.id">
        <button type="button" :aria-current="item.id === chosen?.id" @click="at = item.id">
          <i :class="graded?.grade ?? 'open'" aria-hidden="true" />
          <span>{{ item.name }}</span>
          <span class="quiet">{{ graded ? GRADE_WORDS[graded.grade] : '' }}</span>
        </button>
      </li>
    </ol>
    <FramePart v-if="causeAsked && open.length === 0 && !locked" at="work">
      <CauseForm :state="state" :items="items" :job-id="jobId" @send="emit('send', $event)" />
    </FramePart>
    <FramePart v-else-if="chosen && !locked" at="work">
      <form :id="formId" class="item" novalidate @submit.prevent="keep(form)">
        <div class="spread">
          <h3>{{ chosen.name }}</h3>
          <v-btn size="large" variant="outlined" @click="keep(SOUND)">Sound, next</v-btn>
        </div>
        <ChoiceRow v-model="form.deposit" label="Deposit" :options="options(DEPOSITS)" />
        <ChoiceRow v-if="!tube" v-model="form.surface" label="Surface" :options="options(SURFACES)" />
        <ChoiceRow v-if="tube" v-model="form.wall" label="Wall, cut open" may-be-none :options="options(WALLS)" />
        <ChoiceRow v-if="HAS_SEAL[chosen.kind]" v-model="form.seal" label="O-ring, gasket" may-be-none :options="options(SEALS)" />
        <template v-if="chosen.kind === 'plug'">
          <ChoiceRow v-model="form.side" label="On the side of" may-be-none :options="options(SIDES)" />
          <ChoiceRow v-model="form.finish" label="Its surface is" may-be-none :options="options(FINISHES)" />
          <p class="quiet">{{ lotWords }}</p>
        </template>
        <div class="last">
          <label v-if="wears" class="worn"><input v-model="form.worn" type="checkbox" /> {{ wears }}</label>
          <v-text-field v-model="form.text" label="Note" hide-details />
        </div>
      </form>
    </FramePart>
    <FramePart v-if="chosen && !locked && !(causeAsked && open.length === 0)" at="act">
      <p v-if="preview" class="rule" aria-live="polite">
        <strong>{{ GRADE_WORDS[preview.grade] }}</strong>: {{ preview.rule
        }}<template v-if="preview.renewSeal">; renew the O-ring</template>
      </p>
      <div class="row">
        <v-btn type="submit" :form="formId" size="x-large">Looked at, next</v-btn>
        <PhotoButton
          :system-id="systemId"
          :job-id="jobId"
          :caption="chosen.name"
          @taken="emit('send', { type: 'photo', step: 'inspect', photoId: $event, caption: chosen?.name ?? '' })"
        />
      </div>
    </FramePart>
  </section>
</template>

<style scoped>
.inspect {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.count b {
  font-size: 2.6rem;
  font-weight: 300;
}
.sheet-list button {
  display: grid;
  grid-template-columns: 16px 1fr auto;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  text-align: left;
  border-bottom: 1px solid var(--line-soft);
}
.sheet-list [aria-current='true'] {
  background: var(--well);
  font-weight: 620;
}
i {
  width: 14px;
  height: 14px;
  border: 2px solid var(--ink);
  border-radius: 50%;
}
i.reuse {
  background: var(--ink);
}
i.watch {
  background: linear-gradient(90deg, var(--ink) 50%, transparent 50%);
}
i.replace,
i.clean-again {
  border-radius: 0;
  background: var(--ink);
  transform: rotate(45deg) scale(0.85);
}
i.clean-again {
  background: none;
}
.item {
  display: grid;
  gap: 8px;
}
.last {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 12px;
  align-items: center;
}
.worn {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.worn input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
.rule {
  border-left: 4px solid var(--ink);
  padding: 4px 0 4px 12px;
}
</style>
