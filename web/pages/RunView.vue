<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { whyWords } from '@core/edge/words/bench.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { lacksOf } from '@core/bench/runs/criteria.js';
import { computed, provide, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { fillOrder } from '@core/bench/runs/fillOrder.js';
import { verdictsOf } from '@core/bench/runs/verdicts.js';
import { waitingNow } from '@core/bench/runs/waiting.js';
import { WHOSE } from '@core/workshop/people/rights.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { useStanding } from '../bench/filling/useStanding.js';
import { call } from '../base/http/api.js';
import { useSubmit } from '../base/http/useSubmit.js';
import TroubleList from '../bench/leak-finding/TroubleList.vue';
import { LABEL_PX } from '@core/physics/profile/drawing.js';
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
import ShutFirst from '../bench/runs/ShutFirst.vue';
import PumpControl from '../bench/runs/PumpControl.vue';
import RunDialogs from '../bench/run-dialogs/RunDialogs.vue';
import type { RunDialog } from '../bench/runs/runDialog.js';
import RunHead from '../bench/runs/RunHead.vue';
import BenchFrame from '../bench/frame/BenchFrame.vue';
import CautionOfNow from '../bench/frame/CautionOfNow.vue';
import FramePart from '../bench/frame/FramePart.vue';
import StepAct from '../bench/frame/StepAct.vue';
import StoppedHere from '../bench/frame/StoppedHere.vue';
import { useLooks } from '../bench/runs/useLooks.js';
import TroubleSheet from '../bench/leak-finding/TroubleSheet.vue';
import RunLog from '../bench/runs/RunLog.vue';
import LaidAnew from '../bench/loop-change/LaidAnew.vue';
import StepParts from './StepParts.vue';
import SignOffStep from '../bench/runs/SignOffStep.vue';
import { useRun } from '../bench/runs/useRun.js';
import { useRunPump } from '../bench/runs/useRunPump.js';

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
const locked = computed(() => desk.answer.value?.run.state !== 'active' || !isCurrent.value || waits.value || !session.may('bench'));
const open = computed(() =>
  procedure.value && state.value && step.value
    ? lacksOf(procedure.value, state.value, step.value.id, now.value).map((lack) => whyWords(procedure.value as Procedure, lack))
    : [],
);
const { openLooks, left, later, dots, picked, tickNext, touch } = useLooks(desk, step, locked, now);

/** a unit on its own is tested with water, whatever its loop will get */
const inItId = computed(
  () => state.value?.coolant?.productId ?? (procedure.value?.unit ? null : (desk.answer.value?.coolantProductId ?? null)),
);
const colour = computed(() => coolants.find(inItId.value)?.colour ?? null);
/** picture or the step's own curve: the test with air and a load test are read off it, everything else off the loop */
const shows = ref<'loop' | 'curve'>('loop');
watch(
  () => step.value?.kind,
  (kind) => {
    shows.value = kind === 'dry-test' || kind === 'baseline' ? 'curve' : 'loop';
  },
  { immediate: true },
);
/** steps with a figure of their own; any other counts what is still to be looked at */
const countsLooks = computed(() => ['checks', 'power', 'repair'].includes(step.value?.kind ?? ''));

const { filled, fronts, measuredMl } = useStanding(desk, step, live, now);

const lookAtCurrent = (): void => void (looking.value = null);
watch(() => desk.current.value?.id, lookAtCurrent);

const send = (body: RunEventBody): boolean => desk.send(body);

function stepDone(): void {
  if (step.value && isCurrent.value) send({ type: 'step-done', step: step.value.id });
}
function mark(check: string, value: 'done' | 'open'): void {
  if (step.value) send({ type: 'check', step: step.value.id, check, mark: value });
}
function note(text: string): void {
  if (step.value) send({ type: 'note', step: step.value.id, text });
}

const pump = useRunPump(desk, step, locked, now);
const { refilling } = pump;
/** what hands do next while it is filled: what is dangerous about it is said now */
const order = computed(() =>
  procedure.value && state.value && (['fill', 'rinse'].includes(step.value?.kind ?? '') || refilling.value) && !locked.value
    ? fillOrder(procedure.value, state.value, now.value, measuredMl.value)
    : null,
);
/** a leak that is not mended comes before everything else, in the place of what hands would do next */
const leaksFirst = computed(
  () =>
    state.value?.leaks.some(({ mended }) => mended === null) === true &&
    // a repair has steps of its own for it
    (!procedure.value?.service || state.value.pours.length > 0),
);
const troubled = computed({
  get: () => dialog.value === 'trouble',
  set: (open) => {
    dialog.value = open ? 'trouble' : null;
  },
});
const airAtMostMl = ref<number | null>(null);
const hasHands = computed(() => ['dry-test', 'fill', 'wet-run', 'bleed', 'drain', 'rinse'].includes(step.value?.kind ?? ''));
const liquid = computed(() => coolants.liquidOf(inItId.value));
function override(reason: string): void {
  const held = desk.held.value;
  if (held) send({ ...held.body, override: { rule: held.rule, reason } } as RunEventBody);
}
let signId = crypto.randomUUID();
async function signOff(remark: string): Promise<void> {
  const done = await signing.run(() =>
    call<{ serviceDueOn: string | null }>('POST', `/runs/${props.id}/sign-off`, { body: { id: signId, remark } }),
  );
  if (!done) return;
  signId = crypto.randomUUID();
  notices.say(done.serviceDueOn ? say('Signed off. The settling check and the next service date are open.') : say('Signed off.'));
  await router.replace(`/runs/${props.id}/record`);
}

useShortcuts({
  'step-done': stepDone,
  tick: tickNext,
  note: () => {
    dialog.value = 'note';
  },
  undo: () => desk.undoLast(),
  pump: pump.toggle,
  'pump-off': pump.off,
  trouble: () => {
    if (desk.answer.value?.run.state === 'active') dialog.value = 'trouble';
  },
});
</script>

<template>
  <main class="bench-page" :data-now="Math.floor(now / 1000)">
    <div v-if="desk.missing.value" class="page">
      <h1>No such run</h1>
      <p>It belongs to no machine of this workshop. <router-link to="/today">Today</router-link></p>
    </div>
    <template v-else-if="desk.answer.value && procedure && state && step && progress">
      <div v-if="desk.answer.value.practice?.debrief" class="page over">
        <RunHead
          :answer="desk.answer.value"
          :waits="waits"
          :state="state"
          :shown="step.id"
          :undelivered="0"
          :away="false"
          @open="dialog = $event"
        />
        <DebriefView
          :debrief="desk.answer.value.practice.debrief"
          :of-course="desk.answer.value.practice.lesson !== null"
          :system-id="desk.answer.value.systemId"
          :verdicts="verdictsOf(procedure, state)"
        />
        <RunLog :procedure="procedure" :state="state" :events="desk.events.value" :waiting="0" />
      </div>
      <BenchFrame v-else v-model:shows="shows" :powered="pump.powered.value">
        <template #head>
          <RunHead
            :answer="desk.answer.value"
            :waits="waits"
            :state="state"
            :shown="step.id"
            :undelivered="desk.waiting.value"
            :away="desk.away.value"
            @open="dialog = $event"
            @look="looking = $event"
            @photo="send({ type: 'photo', step: step.id, photoId: $event, caption: step.title })"
          />
        </template>
        <template #picture="{ height }">
          <LoopProfile
            :loop="desk.answer.value.file"
            :colour="colour"
            :filled="filled"
            :height="height"
            :fronts="fronts"
            :dots="dots"
            :label-px="LABEL_PX.bench"
            label="Loop profile with the fill front, predicted and measured"
            @touch="touch"
          />
        </template>
        <template #order>
          <p class="lead" :class="{ long: step.lead.length > 62 }">{{ step.lead }}</p>
        </template>
        <template v-if="countsLooks && !locked" #figure>
          <p class="big-number left figures">
            {{ left.big }} <small>{{ left.small }}</small>
          </p>
        </template>
        <template v-if="step.cautions.length && isCurrent" #caution>
          <CautionOfNow :procedure="procedure" :state="state" :order="order" />
        </template>
        <template #sheet>
          <TroubleSheet
            v-model="troubled"
            :procedure="procedure"
            :file="desk.answer.value.file"
            :colour="colour"
            :pump-on="pump.running.value"
            :filled="filled"
            :step-kind="step.kind"
            @send="send"
            @pump-off="pump.off"
          />
        </template>
        <template v-if="!waits" #act>
          <StepAct
            v-if="!locked && step.kind !== 'sign-off'"
            :title="step.title"
            :lacks="open"
            :next="leaksFirst ? null : (openLooks[0]?.together ?? openLooks[0]?.items[0]?.text ?? null)"
            @done="stepDone"
            @tick="tickNext"
            @pass-over="dialog = 'deviation'"
          />
          <v-btn v-else-if="looking && desk.answer.value.run.state === 'active'" size="x-large" variant="outlined" @click="looking = null"
            >Back to the current step</v-btn
          >
        </template>

        <p v-if="desk.problem.value" role="alert" class="danger problem">
          {{ desk.problem.value }}
          <button v-if="desk.held.value" type="button" class="link" @click="dialog = 'override'">Go on with a reason</button>
        </p>
        <FramePart v-if="waits" at="work">
          <WaitingPanel
            :run-id="id"
            :system-id="desk.answer.value.systemId"
            :procedure="procedure"
            :state="state"
            :today="session.today"
            @resumed="desk.load()"
            @again="dialog = 'wait'"
          />
        </FramePart>
        <component :is="leaksFirst ? FramePart : 'div'" v-if="!waits" at="work">
          <TroubleList
            :procedure="procedure"
            :state="state"
            :file="desk.answer.value.file"
            :locked="desk.answer.value.run.state !== 'active'"
            @send="send"
          />
        </component>
        <LaidAnew
          v-if="desk.answer.value.wanted && desk.answer.value.run.state === 'active' && session.may('bench') && !waits"
          :run-id="id"
          :wanted="desk.answer.value.wanted"
          :undelivered="desk.waiting.value"
          @changed="desk.load()"
        />
        <PracticeBar
          v-if="desk.answer.value.run.state === 'active' && desk.answer.value.practice"
          :run-id="id"
          :ahead-ms="desk.aheadMs.value"
          :playing="live.source.value !== null"
          :reload="desk.load"
        />
        <HandsAtBench
          v-if="live.source.value === 'simulated' && benchId && !locked && desk.answer.value.run.state === 'active'"
          :bench-id="benchId"
          :bench="live"
          :procedure="procedure"
          :state="state"
        />
        <p v-if="!session.may('bench')" class="closed">{{ WHOSE.bench }}</p>
        <p v-if="progress.deviation" class="closed">Passed over: {{ progress.deviation.text }}</p>
        <PumpControl
          v-if="pump.powered.value"
          :procedure="procedure"
          :state="state"
          :locked="locked && !pump.running.value"
          :rests="pump.rests.value"
          :clock="pump.clock.value"
          @toggle="pump.toggle"
        />
        <ShutFirst v-if="step.kind === 'power' && !locked" :procedure="procedure" :state="state" @send="send" />
        <CheckRows
          v-if="step.checks.length"
          :checks="step.checks"
          :marks="progress.checks"
          :locked="locked"
          :later="later"
          @mark="mark"
          @seen="send({ type: 'checks', step: step.id, checks: $event })"
          @not-needed="(check, reason) => step && send({ type: 'check', step: step.id, check, mark: 'not-needed', reason })"
        />
        <InstrumentStrip v-if="desk.answer.value.run.state === 'active'" :bench="live" />
        <HandsPanel
          v-if="(hasHands || state.openPorts.size + state.openJoints.size > 0) && !locked"
          :procedure="procedure"
          :state="state"
          :locked="locked"
          @send="send"
        />
        <template v-if="!waits">
          <StepParts
            v-model:air-at-most-ml="airAtMostMl"
            :answer="desk.answer.value"
            :state="state"
            :step="step"
            :locked="locked"
            :colour="colour"
            :liquid="liquid"
            :refilling="refilling"
            :picked="picked"
            :leaks-first="leaksFirst"
            :undelivered="desk.waiting.value"
            @changed="desk.load()"
            @send="send"
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
        </template>
        <ul v-if="progress.notes.length" class="notes plain-list">
          <li v-for="each in progress.notes" :key="each.eventId">
            {{ each.text }} <span class="quiet">{{ each.by }}</span>
          </li>
        </ul>
        <StoppedHere v-if="isCurrent && !waits" :procedure="procedure" :events="desk.events.value" />
        <RunLog
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
        <StandIn
          v-if="desk.answer.value.run.state === 'active' && benchId && !desk.answer.value.practice && procedure.facts && !procedure.service"
          :run-id="id"
          :bench="live"
        />
      </BenchFrame>
      <RunDialogs
        v-model="dialog"
        :run-id="id"
        :system-id="desk.answer.value.systemId"
        :job-id="desk.answer.value.run.jobId"
        :procedure="procedure"
        :state="state"
        :file="desk.answer.value.file"
        :coolant-id="desk.answer.value.coolantProductId"
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
    </template>
    <div v-else-if="desk.problem.value" class="page" role="alert">
      <h1>The run cannot be shown</h1>
      <p>{{ desk.problem.value }}</p>
      <v-btn @click="desk.load()">Try again</v-btn>
    </div>
  </main>
</template>

<style scoped src="./run.css"></style>
