<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { digitsIn, formatIn } from '@core/base/units/display.js';
import { bleedWords } from '@core/edge/words/bench.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, ref, watch } from 'vue';
import { BLEED_CRITERION } from '@core/physics/air/bleed.js';
import { levelNow } from '@core/bench/runs/contents.js';
import { SEEN_BLED_WINDOW_DAYS } from '@core/workshop/due-dates/defaults.js';
import { isSeenBled, judgeBleeding } from '@core/bench/runs/criteria.js';
import { stepOfKind, type Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { MEASURED } from '@core/physics/measuring/errors.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import ReservoirLimit from '../frame/ReservoirLimit.vue';
import AirTrend from './AirTrend.vue';
import { levelsAroundStop } from '@core/bench/instruments/level.js';
import { useNow } from '../../base/units/now.js';
import { useRunBench } from '../instruments/liveBench.js';
import NumberField from '../../base/units/NumberField.vue';

/** Cycle by cycle: level while the pump runs, level after the stop. The rise is the air that is left. */
const props = defineProps<{
  procedure: Procedure;
  state: RunState;
  colour: string | null;
  locked: boolean;
  file?: LoopFile;
  liquid?: Liquid;
}>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
/** mL of air that may be left by the levels at the stops; null before the first */
const airAtMostMl = defineModel<number | null>('airAtMostMl');
const running = ref<number | null>(null);
const stopped = ref<number | null>(null);
const bubbles = ref(false);
const noise = ref(false);
const problem = ref<string | null>(null);

const cycles = computed(() =>
  props.state.bleedCycles.map(({ value, source }) => ({
    ...value,
    levelSdMm: source === 'hand' ? MEASURED.levelByEyeSdMm : MEASURED.levelBySensorSdMm,
  })),
);
/** gas outside the reservoir, by the parts' volumes and the book; null where nobody knows what is inside */
const missing = computed(() => {
  const { insideMl, insideSdMl, standing } = props.state.contents;
  const reservoir = props.file?.components.find(({ kind }) => kind === 'reservoir');
  if (insideMl === null || !standing || !reservoir) return null;
  const { volumeMl, sdMl } = props.procedure.volume;
  return {
    ml: Math.max(0, volumeMl - reservoir.volume_ml - (insideMl - standing.reservoirMl)),
    sdMl: Math.hypot(sdMl, insideSdMl, standing.reservoirSdMl),
  };
});
const judged = computed(() => judgeBleeding(props.procedure, props.state));
const isSeen = computed(() => isSeenBled(props.state));
const lastRise = computed(() => judged.value.risesMm.at(-1) ?? null);
const scale = computed(() => {
  const levels = cycles.value.flatMap(({ runningMm, stoppedMm }) => [runningMm, stoppedMm]);
  const low = Math.min(...levels) - 2;
  const high = Math.max(...levels) + 2;
  return { low, high, y: (mm: number) => 150 - ((mm - low) / Math.max(1, high - low)) * 140 };
});

const bench = useRunBench();
/** the last stop of the pump, unless its cycle is already on record */
const lastStop = computed(() => {
  const run = props.state.pumpRuns.at(-1);
  const recorded = props.state.bleedCycles.at(-1)?.at ?? '';
  return run?.stoppedAt && run.stoppedAt > recorded ? { startedAt: run.startedAt, stoppedAt: run.stoppedAt } : null;
});
const measured = ref<{ runningMm: number; stoppedMm: number } | null>(null);
watch(
  () => lastStop.value?.stoppedAt,
  () => {
    measured.value = null;
  },
);
const aroundStop = computed(() => {
  const stop = lastStop.value;
  if (!bench || bench.source.value === null || !stop) return null;
  return levelsAroundStop(bench.history.value, stop.startedAt, stop.stoppedAt);
});
watch(aroundStop, (levels) => {
  if (measured.value || levels === null || levels.runningMm === null || levels.stoppedMm === null) return;
  measured.value = { runningMm: levels.runningMm, stoppedMm: levels.stoppedMm };
  running.value = levels.runningMm;
  stopped.value = levels.stoppedMm;
});

const now = useNow(1000);
const standing = computed(() => levelNow(props.procedure, props.state, now.value));
const pumpOn = computed(() => props.state.pump?.on === true);
const lead = computed(() => stepOfKind(props.procedure, 'bleed')?.lead ?? '');
/** what comes next in a cycle: run, read while it runs, stop, read again */
const order = computed(() => {
  if (judged.value.bled) return say('Enough: the air is out');
  if (pumpOn.value) return running.value === null ? say('Read the level while it runs') : say('Pump off, then read the level again');
  return running.value === null || stopped.value !== null
    ? lastStop.value
      ? say('Look for bubbles, and close the cycle')
      : say('Pump on for a cycle')
    : say('Read the level again');
});

function enter(): void {
  if (running.value === null || stopped.value === null) {
    problem.value = say('Enter both levels, in {unitName} on the reservoir’s scale.', { unitName: unitName('mm') });
    return;
  }
  problem.value = null;
  emit('send', {
    type: 'bleed-cycle',
    runningMm: running.value,
    stoppedMm: stopped.value,
    bubbles: bubbles.value,
    noise: noise.value,
    ...bySensor(),
  });
  stopped.value = null;
}

function bySensor(): { source?: 'instrument' | 'simulated' } {
  const own = measured.value;
  const source = bench?.source.value;
  return source && own && running.value === own.runningMm && stopped.value === own.stoppedMm ? { source } : {};
}
</script>

<template>
  <section class="bleed">
    <FrameOrder v-if="!locked" :say="order" :how="lead" />
    <FrameFigure
      :value="judged.bled ? 'bled' : lastRise === null ? '0' : digitsIn('mm', lastRise, 1)"
      :unit="judged.bled ? '' : lastRise === null ? 'cycles yet' : `${unitName('mm')} rise at the last stop`"
    />
    <FramePart v-if="procedure.facts?.reservoir && standing" at="limit">
      <ReservoirLimit :reservoir="procedure.facts.reservoir" :colour="colour" :stands-ml="standing.ml" :measured="standing.measured" />
    </FramePart>
    <div aria-live="polite">
      <FramePart at="so-far">
        <p>
          {{
            judged.bled
              ? `${BLEED_CRITERION.cycles} cycles agree, nothing bubbles, the rise is small.`
              : isSeen
                ? 'Bled as seen; no level was compared.'
                : `Still missing: ${judged.missing.map(bleedWords).join('; ')}.`
          }}
        </p>
      </FramePart>
      <AirTrend
        v-if="file && cycles.length"
        v-model:at-most-ml="airAtMostMl"
        :file="file"
        :liquid="liquid ?? WATER"
        :cycles="cycles"
        :bled="judged.bled"
        :missing="missing"
      />
    </div>
    <FramePart v-if="cycles.length" at="curve">
      <svg class="cycles" viewBox="0 0 600 170" preserveAspectRatio="none" role="img" :aria-label="`Levels over ${cycles.length} cycles`">
        <g v-for="(cycle, index) in cycles" :key="index">
          <rect
            :x="20 + index * (560 / cycles.length)"
            :y="scale.y(cycle.runningMm)"
            :width="0.34 * (560 / cycles.length)"
            :height="156 - scale.y(cycle.runningMm)"
            :fill="colour ?? 'var(--ink-soft)'"
          />
          <rect
            :x="20 + (index + 0.36) * (560 / cycles.length)"
            :y="scale.y(cycle.stoppedMm)"
            :width="0.34 * (560 / cycles.length)"
            :height="156 - scale.y(cycle.stoppedMm)"
            :fill="colour ?? 'var(--ink-soft)'"
            opacity="0.55"
          />
          <line
            :x1="20 + index * (560 / cycles.length)"
            :x2="20 + (index + 0.7) * (560 / cycles.length)"
            :y1="scale.y(cycle.runningMm)"
            :y2="scale.y(cycle.runningMm)"
            stroke="var(--ink)"
            stroke-width="2"
          />
          <line
            :x1="20 + (index + 0.36) * (560 / cycles.length)"
            :x2="20 + (index + 0.7) * (560 / cycles.length)"
            :y1="scale.y(cycle.stoppedMm)"
            :y2="scale.y(cycle.stoppedMm)"
            stroke="var(--ink)"
            stroke-width="2"
          />
        </g>
        <line x1="0" x2="600" y1="157" y2="157" stroke="var(--ink)" stroke-width="2" />
      </svg>
    </FramePart>
    <ol v-if="cycles.length" class="plain-list list figures quiet">
      <li v-for="(cycle, index) in cycles" :key="index">
        {{ index + 1 }}: {{ formatIn('mm', cycle.runningMm, 1) }} running, {{ formatIn('mm', cycle.stoppedMm, 1) }} stopped<template
          v-if="cycle.bubbles"
          >, bubbles</template
        ><template v-if="cycle.noise">, pump noise</template>
      </li>
    </ol>
    <p v-if="aroundStop && !locked" class="quiet" aria-live="polite">
      {{
        measured
          ? 'Levels of the last stop, from the sensor. Look for bubbles, then close the cycle.'
          : 'The pump stands: the surface comes to rest, then the sensor is read.'
      }}
    </p>
    <FramePart v-if="!locked" at="act">
      <form class="entry" novalidate @submit.prevent="enter">
        <NumberField v-model="running" large label="Level, pump running" unit="mm" @enter="enter" />
        <NumberField v-model="stopped" large label="Level, pump stopped" unit="mm" @enter="enter" />
        <v-btn type="submit" size="x-large">Cycle done</v-btn>
        <v-checkbox v-model="bubbles" label="Bubbles at the return" />
        <v-checkbox v-model="noise" label="Pump sounds of air" />
      </form>
      <p v-if="!judged.bled && !isSeen && !bubbles && !noise" class="seen">
        <button type="button" class="link" @click="emit('send', { type: 'seen-bled' })">
          Nothing bubbles, nothing sounds: bled as seen
        </button>
        <span class="quiet">Its level is then looked at within {{ SEEN_BLED_WINDOW_DAYS.to }} days.</span>
      </p>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    </FramePart>
  </section>
</template>

<style scoped>
.seen {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  margin: 0;
}
.seen .link {
  text-decoration: underline;
  min-height: 44px;
}
.bleed {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.cycles {
  width: 100%;
  height: 170px;
}
.list {
  columns: 2;
}
.entry {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
}
.entry .v-btn {
  height: 64px;
}
@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
