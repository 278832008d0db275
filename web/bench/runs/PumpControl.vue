<script setup lang="ts">
import KeyCap from '../../base/keys/KeyCap.vue';
import { shortOfHeadWords } from '@core/edge/words/intake.js';
import { whyWords } from '@core/edge/words/bench.js';
import { CAN_OVERRIDE } from '@core/bench/runs/locks.js';
import { locksAgainst } from '@core/bench/runs/rules.js';
import { fillOrder } from '@core/bench/runs/fillOrder.js';
import { computed, watch } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { currentKind, type RunState } from '@core/bench/runs/state.js';
import { levelMlOf } from '@core/bench/instruments/level.js';
import { formatClock, grouped, secondsDigits } from '@core/base/units/display.js';
import { beep } from '../../base/shell/alarm.js';
import FramePart from '../frame/FramePart.vue';
import { useRunBench } from '../instruments/liveBench.js';
import { useNow } from '../../base/units/now.js';

/** The pump's switch as recorded: what stands against it, and while filling the seconds to the low mark. */
const props = defineProps<{
  procedure: Procedure;
  state: RunState;
  locked: boolean;
  rests?: boolean;
  /** the step's clock, where it is the switch: when it began, while it runs */
  clock?: { readonly since: string | null; readonly words: string } | null;
}>();
const emit = defineEmits<{ toggle: [] }>();
const now = useNow(200);

const heads = computed(() => (props.procedure.facts ? shortOfHeadWords(props.procedure.facts) : []));
const on = computed(() => props.state.pump?.on === true || (props.clock?.since ?? null) !== null);
const since = computed(() => props.clock?.since ?? (props.state.pump?.on === true ? props.state.pump.since : null));
const against = computed(() => (on.value ? [] : locksAgainst(props.procedure, props.state, { type: 'pump', on: true }, now.value)));
const final = computed(() => against.value.filter(({ rule }) => !CAN_OVERRIDE[rule]));
const runningS = computed(() => (since.value === null ? 0 : Math.max(0, (now.value - Date.parse(since.value)) / 1000)));
const bench = useRunBench();
/** the supply as it reports itself; null without one */
const supply = computed(() => {
  const value = bench?.value('supply', now.value) ?? null;
  return value === null ? null : value === 1;
});
const disagrees = computed(() => supply.value !== null && supply.value !== on.value && sinceSwitchS.value > SUPPLY_ANSWERS_S);
const sinceSwitchS = computed(() => (now.value - Date.parse(since.value ?? props.state.pump?.since ?? '')) / 1000);
/** s within which a supply has followed */
const SUPPLY_ANSWERS_S = 2;
/** mL that stand in the reservoir by its sensor; null without one */
const measuredMl = computed(() => {
  const reservoir = props.procedure.facts?.reservoir;
  const mm = bench?.value('level', now.value) ?? null;
  return reservoir && mm !== null ? levelMlOf(reservoir, mm) : null;
});
/** what the hands do next by what is inside, while a loop is filled */
const order = computed(() =>
  ['fill', 'rinse'].includes(currentKind(props.state) ?? '') ? fillOrder(props.procedure, props.state, now.value, measuredMl.value) : null,
);
/** s until the pump goes off: from the sensor where there is one, else predicted. null where nothing says so */
const leftS = computed(() => (on.value && order.value?.do === 'pump-off' ? order.value.inS : null));
const next = computed(() => (order.value?.do === 'pump-on' ? order.value : null));
/** share of full speed it is set to first; at the speed it has now the low mark would come sooner than is said */
const slowed = computed(() => (next.value === null || next.value.speed === null ? null : Math.round(100 * next.value.speed)));
/** the sensor has it at the low mark, whatever was ordered */
const isLow = computed(
  () => on.value && measuredMl.value !== null && measuredMl.value <= (props.procedure.facts?.reservoir?.lowMarkMl ?? 0),
);
const alarm = computed(() => isLow.value || (leftS.value !== null && leftS.value <= 0));
watch(
  () => (alarm.value ? Math.floor(now.value / 1000) : null),
  (tick) => {
    if (tick !== null) beep();
  },
);
</script>

<template>
  <FramePart at="pump">
    <section class="pump" :class="{ alarm, running: on }" aria-label="Pump">
      <div class="state" aria-live="assertive">
        <p v-if="alarm" class="clock danger">Pump off now</p>
        <p v-else-if="on && leftS !== null" class="clock figures">
          {{ secondsDigits(leftS) }}
          <small>s to pump off, {{ measuredMl === null ? 'predicted' : 'by the level sensor' }}</small>
        </p>
        <p v-else-if="on" class="clock figures" :class="{ long: runningS >= 3600 }">
          {{ formatClock(runningS) }} <small>pump running</small>
        </p>
        <p v-else class="clock">
          off
          <small v-if="next"
            ><template v-if="slowed !== null">set it to {{ slowed }} % first; </template>then on for about {{ grouped(next.runS, 1) }} s,
            predicted</small
          >
        </p>
      </div>
      <v-btn
        v-if="!locked"
        class="switch"
        size="x-large"
        :color="alarm ? 'error' : undefined"
        :variant="on ? 'flat' : 'outlined'"
        :disabled="final.length > 0 || rests"
        @click="emit('toggle')"
        ><span>{{ on ? 'Pump off' : (clock?.words ?? 'Pump on') }}</span> <KeyCap action="pump"
      /></v-btn>
      <div v-if="disagrees || heads.length || against.length" class="words">
        <p v-if="disagrees" class="danger">The supply says {{ supply ? 'on' : 'off' }}: look at its switch.</p>
        <ul v-if="against.length" class="plain-list why">
          <li v-for="each in against" :key="each.fact.why">{{ whyWords(procedure, each.fact) }}</li>
        </ul>
        <p v-for="words in heads" :key="words" class="head">{{ words }}</p>
      </div>
    </section>
  </FramePart>
</template>

<style scoped>
.pump {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 6px 14px;
  align-items: center;
  padding: 10px 14px;
  background: var(--sheet);
  border-left: 6px solid var(--line);
}
.running {
  border-color: var(--ink);
}
.alarm {
  border-color: var(--danger);
  background: var(--danger-ground);
}
.clock {
  margin: 0;
  font-family: var(--figures);
  font-size: 3.75rem;
  line-height: 0.95;
  font-weight: 420;
  letter-spacing: -0.03em;
}
.clock.long {
  font-size: 2.6rem;
}
.clock.danger {
  font-weight: 700;
  font-size: 2.2rem;
}
.clock small {
  display: block;
  font-size: 1rem;
  line-height: 1.2;
  letter-spacing: 0;
}
.switch {
  min-height: 92px;
  height: 100%;
  font-size: 1.3rem;
  border-width: 3px;
}
.switch :deep(.v-btn__content) {
  white-space: normal;
}
.words {
  grid-column: 1 / -1;
  font-size: 0.94rem;
}
p {
  margin: 0;
}
</style>
