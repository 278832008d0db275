<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { type RunState, runningSoak, soakFace } from '@core/bench/runs/state.js';
import { computed, ref, watch } from 'vue';
import { NEVER_TOGETHER } from '@core/machine/liquids/mixing.js';
import { FLUSH } from '@core/machine/liquids/rinsing.js';
import { formatClock } from '@core/base/units/display.js';
import { beep } from '../../base/shell/alarm.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FramePart from '../frame/FramePart.vue';
import NumberField from '../../base/units/NumberField.vue';
import { useNow } from '../../base/units/now.js';

/** A cleaner with its clock: in a basin or in the loop, it comes out in time. */
const props = defineProps<{ step: string; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const now = useNow(1000);
const cleaner = ref('');
const most = ref<number | null>(null);
const problem = ref<string | null>(null);

const soak = computed(() => runningSoak(props.state.service));
const face = computed(() => (soak.value ? soakFace(soak.value, now.value) : null));
/** s between two beeps once the cleaner is in too long */
const BEEP_EVERY_S = 10;
watch(
  () => Math.floor((face.value?.overMinutes ?? 0) * (60 / BEEP_EVERY_S)),
  (over) => {
    if (over > 0) beep();
  },
);

function start(): void {
  if (!cleaner.value.trim() || most.value === null || most.value <= 0 || most.value > FLUSH.mostSoakMinutes) {
    problem.value = say('Name the cleaner and the longest time of its sheet, up to {mostSoakMinutes} min.', {
      mostSoakMinutes: FLUSH.mostSoakMinutes,
    });
    return;
  }
  problem.value = null;
  emit('send', { type: 'soak', step: props.step, on: true, cleaner: cleaner.value.trim(), mostMinutes: most.value });
}
function stop(): void {
  if (soak.value)
    emit('send', { type: 'soak', step: props.step, on: false, cleaner: soak.value.cleaner, mostMinutes: soak.value.mostMinutes });
}
</script>

<template>
  <div class="soaking">
    <template v-if="soak && face">
      <FrameFigure
        :value="formatClock(Math.abs(face.leftMinutes) * 60)"
        :unit="face.overMinutes > 0 ? 'too long: take it out now' : `until ${soak.cleaner} must be out`"
        :danger="face.overMinutes > 0"
        timer
      />
      <p v-if="face.overMinutes > 0" role="alert" class="danger">
        Beyond its sheet the cleaner eats what it should clean. Out, and rinse neutral.
      </p>
      <FramePart v-if="!locked" at="act"
        ><v-btn size="x-large" class="stop" @click="stop">{{ soak.cleaner }} is out</v-btn></FramePart
      >
    </template>
    <FramePart v-else-if="!locked" at="act">
      <form class="soak" novalidate @submit.prevent="start">
        <v-text-field v-model="cleaner" label="Cleaner, by its bottle" />
        <NumberField v-model="most" label="Longest time, by its sheet" unit="min" @enter="start" />
        <v-btn type="submit" size="large">Cleaner is in</v-btn>
        <p class="quiet wide">{{ NEVER_TOGETHER }}</p>
        <p v-if="problem" role="alert" class="danger wide">{{ problem }}</p>
      </form>
    </FramePart>
  </div>
</template>

<style scoped>
.soaking {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.soak {
  display: grid;
  grid-template-columns: 1.3fr 1fr auto;
  gap: 12px;
}
.soak .v-btn {
  height: 56px;
}
.wide {
  grid-column: 1 / -1;
}
.stop {
  justify-self: start;
}
</style>
