<script setup lang="ts">
import type { BookableLoop } from '@core/workshop/jobs/answers.js';
import type { SystemPage } from '@core/workshop/machines/answers.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { computed, reactive, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import {
  ABOUT_A_PART,
  BOOKED_KIND_KEYS,
  BOOKED_KINDS,
  isBuild as isBuildKind,
  mayWant,
  type BookedKind,
} from '@core/workshop/job-kinds/kinds.js';
import { isOutline } from '@core/machine/loop-file/outline.js';
import { changeBetween } from '@core/machine/loop-change/loopChange.js';
import { toHave } from '@core/edge/words/loopChange.js';
import { shortName } from '@core/machine/catalogue/names.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { call, get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useSubmit } from '../base/http/useSubmit.js';
import { filledOf } from '../machine/profile/filledOf.js';
import ItSays from '../machine/condition/ItSays.vue';
import { useSays } from '../machine/condition/useSays.js';
import LoopProfile from '../machine/profile/LoopProfile.vue';
import { addDays } from '@core/base/units/calendar.js';
import { SOON_DAYS } from '@core/workshop/due-dates/defaults.js';
import { besideAs } from '@core/workshop/jobs/beside.js';
import BesideWorks from '../workshop/jobs/BesideWorks.vue';
import EstimateFields from '../workshop/jobs/EstimateFields.vue';
import IntakeFields from '../workshop/jobs/IntakeFields.vue';
import { adviseByHistory } from '@core/workshop/jobs/historyAdvice.js';
import { RINSES, usualEstimate } from '@core/workshop/jobs/usualEstimate.js';
import { blankForm, daysOf, estimateOf, intakeOf, priceOfForm, type JobForm } from '../workshop/jobs/jobForm.js';
import { hourOf } from '@core/workshop/prices/rates.js';
import { usePriceList } from '../workshop/prices/priceStore.js';
import { pourOf, type PourChoice } from '@core/workshop/jobs/pourChoice.js';
import PourFields from '../workshop/jobs/PourFields.vue';
import WaysOn from '../workshop/jobs/WaysOn.vue';
import BuildNeeds from '../workshop/jobs/BuildNeeds.vue';
import WantedLoop from '../workshop/jobs/WantedLoop.vue';
import VerdictBar from '../workshop/jobs/VerdictBar.vue';
import ScopeLadder from '../workshop/jobs/ScopeLadder.vue';

/** A machine comes in: what is said and seen, the lightest job that is safe, what the owner is told. */
const props = defineProps<{ id: string }>();
const router = useRouter();
const route = useRoute();
const submit = useSubmit();
const coolants = useCoolants();
const { data: page, problem: pageProblem } = usePage(
  async (signal) => (await Promise.all([get<SystemPage>(`/systems/${props.id}`, signal), coolants.load()]))[0],
  () => props.id,
);
const loopId = ref<string | null>(null);
const { data: history, problem: historyProblem } = usePage((signal) => get<BookableLoop>(`/loops/${loopId.value}/history`, signal), loopId);
const problem = computed(() => pageProblem.value ?? historyProblem.value);
const form = reactive<JobForm>(blankForm());
/** a loop that was never filled is built: nothing came in that could be looked at */
const isBuild = computed(() => isBuildKind(form.kind));
/** the machine has another cooler now, that is measured and comes off first */
const fromCooler = computed({ get: () => form.kind === 'into-loop', set: (is) => choose(is ? 'into-loop' : 'commissioning') });
/** true once somebody chose the kind: the advice does not overrule a hand */
const chosen = ref(false);

watch(page, (answer) => {
  const wanted = answer?.loops.find(({ id }) => id === route.query.loop);
  loopId.value = (wanted ?? answer?.loops[0])?.id ?? null;
  const kind = BOOKED_KIND_KEYS.find((each) => each === route.query.kind);
  if (answer?.system.state === 'planned') choose(kind === 'into-loop' ? kind : 'commissioning');
  else if (kind) choose(kind);
  // paste whose time is over goes along with whatever comes in
  const soon = answer ? addDays(answer.today, SOON_DAYS) : '';
  if (answer?.dues.some(({ kind, dueOn }) => kind === 'paste-renewal' && dueOn <= soon)) form.beside = ['paste'];
  if (typeof route.query.said === 'string' && !form.symptom)
    form.symptom = say('The awaited part is in. Holds for now: {said}', { said: route.query.said });
});

const prices = usePriceList();
const price = computed(() => priceOfForm(prices.list, form.kind, form.productId ?? loop.value?.coolantProductId ?? null, form));
/** it stands here as it is taken in; unticked, it comes on another day */
const here = ref(true);
// a loop that was never filled has nothing to say
const says = useSays(() => (page.value && !isBuild.value ? props.id : null));
const loop = computed(() => page.value?.loops.find(({ id }) => id === loopId.value) ?? null);
const { data: pours, settled: poursSettled } = usePage((signal) => get<PourChoice>(`/loops/${loopId.value}/pours`, signal), loopId);
const poured = computed(() => pourOf(pours.value, form.productId ?? loop.value?.coolantProductId ?? null));
/** what the advice is made of is there: it neither changes nor moves once it is read */
const stands = computed(() => poursSettled.value && (isBuild.value || says.settled.value));
// its own readings, today's among them, go before what two hand-overs say
const advice = computed(() =>
  history.value
    ? adviseByHistory(form, { ...history.value, risenK: says.risenK.value ?? history.value.risenK }, poured.value?.verdict ?? null)
    : null,
);
watch(
  () => advice.value?.kind,
  (kind) => {
    if (kind && !chosen.value) form.kind = kind;
  },
);
watch(history, (known) => {
  const asked = Number(route.query.wanted);
  form.wanted = known?.wishes.find(({ number }) => number === asked)?.number ?? firstWish();
});
/** a change cannot do without a drawing; whatever else takes one goes together as it was until somebody says otherwise */
const firstWish = (): number | null => (form.kind === 'loop-change' ? (history.value?.wishes[0]?.number ?? null) : null);
watch(
  () => form.kind,
  () => (form.wanted = form.wanted ?? firstWish()),
);
/** from the loop inside to the one that was chosen; null: the job leaves it as it is */
const work = computed(() => {
  const wish = mayWant(form.kind) ? history.value?.wishes.find(({ number }) => number === form.wanted) : undefined;
  return wish && history.value ? { file: wish.file, change: changeBetween(history.value.file, wish.file) } : null;
});
/** what was told last without anybody having touched it */
let told: ReturnType<typeof usualEstimate> | null = null;
watch(
  () => [form.kind, history.value, work.value, form.beside, poured.value?.rinses] as const,
  ([kind, known, wish], before) => {
    if (!known) return;
    const usual = usualEstimate(kind, wish?.file ?? known.file, {
      work: wish?.change ?? null,
      beside: form.beside,
      rinses: poured.value?.rinses ?? null,
    });
    // another job is told anew; what a hand has corrected stays where only a detail came in
    const anew = told === null || kind !== before?.[0];
    if (anew || form.hours === told?.hours) form.hours = usual.hours;
    if (anew || form.coolantMl === told?.coolantMl) form.coolantMl = usual.coolantMl;
    told = usual;
    // what the shelf may have keeps its price there: the names are told, the estimate stays to be corrected
    if (wish) form.parts = toHave(wish.change).map((each) => ({ ...each, itemId: null, eachMinor: null }));
  },
);
function choose(kind: BookedKind): void {
  chosen.value = true;
  form.kind = kind;
}
const parts = computed(() =>
  (history.value && !isOutline(history.value.file) ? history.value.file.components : []).map((part) => ({
    value: part.id,
    title: shortName(part),
  })),
);
/** the follow-up that this job is for */
const answers = computed(() => (typeof route.query.answers === 'string' ? route.query.answers : null));
const needsPart = computed(() => !isBuildKind(form.kind) && ABOUT_A_PART.includes(form.kind));

async function book(): Promise<void> {
  const made = await submit.run((idempotencyKey) =>
    call<{ id: string }>('POST', `/systems/${props.id}/jobs`, {
      body: {
        loopId: loopId.value,
        answers: answers.value,
        kind: form.kind,
        partId: needsPart.value ? form.partId : null,
        wanted: mayWant(form.kind) ? form.wanted : null,
        productId: form.productId,
        beside: besideAs(form.kind, form.beside),
        intake: intakeOf(form),
        estimate: estimateOf(form),
        ...daysOf(form),
        note: form.note,
        here: here.value,
      },
      idempotencyKey,
    }),
  );
  if (made) await router.replace(`/jobs/${made.id}`);
}
</script>

<template>
  <main class="page">
    <p v-if="problem" role="alert">{{ problem }} <router-link :to="`/systems/${id}`">Back to the machine</router-link></p>
    <section v-else-if="page && page.loops.length === 0" class="stack none">
      <h1>Take in {{ page.system.name }}</h1>
      <p>
        <strong>Its loop is not known yet.</strong> A job is led by it: how much it holds, where it drains, which joints are undone. Enter
        its parts in the order the liquid meets them; a catalogue knows their volumes, and what the eye cannot tell may stay an estimate.
      </p>
      <p class="quiet">
        Built by somebody else: look which port is lowest, where the reservoir stands and what colour the liquid has. Top up nothing that
        you do not know: two coolants may fall out together.
      </p>
      <div class="row">
        <v-btn size="x-large" :to="`/systems/${id}/loops/new`">Enter its loop</v-btn>
        <v-btn variant="text" size="large" :to="`/systems/${id}`">Not now</v-btn>
      </div>
    </section>
    <form v-else-if="page && history && advice && stands" class="new-job" novalidate @submit.prevent="book">
      <header class="spread">
        <div>
          <h1>{{ isBuild ? `Build ${page.system.name}` : `Take in ${page.system.name}` }}</h1>
          <p class="quiet">
            {{ page.owner.name }}<template v-if="page.owner.phone"> · {{ page.owner.phone }}</template>
          </p>
        </div>
        <p v-if="history.ageDays !== null" class="big-number age">
          {{ history.ageDays }} <small>days old: {{ history.coolantName }}</small>
        </p>
        <p v-else-if="!isBuild" class="quiet">No fill of this loop is on record.</p>
      </header>
      <v-select v-if="page.loops.length > 1" v-model="loopId" :items="page.loops" item-title="name" item-value="id" label="Which loop" />
      <LoopProfile
        v-if="loop?.revision && !isOutline(loop.revision.file)"
        :loop="loop.revision.file"
        :filled="filledOf(loop.inside)"
        :colour="coolants.find(loop.coolantProductId)?.colour"
        :height="130"
      />
      <div class="columns">
        <div class="stack">
          <IntakeFields
            :system-id="id"
            :build="isBuild"
            :model-value="form"
            :baseline-flow-lph="history.baselineFlowLph"
            :dyes="history.dyes"
            :at="submit.at"
            @update:model-value="Object.assign(form, $event)"
          >
            <ItSays v-if="!isBuild" :system-id="id" :lines="says.lines.value" :early-lots="page.earlyLots" />
          </IntakeFields>
        </div>
        <div class="stack">
          <h2>{{ capital(sayWord(BOOKED_KINDS[form.kind].label)) }}</h2>
          <ScopeLadder
            v-if="!isBuildKind(form.kind)"
            :model-value="form.kind"
            :advice="advice"
            :file="history.file"
            @update:model-value="choose"
          />
          <label v-else class="tick"
            ><input v-model="fromCooler" type="checkbox" /> It has another cooler now: measured with that, which then comes off</label
          >
          <BuildNeeds v-if="isBuild && !isOutline(history.file)" v-model="form.parts" :file="history.file" />
          <WantedLoop
            v-if="form.kind === 'loop-change' || (mayWant(form.kind) && history.wishes.length > 0)"
            v-model="form.wanted"
            :optional="form.kind !== 'loop-change'"
            :wishes="history.wishes"
            :chosen="work"
            :loop-id="loopId"
            :colour="coolants.find(loop?.coolantProductId ?? null)?.colour ?? null"
            :at="submit.at"
          />
          <v-select
            v-if="needsPart"
            v-model="form.partId"
            :items="parts"
            :label="form.kind === 'part-conversion' ? 'Which part gets a cooler of its own' : 'Which part is changed'"
            :error-messages="submit.at('partId')"
          />
          <WaysOn
            v-if="form.kind === 'conversion' || form.kind === 'part-conversion' || form.kind === 'retirement'"
            :file="history.file"
            :now="poured"
            :today="page.today"
            :hour-minor="hourOf(prices.list.rates, form.kind)"
            :currency="prices.currency"
            :held="says.held.value"
          />
          <PourFields
            v-if="pours && BOOKED_KINDS[form.kind].fill === 'anew'"
            v-model="form.productId"
            :choice="pours"
            :now-id="loop?.coolantProductId ?? null"
            :today="page.today"
            :currency="prices.currency"
            :rinses="RINSES.includes(form.kind) || isBuild"
            @flush="choose('flush-refill')"
          />
          <BesideWorks v-model="form.beside" :kind="form.kind" :file="history.file" :work="work?.change ?? null" />
          <EstimateFields
            :model-value="form"
            :at="submit.at"
            :today="page.today"
            :coolant-id="form.productId ?? loop?.coolantProductId ?? null"
          />
          <label class="tick"
            ><input v-model="here" type="checkbox" /> {{ isBuild ? 'Its parts are here now' : 'It stands here now' }}</label
          >
          <p class="quiet">Hours are workshop practice, not this machine’s own. The owner’s consent follows on the next page.</p>
        </div>
      </div>
      <VerdictBar :kind="form.kind" :hours="form.hours" :price="price" :advice="isBuild ? null : advice">
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <v-btn type="submit" size="x-large" :loading="submit.busy.value">Book it</v-btn>
        <v-btn variant="text" size="large" :to="`/systems/${id}`">Not now</v-btn>
      </VerdictBar>
    </form>
  </main>
</template>

<style scoped>
.new-job {
  display: grid;
  gap: 16px;
}
.tick {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.tick input {
  width: 24px;
  height: 24px;
}
.none {
  max-width: 70ch;
}
.age {
  text-align: right;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 44px;
  align-items: start;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
