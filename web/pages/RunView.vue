<script setup lang="ts">
import KeyCap from '../base/keys/KeyCap.vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { whyWords } from '@core/edge/words/bench.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { lacksOf } from '@core/bench/runs/criteria.js';
import { computed, provide, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { timerFace } from '@core/bench/runs/state.js';
import { openOf, rowsOf } from '@core/bench/runs/looks.js';
import { isDrawnDown } from '@core/bench/runs/drawDown.js';
import { waitingNow } from '@core/bench/runs/waiting.js';
import BaselineStep from '../bench/baseline/BaselineStep.vue';
import BleedStep from '../bench/air/BleedStep.vue';
import { useSession } from '../workshop/people/sessionStore.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import FillStep from '../bench/filling/FillStep.vue';
import { useStanding } from '../bench/filling/useStanding.js';
import TopUp from '../bench/filling/TopUp.vue';
import { call } from '../base/http/api.js';
import { useSubmit } from '../base/http/useSubmit.js';
import TroubleList from '../bench/leak-finding/TroubleList.vue';
import PartTestStep from '../bench/leak-testing/PartTestStep.vue';
import DryTestStep from '../bench/leak-testing/DryTestStep.vue';
import ServiceStep from '../bench/services/ServiceStep.vue';
import LoopProfile from '../machine/profile/LoopProfile.vue';
import { useNotices } from '../base/shell/notices.js';
import { useWakeLock } from '../base/shell/wakeLock.js';
import { useShortcuts } from '../base/keys/shortcuts.js';
import { CLOCK_AHEAD, useNow } from '../base/units/now.js';
import InstrumentStrip from '../bench/instruments/InstrumentStrip.vue';
import { LIVE_BENCH, useLiveBench } from '../bench/instruments/liveBench.js';
import DebriefView from '../bench/practice/DebriefView.vue';
import PracticeBar from '../bench/practice/PracticeBar.vue';
import HandsAtBench from '../bench/simulated-bench/HandsAtBench.vue';
import StandIn from '../bench/simulated-bench/StandIn.vue';
import WaitingPanel from '../bench/waiting/WaitingPanel.vue';
import CheckRows from '../bench/runs/CheckRows.vue';
import HandsPanel from '../bench/runs/HandsPanel.vue';
import PumpControl from '../bench/runs/PumpControl.vue';
import { orderedSpeed, usePumpSwitch } from '../bench/runs/pumpSwitch.js';
import RunDialogs from '../bench/runs/RunDialogs.vue';
import type { RunDialog } from '../bench/runs/runDialog.js';
import RunHead from '../bench/runs/RunHead.vue';
import RunLog from '../bench/runs/RunLog.vue';
import SignOffStep from '../bench/runs/SignOffStep.vue';
import StepRail from '../bench/runs/StepRail.vue';
import TimerPanel from '../bench/runs/TimerPanel.vue';
import { useRun } from '../bench/runs/useRun.js';

const props = defineProps<{ id: string }>();
const router = useRouter();
const coolants = useCoolants();
const session = useSession();
const notices = useNotices();
const desk = useRun(props.id);
const signing = useSubmit();
const now = useNow(1000, desk.aheadMs);
provide(CLOCK_AHEAD, desk.aheadMs);
/** the instruments of the bench it stands on, while it stands there */
const benchId = computed(() => (desk.answer.value?.run.state === 'active' ? desk.answer.value.run.benchId : null));
const live = useLiveBench(benchId);
provide(LIVE_BENCH, live);
// without them the liquid has no colour; the run goes on
void coolants.load().catch(() => undefined);
useWakeLock();

const looking = ref<string | null>(null);
const dialog = ref<RunDialog | null>(null);

const procedure = computed(() => desk.answer.value?.run.procedure ?? null);
const state = computed(() => desk.state.value);
const step = computed(
  () => procedure.value?.steps.find(({ id }) => id === (looking.value ?? desk.current.value?.id)) ?? procedure.value?.steps.at(-1) ?? null,
);
const progress = computed(() => state.value?.steps.find(({ id }) => id === step.value?.id) ?? null);
const isCurrent = computed(() => step.value?.id === desk.current.value?.id);
const waits = computed(() => state.value !== null && waitingNow(state.value) !== null);
const locked = computed(() => desk.answer.value?.run.state !== 'active' || !isCurrent.value || waits.value);
const open = computed(() =>
  procedure.value && state.value && step.value
    ? lacksOf(procedure.value, state.value, step.value.id, now.value).map((lack) => whyWords(procedure.value as Procedure, lack))
    : [],
);
const openLooks = computed(() =>
  rowsOf(step.value?.checks ?? [], progress.value?.checks ?? {}).filter((look) => openOf(look, progress.value?.checks ?? {}).length > 0),
);
const colour = computed(
  () => coolants.find(state.value?.coolant?.productId ?? desk.answer.value?.coolantProductId ?? null)?.colour ?? null,
);
const showsProfile = computed(() => ['checks', 'fill', 'wet-run', 'bleed', 'drain', 'rinse'].includes(step.value?.kind ?? ''));
const hasBigNumber = computed(() => step.value?.kind === 'checks');

const { filled, fronts } = useStanding(desk, step, live, now);

const lookAtCurrent = (): void => void (looking.value = null);
watch(() => desk.current.value?.id, lookAtCurrent);

const send = (body: RunEventBody): boolean => desk.send(body);

function stepDone(): void {
  if (step.value && isCurrent.value && send({ type: 'step-done', step: step.value.id })) window.scrollTo({ top: 0 });
}
function mark(check: string, value: 'done' | 'open'): void {
  if (step.value) send({ type: 'check', step: step.value.id, check, mark: value });
}
function note(text: string): void {
  if (step.value) send({ type: 'note', step: step.value.id, text });
}

/** steps in which hands switch the pump; in the wet test its clock is the switch */
const hasPump = computed(
  () =>
    ['fill', 'bleed', 'rinse'].includes(step.value?.kind ?? '') ||
    refilling.value ||
    (isWet.value && pumpOn.value && !wetClock.value?.running),
);
/** drawn down for a leak after the fill: it is filled again in this very step */
const refilling = computed(
  () =>
    ['wet-run', 'bleed'].includes(step.value?.kind ?? '') &&
    procedure.value !== null &&
    state.value !== null &&
    isDrawnDown(procedure.value, state.value),
);
const isWet = computed(() => step.value?.kind === 'wet-run');
const pumpOn = computed(() => state.value?.pump?.on === true);
/** the wet test's clock, which is the pump's switch there */
const wetClock = computed(() => {
  const timer = isWet.value ? step.value?.timers[0] : undefined;
  const started = timer && state.value?.timers[timer.id];
  return timer ? { timer: timer.id, running: started !== undefined && timerFace(started, now.value).running } : null;
});
const airAtMostMl = ref<number | null>(null);
const hasHands = computed(() => ['dry-test', 'fill', 'wet-run', 'bleed', 'drain', 'rinse'].includes(step.value?.kind ?? ''));
const liquid = computed(() => coolants.liquidOf(state.value?.coolant?.productId ?? desk.answer.value?.coolantProductId ?? null));
function override(reason: string): void {
  const held = desk.held.value;
  if (held) send({ ...held.body, override: { rule: held.rule, reason } } as RunEventBody);
}
const { rests } = usePumpSwitch(computed(() => pumpOn.value || wetClock.value?.running === true));
function togglePump(): void {
  if (locked.value || rests.value) return;
  const fills = ['fill', 'rinse'].includes(step.value?.kind ?? '') || refilling.value;
  if (hasPump.value) send({ type: 'pump', on: !pumpOn.value, ...(fills ? orderedSpeed(procedure.value, state.value, now.value) : {}) });
  else if (wetClock.value && step.value)
    send({ type: wetClock.value.running ? 'timer-stopped' : 'timer-started', step: step.value.id, timer: wetClock.value.timer });
}

let signId = crypto.randomUUID();
async function signOff(remark: string): Promise<void> {
  const done = await signing.run(() =>
    call<{ serviceDueOn: string | null }>('POST', `/runs/${props.id}/sign-off`, { body: { id: signId, remark } }),
  );
  if (!done) return;
  signId = crypto.randomUUID();
  notices.say(done.serviceDueOn ? 'Signed off. The settling check and the next service date are open.' : 'Signed off.');
  await router.replace(`/runs/${props.id}/record`);
}

useShortcuts({
  'step-done': stepDone,
  tick: () => {
    const next = openLooks.value[0];
    if (!next || !step.value || locked.value) return;
    const ids = openOf(next, progress.value?.checks ?? {}).map(({ id }) => id);
    if (next.together && ids.length > 1) send({ type: 'checks', step: step.value.id, checks: ids });
    else if (ids[0]) mark(ids[0], 'done');
  },
  note: () => {
    dialog.value = 'note';
  },
  undo: () => desk.undoLast(),
  pump: togglePump,
  'pump-off': () => {
    if (pumpOn.value || wetClock.value?.running === true) togglePump();
  },
  trouble: () => {
    if (desk.answer.value?.run.state === 'active') dialog.value = 'trouble';
  },
});
</script>

<template>
  <main class="bench-page">
    <div v-if="desk.missing.value" class="page">
      <h1>No such run</h1>
      <p>It belongs to no system of this workshop. <router-link to="/today">Today</router-link></p>
    </div>
    <div v-else-if="desk.answer.value && procedure && state && step && progress" class="bench">
      <RunHead
        class="head"
        :answer="desk.answer.value"
        :waits="waits"
        @open="dialog = $event"
        @photo="step && send({ type: 'photo', step: step.id, photoId: $event, caption: step.title })"
      />

      <div v-if="desk.answer.value.run.state === 'active'" class="bench-top">
        <PracticeBar
          v-if="desk.answer.value.practice"
          :run-id="id"
          :ahead-ms="desk.aheadMs.value"
          :playing="live.source.value !== null"
          :reload="desk.load"
        />
        <InstrumentStrip :bench="live" />
        <StandIn v-if="benchId && !desk.answer.value.practice && procedure.facts && !procedure.service" :run-id="id" :bench="live" />
      </div>
      <DebriefView
        v-if="desk.answer.value.practice?.debrief"
        class="bench-top"
        :debrief="desk.answer.value.practice.debrief"
        :system-id="desk.answer.value.systemId"
      />

      <WaitingPanel
        v-if="waits"
        class="bench-top"
        :run-id="id"
        :system-id="desk.answer.value.systemId"
        :procedure="procedure"
        :state="state"
        :today="session.today"
        @resumed="desk.load()"
        @again="dialog = 'wait'"
      />
      <StepRail class="rail" :procedure="procedure" :state="state" :shown="step.id" @look="looking = $event" />

      <section class="step" :aria-label="step.title">
        <LoopProfile
          v-if="showsProfile"
          class="profile"
          :loop="desk.answer.value.file"
          :colour="colour"
          :filled="filled"
          :height="164"
          :fronts="fronts"
          label="Loop profile with the fill front, predicted and measured"
        />
        <div class="title">
          <h2>{{ step.title }}</h2>
          <p v-if="hasBigNumber && !locked" class="left figures">
            {{ openLooks.length === 0 ? 'all ticked' : `${openLooks.length} to tick` }}
          </p>
        </div>
        <p class="lead">{{ step.lead }}</p>
        <p v-if="desk.problem.value" role="alert" class="danger problem">
          {{ desk.problem.value }}
          <button v-if="desk.held.value" type="button" class="link" @click="dialog = 'override'">Go on with a reason</button>
        </p>
        <TroubleList
          :procedure="procedure"
          :state="state"
          :file="desk.answer.value.file"
          :locked="desk.answer.value.run.state !== 'active' || waits"
          @send="send"
        />
        <PumpControl
          v-if="hasPump && procedure.facts && !locked"
          :procedure="procedure"
          :state="state"
          :locked="locked"
          :rests="rests"
          @toggle="togglePump"
        />
        <p v-if="progress.deviation" class="closed">Passed over: {{ progress.deviation.text }}</p>

        <TimerPanel
          v-for="timer in refilling ? [] : step.timers"
          :key="timer.id"
          :timer="timer"
          :state="state.timers[timer.id] ?? null"
          :locked="locked"
          :big="step.kind === 'wet-run'"
          :pump="step.kind === 'wet-run'"
          :rests="step.kind === 'wet-run' && rests"
          @start="send({ type: 'timer-started', step: step.id, timer: timer.id })"
          @stop="send({ type: 'timer-stopped', step: step.id, timer: timer.id })"
        />
        <PartTestStep v-if="step.kind === 'part-test'" :procedure="procedure" :state="state" :locked="locked" @send="send" />
        <DryTestStep v-if="step.kind === 'dry-test'" :procedure="procedure" :state="state" :locked="locked" @send="send" />
        <FillStep
          v-if="step.kind === 'fill' || (refilling && !locked && state.leaks.every(({ mended }) => mended !== null))"
          :procedure="procedure"
          :state="state"
          :planned-product-id="desk.answer.value.coolantProductId"
          :liquid="liquid"
          :locked="locked"
          @send="send"
        />
        <BleedStep
          v-if="step.kind === 'bleed'"
          v-model:air-at-most-ml="airAtMostMl"
          :procedure="procedure"
          :state="state"
          :colour="colour"
          :locked="locked"
          :file="desk.answer.value.file"
          :liquid="liquid"
          @send="send"
        />
        <TopUp
          v-if="['wet-run', 'bleed'].includes(step.kind) && !refilling && !locked"
          :procedure="procedure"
          :state="state"
          :liquid="liquid"
          :colour="colour"
          :air-at-most-ml="step.kind === 'bleed' ? airAtMostMl : null"
          @send="send"
        />
        <ServiceStep
          v-if="procedure.service"
          :procedure="procedure"
          :state="state"
          :step="step"
          :system-id="desk.answer.value.systemId"
          :planned-product-id="desk.answer.value.coolantProductId"
          :colour="colour"
          :locked="locked"
          @send="send"
        />
        <BaselineStep
          v-if="step.kind === 'baseline'"
          :state="state"
          :before="step.does.includes('measures-before')"
          :locked="locked"
          @send="send"
        />
        <HandsPanel
          v-if="(hasHands || state.openPorts.size + state.openJoints.size > 0) && !locked"
          :procedure="procedure"
          :state="state"
          :locked="locked"
          @send="send"
        />
        <CheckRows
          v-if="step.checks.length"
          :checks="step.checks"
          :marks="progress.checks"
          :locked="locked"
          @mark="mark"
          @seen="step && send({ type: 'checks', step: step.id, checks: $event })"
          @not-needed="(check, reason) => step && send({ type: 'check', step: step.id, check, mark: 'not-needed', reason })"
        />
        <SignOffStep
          v-if="step.kind === 'sign-off' && desk.answer.value.run.state === 'active'"
          :procedure="procedure"
          :state="state"
          :busy="signing.busy.value"
          :waiting="desk.waiting.value"
          @sign="signOff"
        />
        <p v-if="signing.problem.value" role="alert" class="danger">{{ signing.problem.value }}</p>

        <ul v-if="progress.notes.length" class="notes plain-list">
          <li v-for="each in progress.notes" :key="each.eventId">
            {{ each.text }} <span class="quiet">{{ each.by }}</span>
          </li>
        </ul>

        <div v-if="!locked && step.kind !== 'sign-off'" class="actions">
          <v-btn size="x-large" :disabled="open.length > 0" @click="stepDone"
            >Done: {{ step.title.toLowerCase() }} <KeyCap action="step-done"
          /></v-btn>
          <p v-if="open.length" class="quiet">
            {{ open.join('; ') }}. <button type="button" class="link" @click="dialog = 'deviation'">Go on with a reason</button>
          </p>
        </div>
        <div v-else-if="looking && desk.answer.value.run.state === 'active'" class="actions">
          <v-btn size="x-large" variant="outlined" @click="looking = null">Back to the current step</v-btn>
        </div>
      </section>

      <aside v-if="step.cautions.length && isCurrent" class="cautions" aria-label="Cautions">
        <p v-for="caution in step.cautions" :key="caution">{{ caution }}</p>
      </aside>

      <HandsAtBench
        v-if="live.source.value === 'simulated' && benchId && !locked"
        class="bench-hands"
        :bench-id="benchId"
        :bench="live"
        :procedure="procedure"
        :state="state"
      />

      <RunLog
        class="log"
        :procedure="procedure"
        :state="state"
        :events="desk.events.value"
        :waiting="desk.waiting.value"
        :keeping="desk.keeping.value"
        :away="desk.away.value"
        :refused="desk.refused.value"
        @undo="desk.undoLast()"
        @note="note"
        @dismiss="desk.dismiss"
      />
      <RunDialogs
        v-model="dialog"
        :run-id="id"
        :procedure="procedure"
        :state="state"
        :file="desk.answer.value.file"
        :step="step.id"
        :now-ms="now"
        :undelivered="desk.waiting.value"
        :lacks="open"
        :problem="desk.problem.value"
        @send="send"
        @override="override"
        @changed="desk.load()"
        @left="router.push(`/systems/${desk.answer.value?.systemId}`)"
      />
    </div>
    <div v-else-if="desk.problem.value" class="page" role="alert">
      <h1>The run cannot be shown</h1>
      <p>{{ desk.problem.value }}</p>
      <v-btn @click="desk.load()">Try again</v-btn>
    </div>
  </main>
</template>

<style scoped src="./run.css"></style>
