<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import type { ProceduresAnswer } from '@core/bench/procedures/answers.js';
import { compareTemplates, type TemplateChange } from '@core/bench/procedures/compareTemplates.js';
import { PROCEDURE_KINDS, procedureLabel, protectedSteps, type ProcedureKind } from '@core/bench/procedures/procedureKinds.js';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { ProcedureTemplate, StepTemplate } from '@core/bench/runs/template.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { call, get, wordsOf } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useSubmit } from '../base/http/useSubmit.js';
import { useNotices } from '../base/shell/notices.js';
import { useDates } from '../base/units/dates.js';
import StepEditor from '../bench/runs/StepEditor.vue';

const props = defineProps<{ kind?: string }>();
const router = useRouter();
const kind = computed<ProcedureKind>(() => PROCEDURE_KINDS.find((each) => each === props.kind) ?? 'commissioning');
const kinds = PROCEDURE_KINDS.map((value) => ({ value, title: procedureLabel(value) }));
const fixed = computed(() => protectedSteps(kind.value));
const session = useSession();
const notices = useNotices();
const dates = useDates();
const submit = useSubmit();
const { data: answer, problem, take, load } = usePage((signal) => get<ProceduresAnswer>(`/procedures?kind=${kind.value}`, signal), kind);
const draft = ref<ProcedureTemplate | null>(null);
const note = ref('');
const open = ref<string | null>('kit');
/** number of the version that is compared with; 0 is the standard one */
const against = ref(0);

const isLead = computed(() => session.account?.role === 'lead');
async function strike({ id, name }: ProceduresAnswer['learned'][number]): Promise<void> {
  try {
    await call('DELETE', `/kit-learned/${id}`, {});
    notices.say(say('{name} is not asked for any more.', { name }), async () => {
      await call('POST', `/kit-learned/${id}/back`, {});
      await load();
    });
    await load();
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
const newest = computed(() => answer.value?.versions[0] ?? null);
const shown = computed(() => draft.value ?? newest.value?.template ?? answer.value?.standard ?? null);
/** the step in the middle; where it was taken out, the first */
const chosen = computed(() => shown.value?.steps.find(({ id }) => id === open.value) ?? shown.value?.steps[0] ?? null);
const templateOf = (number: number): ProcedureTemplate | null =>
  number === 0 ? (answer.value?.standard ?? null) : (answer.value?.versions.find((version) => version.number === number)?.template ?? null);
const choices = computed(() => [
  { value: 0, title: say('the standard procedure') },
  ...(answer.value?.versions ?? []).map(({ number, at }) => ({
    value: number,
    title: say('version {number} of {day}', { number, day: dates.day(at) }),
  })),
]);
const changes = computed<TemplateChange[]>(() => {
  const before = templateOf(against.value);
  return before && shown.value ? compareTemplates(before, shown.value) : [];
});
const changed = computed(
  () => draft.value !== null && compareTemplates(newest.value?.template ?? answer.value?.standard ?? draft.value, draft.value).length > 0,
);

// what was edited belongs to the version that it began with
watch(answer, (now) => {
  draft.value = null;
  note.value = '';
  against.value = now?.versions[1]?.number ?? 0;
});

function change(next: StepTemplate): void {
  if (!shown.value) return;
  draft.value = { steps: shown.value.steps.map((step) => (step.id === next.id ? next : step)) };
}
function remove(id: string): void {
  if (shown.value) draft.value = { steps: shown.value.steps.filter((step) => step.id !== id) };
}
function addAfter(id: string): void {
  if (!shown.value) return;
  const taken = new Set(shown.value.steps.map((step) => step.id));
  let number = 1;
  // a step of its own keeps its name when a job becomes another kind
  const prefix = kind.value === 'commissioning' ? 'own' : `${kind.value}-own`;
  while (taken.has(`${prefix}-${number}`)) number += 1;
  const made: StepTemplate = {
    id: `${prefix}-${number}`,
    kind: 'checks',
    title: say('A step of our own'),
    lead: say('What the hands do.'),
    cautions: [],
    timers: [],
    checks: [{ id: 'first', text: say('What is ticked') }],
  };
  draft.value = { steps: shown.value.steps.flatMap((step) => (step.id === id ? [step, made] : [step])) };
  open.value = made.id;
}
async function save(): Promise<void> {
  const now = await submit.run((idempotencyKey) =>
    call<ProceduresAnswer>('POST', '/procedures', {
      body: { kind: kind.value, template: draft.value, note: note.value.trim(), from: newest.value?.number ?? 0 },
      idempotencyKey,
    }),
  );
  if (!now) return;
  take(now);
  notices.say(say('Version {number} leads the next run. Runs on the benches keep theirs.', { number: now.versions[0]?.number }));
}
</script>

<template>
  <main class="page">
    <p class="quiet"><router-link to="/workshop">Workshop</router-link></p>
    <v-select
      :model-value="kind"
      :items="kinds"
      label="Leads"
      class="kind no-print"
      :disabled="changed"
      :hint="changed ? 'Save or drop the changes first' : ''"
      persistent-hint
      @update:model-value="router.replace(`/workshop/procedure/${$event}`)"
    />
    <h1>
      Procedure <small v-if="newest">version {{ newest.number }}</small
      ><small v-else>as it comes</small>
    </h1>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <div v-if="answer && shown" class="columns">
      <ol class="plain-list steps" aria-label="Steps">
        <li v-for="(step, index) in shown.steps" :key="step.id">
          <button type="button" class="step" :aria-current="chosen?.id === step.id ? 'step' : undefined" @click="open = step.id">
            <span class="figures">{{ index + 1 }}</span> <b>{{ sayWord(step.title) }}</b>
          </button>
        </li>
      </ol>
      <StepEditor
        v-if="chosen"
        :key="chosen.id"
        :step="chosen"
        :readonly="!isLead"
        :removable="!fixed.includes(chosen.id)"
        @change="change"
        @remove="remove(chosen.id)"
        @add-after="addAfter(chosen.id)"
      />
      <aside>
        <form v-if="changed" class="save" novalidate @submit.prevent="save">
          <v-text-field v-model="note" label="What changed, and why" :error-messages="submit.at('note')" />
          <div class="row">
            <v-btn type="submit" size="large" :disabled="note.trim().length < 3" :loading="submit.busy.value"
              >Save as version {{ (newest?.number ?? 0) + 1 }}</v-btn
            >
            <v-btn variant="text" size="large" @click="draft = null">Drop the changes</v-btn>
          </div>
          <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        </form>
        <p v-else-if="!isLead" class="quiet">Only the lead changes the procedure.</p>
        <h2 class="mt-6">Differences</h2>
        <v-select v-model="against" :items="choices" label="Compared with" density="comfortable" hide-details class="mt-2" />
        <p v-if="changes.length === 0" class="quiet mt-2">None.</p>
        <ul class="plain-list changes">
          <li v-for="(each, index) in changes" :key="index">
            <b>{{ each.step }}</b>, {{ each.what }} {{ each.kind }}
            <del v-if="each.before && each.what !== 'step'">{{ each.before }}</del>
            <ins v-if="each.after && each.what !== 'step'">{{ each.after }}</ins>
          </li>
        </ul>
        <h2 class="mt-6">Learned for the kit</h2>
        <p v-if="answer.learned.length === 0" class="quiet mt-2">
          Nothing yet. What is said to be missing in the middle of a job is asked for in the next kit.
        </p>
        <ul class="plain-list mt-2">
          <li v-for="line in answer.learned" :key="line.id" class="spread">
            <span
              >{{ line.name }} <span class="quiet">missing {{ dates.day(line.on) }}</span></span
            >
            <button v-if="isLead" type="button" class="link" :aria-label="`${line.name} is not asked for`" @click="strike(line)">
              not asked for
            </button>
          </li>
        </ul>
        <h2 class="mt-6">Versions</h2>
        <ul class="plain-list quiet mt-2">
          <li v-for="version in answer.versions" :key="version.number" class="figures">
            {{ version.number }}, {{ dates.day(version.at) }}, {{ version.by }}: {{ version.note }}
          </li>
          <li v-if="answer.versions.length === 0">
            The standard procedure. Open a step, change a word or add a check, and it becomes yours; every run says which version led it.
          </li>
        </ul>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.kind {
  float: right;
  width: 360px;
}
h1 small {
  font-weight: 320;
}
.columns {
  display: grid;
  grid-template-columns: 210px minmax(0, 1.8fr) minmax(260px, 0.8fr);
  gap: 28px;
  align-items: start;
  margin-top: 14px;
}
.steps > li {
  border-top: 1px solid var(--line-soft);
}
.step {
  display: grid;
  grid-template-columns: 28px 1fr;
  gap: 8px;
  width: 100%;
  text-align: left;
  align-items: center;
  min-height: 48px;
  padding: 4px 8px;
}
.step b {
  font-weight: 420;
}
[aria-current='step'] {
  background: var(--ink);
  color: var(--ground);
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
.changes li {
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}
del,
ins {
  display: block;
  text-decoration: none;
  padding-left: 14px;
}
del {
  color: var(--ink-soft);
  text-decoration: line-through;
}
ins {
  border-left: 4px solid var(--ink);
  padding-left: 10px;
}
.save {
  position: sticky;
  top: 12px;
  background: var(--sheet);
  padding: 14px 16px;
  z-index: 3;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
