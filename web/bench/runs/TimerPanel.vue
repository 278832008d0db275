<script setup lang="ts">
import { computed } from 'vue';
import type { TimerItem } from '@core/bench/runs/procedure.js';
import { timerFace, type TimerState } from '@core/bench/runs/state.js';
import { formatClock, formatSpan } from '@core/base/units/display.js';
import { useDates } from '../../base/units/dates.js';
import { useNow } from '../../base/units/now.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FramePart from '../frame/FramePart.vue';
import RingLimit from '../frame/RingLimit.vue';

/**
 * A timer that runs on the log's own instants: a reload, another tablet or a restarted server show the same. Where it is the pump's
 * switch it is the figure of its step and the switch is the pump's own; any other stands where a pump would.
 */
const props = defineProps<{
  timer: TimerItem;
  state: TimerState | null;
  locked: boolean;
  /** the pump's switch starts and stops it */
  pump?: boolean;
}>();
const emit = defineEmits<{ start: []; stop: [] }>();
const now = useNow(500);
const dates = useDates();
const face = computed(() => (props.state ? timerFace(props.state, now.value) : null));
const share = computed(() => (face.value ? 1 - face.value.remainingS / props.timer.seconds : 0));
const endsAt = computed(() => (props.state ? new Date(Date.parse(props.state.startedAt) + props.timer.seconds * 1000).toISOString() : ''));
const clock = computed(() =>
  !face.value ? formatSpan(props.timer.seconds) : face.value.finished ? 'done' : formatClock(face.value.remainingS),
);
</script>

<template>
  <template v-if="pump">
    <FrameFigure :value="clock" :unit="face ? undefined : 'to run'" timer />
    <FramePart at="limit"
      ><RingLimit :share="share" :label="timer.label" :until="face?.running ? dates.time(endsAt) : undefined"
    /></FramePart>
    <FramePart at="so-far">
      <p>
        {{ timer.label }}<template v-if="face?.running">, until {{ dates.dayAndTime(endsAt) }}</template
        ><template v-else-if="face && !face.finished">, stopped early</template>
      </p>
    </FramePart>
  </template>
  <FramePart v-else at="pump">
    <section class="timer" role="timer" :aria-label="timer.label">
      <p class="clock figures">{{ clock }}</p>
      <v-btn
        v-if="!locked && (!face || (!face.running && !face.finished))"
        class="switch"
        size="x-large"
        variant="outlined"
        @click="emit('start')"
        >{{ face ? 'Start again' : 'Start the clock' }}</v-btn
      >
      <v-btn v-else-if="!locked && face?.running" class="switch" size="x-large" variant="outlined" @click="emit('stop')">Stop early</v-btn>
      <p class="quiet">
        {{ timer.label }}<template v-if="face?.running">, until {{ dates.dayAndTime(endsAt) }}</template
        ><template v-else-if="face && !face.finished">, stopped early</template>
      </p>
      <div class="rule"><span :style="{ width: `${share * 100}%` }" /></div>
    </section>
  </FramePart>
</template>

<style scoped>
.timer {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 14px;
  align-items: center;
  padding: 10px 14px;
  background: var(--sheet);
}
.clock {
  font-family: var(--figures);
  font-size: 3.2rem;
  line-height: 1;
  font-weight: 420;
}
.switch {
  min-height: 64px;
}
p {
  margin: 0;
}
.quiet,
.rule {
  grid-column: 1 / -1;
}
.rule {
  height: 6px;
  background: var(--well);
}
.rule span {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
