<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { USE_LIMIT_KEYS, type UseLimit } from '@core/workshop/due-dates/facts.js';
import { JOB_KIND_KEYS, JOB_KINDS, type JobKind } from '@core/workshop/job-kinds/kinds.js';
import { OWED, OWED_KEYS, type OwedKind } from '@core/workshop/due-dates/owed.js';
import { USE_LIMITS } from '@core/workshop/due-dates/useLimits.js';
import { computed, reactive, ref, watch } from 'vue';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';

/** What stays open when the hands are done: a fix that holds for now, a seal that came from elsewhere, what is owed. At any time, in any run. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ procedure: Procedure }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();

type Kind = 'fix' | 'seal' | OwedKind;
const kind = ref<Kind>('fix');
const form = reactive<{ what: string; awaits: string; until: string; limits: UseLimit[]; from: string | null; then: JobKind }>({
  what: '',
  awaits: '',
  until: '',
  limits: [],
  from: null,
  then: 'leak-repair',
});
const jobs = JOB_KIND_KEYS.map((value) => ({ value, title: say(JOB_KINDS[value].label) }));
const problem = ref<string | null>(null);
watch(open, (now) => {
  if (!now) return;
  Object.assign(form, { what: '', awaits: '', until: '', limits: ['do-not-move', 'level-daily'], from: null });
  problem.value = null;
});
const kinds = [
  { value: 'fix' as const, title: say('Holds for now') },
  { value: 'seal' as const, title: say('Seal borrowed') },
  ...OWED_KEYS.map((value) => ({ value, title: say(OWED[value]) })),
];
const LABELS: Record<Kind, string> = {
  fix: 'What holds for now',
  seal: 'Where the seal went',
  'not-connected': 'What is not connected again',
  reading: 'Which reading is owed',
  look: 'What somebody looks at',
};
const places = computed(() => {
  const { parts = [], joints = [], ports = [] } = props.procedure.facts ?? {};
  return [
    ...joints.map(({ id, name }) => ({ value: id, title: say('joint: {name}', { name }) })),
    ...ports.map(({ name, label }) => ({ value: name, title: label })),
    ...parts.map(({ id, name }) => ({ value: id, title: name })),
  ];
});

/** what is still missing, in words; null: it can be written down */
function lack(): string | null {
  if (!form.what.trim()) return `${say(LABELS[kind.value])}?`;
  if (kind.value === 'seal') return form.from === null ? say('From which place was it taken? It stays open.') : null;
  if (!form.until) return say('By which day?');
  if (kind.value !== 'fix') return null;
  if (!form.awaits.trim()) return say('What is awaited?');
  return form.limits.length === 0 ? say('At least one limit of use until then.') : null;
}

function write(): void {
  problem.value = lack();
  if (problem.value) return;
  const what = form.what.trim();
  const { until } = form;
  if (kind.value === 'seal') emit('send', { type: 'seal-borrowed', from: form.from ?? '', text: what });
  else if (kind.value === 'fix')
    emit('send', { type: 'temporary-fix', what, awaits: form.awaits.trim(), until, limits: [...form.limits], then: form.then });
  else emit('send', { type: 'owed', kind: kind.value, what, until });
  open.value = false;
}
</script>

<template>
  <FormDialog v-model="open" title="What stays open" button="Write it down" :problem="problem" :width="760" @submit="write">
    <ChoiceRow v-model="kind" :options="kinds" label="It" />
    <v-select v-if="kind === 'seal'" v-model="form.from" :items="places" label="Taken from: this place stays open" hide-details />
    <v-text-field v-model="form.what" :label="LABELS[kind]" hide-details />
    <div v-if="kind !== 'seal'" class="pair">
      <v-text-field
        v-if="kind === 'fix'"
        v-model="form.awaits"
        label="What is awaited"
        placeholder="half a metre of the same tube"
        hide-details
      />
      <DayField v-model="form.until" :label="kind === 'fix' ? 'Final fix by' : 'By'" hide-details />
    </div>
    <v-select v-if="kind === 'fix'" v-model="form.then" :items="jobs" label="The final fix is then a job of its own" hide-details />
    <fieldset v-if="kind === 'fix'">
      <legend>Until then the owner</legend>
      <label v-for="limit in USE_LIMIT_KEYS" :key="limit"
        ><input v-model="form.limits" type="checkbox" :value="limit" /> {{ USE_LIMITS[limit] }}</label
      >
    </fieldset>
    <p class="quiet">
      {{
        kind === 'seal'
          ? 'No air, no liquid and no pump before that place has a seal again.'
          : 'It opens a follow-up on its day: when this run waits, or when it is signed off.'
      }}
    </p>
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 220px;
  gap: 14px;
}
.pair > :only-child {
  grid-column: 2;
}
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 48px;
}
input[type='checkbox'] {
  width: 24px;
  height: 24px;
  accent-color: var(--ink);
}
p {
  margin: 0;
}
@media (max-width: 640px) {
  .pair,
  fieldset {
    grid-template-columns: 1fr;
  }
  .pair > :only-child {
    grid-column: 1;
  }
}
</style>
