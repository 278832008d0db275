<script setup lang="ts">
import KeyCap from '../../base/keys/KeyCap.vue';
import { computed } from 'vue';
import type { TimerItem } from '@core/bench/runs/procedure.js';
import { timerFace, type TimerState } from '@core/bench/runs/state.js';
import { formatClock, formatSpan } from '@core/base/units/display.js';
import { useDates } from '../../base/units/dates.js';
import { useNow } from '../../base/units/now.js';

/** A timer that runs on the log's own instants: a reload, another tablet or a restarted server show the same. */
const props = defineProps<{
  timer: TimerItem;
  state: TimerState | null;
  locked: boolean;
  big?: boolean;
  pump?: boolean;
  rests?: boolean;
}>();
const emit = defineEmits<{ start: []; stop: [] }>();
const now = useNow(500);
const dates = useDates();
const face = computed(() => (props.state ? timerFace(props.state, now.value) : null));
const share = computed(() => (face.value ? 1 - face.value.remainingS / props.timer.seconds : 0));
const endsAt = computed(() => (props.state ? new Date(Date.parse(props.state.startedAt) + props.timer.seconds * 1000).toISOString() : ''));
</script>

<template>
  <section class="timer" role="timer" :aria-label="timer.label">
    <p :class="big ? 'big-number' : 'medium'" class="figures">
      <template v-if="!face">{{ formatSpan(timer.seconds) }}</template>
      <template v-else-if="face.finished">done</template>
      <template v-else>{{ formatClock(face.remainingS) }}</template>
    </p>
    <div class="rule"><span :style="{ width: `${share * 100}%` }" /></div>
    <p class="quiet">
      {{ timer.label }}<template v-if="face && face.running">, until {{ dates.dayAndTime(endsAt) }}</template
      ><template v-else-if="face && !face.finished">, stopped early</template>
    </p>
    <div v-if="!locked" class="row mt-2">
      <v-btn v-if="!face || (!face.running && !face.finished)" size="x-large" :disabled="rests" @click="emit('start')"
        >{{ pump ? (face ? 'Pump on, start again' : 'Pump on, start the clock') : face ? 'Start again' : 'Start the clock'
        }}<KeyCap v-if="pump" action="pump"
      /></v-btn>
      <v-btn v-else-if="face.running" size="x-large" variant="outlined" @click="emit('stop')"
        >{{ pump ? 'Pump off' : 'Stop early' }}<KeyCap v-if="pump" action="pump"
      /></v-btn>
    </div>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
.medium {
  font-size: 2.2rem;
  font-weight: 320;
}
.rule {
  height: 12px;
  border: 2px solid var(--ink);
  margin: 10px 0 8px;
  background: var(--glass);
}
.rule span {
  display: block;
  height: 100%;
  background: var(--ink);
}
</style>
