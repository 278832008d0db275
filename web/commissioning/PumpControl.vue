<script setup lang="ts">
import { computed, watch } from 'vue';
import type { RunEventBody } from '@core/commissioning/events.js';
import { CAN_OVERRIDE, interlocksAgainst, levelNow, pulsesRun } from '@core/commissioning/interlocks.js';
import type { Procedure } from '@core/commissioning/procedure.js';
import type { RunState } from '@core/commissioning/state.js';
import { formatClock } from '@core/units/display.js';
import { beep } from '../shell/alarm.js';
import { useNow } from '../units/now.js';

/** The pump's switch as recorded: what stands against it, and while filling the seconds to the low mark. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const now = useNow(200);

const on = computed(() => props.state.pump?.on === true);
const against = computed(() => (on.value ? [] : interlocksAgainst(props.procedure, props.state, { type: 'pump', on: true }, now.value)));
const final = computed(() => against.value.filter(({ rule }) => !CAN_OVERRIDE[rule]));
const runningS = computed(() => (props.state.pump ? Math.max(0, (now.value - Date.parse(props.state.pump.since)) / 1000) : 0));
/** s until the predicted level stands at the low mark; corrected by every level that is read. null outside the fill */
const leftS = computed(() => {
  const { facts } = props.procedure;
  const pulse = facts?.fill?.pulses[pulsesRun(props.state)];
  if (!on.value || props.state.current !== 'fill' || !facts?.reservoir || !pulse || pulse.runS <= 0 || pulse.movedMl <= 0) return null;
  const level = levelNow(props.procedure, props.state, now.value);
  return level ? Math.max(0, ((level.ml - facts.reservoir.lowMarkMl) / pulse.movedMl) * pulse.runS) : null;
});
const nextRunS = computed(() => props.procedure.facts?.fill?.pulses[pulsesRun(props.state)]?.runS ?? null);
const alarm = computed(() => leftS.value !== null && leftS.value <= 0);
watch(
  () => (alarm.value ? Math.floor(now.value / 1000) : null),
  (tick) => {
    if (tick !== null) beep();
  },
);
</script>

<template>
  <section class="pump" :class="{ alarm }" aria-label="Pump">
    <div aria-live="assertive">
      <p v-if="alarm" class="clock danger">Pump off now</p>
      <p v-else-if="on && leftS !== null" class="clock figures">{{ leftS.toFixed(leftS < 10 ? 1 : 0) }} <small>s to the low mark</small></p>
      <p v-else-if="on" class="clock figures">{{ formatClock(runningS) }} <small>pump running</small></p>
      <p v-else class="clock">
        off
        <small v-if="state.current === 'fill' && nextRunS !== null && state.pours.length"
          >next pulse about {{ nextRunS.toFixed(1) }} s, predicted</small
        >
      </p>
      <ul v-if="against.length" class="plain-list why">
        <li v-for="each in against" :key="each.message">{{ each.message }}</li>
      </ul>
    </div>
    <v-btn
      v-if="!locked"
      size="x-large"
      :variant="on ? 'flat' : 'outlined'"
      :disabled="final.length > 0"
      @click="emit('send', { type: 'pump', on: !on })"
      >{{ on ? 'Pump off' : 'Pump on' }} <kbd class="ml-3">p</kbd></v-btn
    >
  </section>
</template>

<style scoped>
.pump {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 20px;
  padding: 10px 16px;
  background: var(--sheet);
  border-left: 5px solid var(--ink);
}
.alarm {
  border-color: var(--danger);
  background: var(--danger-ground);
}
.clock {
  margin: 0;
  font-size: 2.4rem;
  line-height: 1.1;
  font-weight: 340;
}
.clock small {
  font-size: 1.05rem;
}
.why {
  max-width: 62ch;
}
.pump .v-btn {
  height: 64px;
  flex: none;
}
</style>
