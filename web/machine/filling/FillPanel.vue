<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { computed, onScopeDispose, ref } from 'vue';
import { STANDING, STANDING_WORDS } from '@core/machine/loop-file/orientation.js';
import type { SimulatedPulse } from '@core/physics/filling/fillSimulation.js';
import { liquidWords, type Liquid } from '@core/machine/liquids/fluids.js';
import { partName, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import { digitsIn, formatIn, formatMl, secondsDigits } from '@core/base/units/display.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { cannotPrimeWords } from '@core/edge/words/filling.js';
import { forecastOf } from '@core/physics/filling/forecast.js';
import { reservoirMarks } from '@core/machine/loop-file/marks.js';
import { standingMl, type InsideNow } from '@core/physics/live-book/insideNow.js';
import FillRange from './FillRange.vue';
import { nameOpening } from '@core/physics/draining/openingNames.js';
import ProfileSheet from '../profile/ProfileSheet.vue';

/** The first fill, pulse by pulse: where the liquid stands, how long to run, what falls back, what to pour. */
const props = defineProps<{ loop: LoopFile; twin: Twin; colour: string | null; liquid: Liquid; inside?: InsideNow | null }>();

const reservoirs = computed(() => props.loop.components.filter(({ kind }) => kind === 'reservoir'));
/** the reservoir that is poured into, where a case holds several circuits */
const from = ref(reservoirs.value[0]?.id ?? null);
/** mL to the mark that are no pour any more */
const AT_MARK_ML = 5;
/** a loop that is full shows how it was filled, until somebody asks for the rest */
function standsAtMark(): boolean {
  const reservoir = props.loop.components.find(({ kind }) => kind === 'reservoir');
  const at = props.inside?.standing?.reservoirMl;
  return reservoir !== undefined && at !== undefined && at >= reservoirMarks(reservoir).fillMarkMl - AT_MARK_ML;
}
/** from what is inside now, or as if the loop were dry */
const dry = ref(props.inside?.shares === null || standsAtMark());
const standing = computed(() => (dry.value || reservoirs.value.length !== 1 ? null : (props.inside?.standing ?? null)));
const fill = useTwinAnswer(
  props.twin,
  () => ({ from: from.value, standing: standing.value }),
  ({ from: id, standing: inside }) => props.twin.engine.pourAndPulse(id, inside),
);
const full = useTwinAnswer(
  props.twin,
  () => ({}),
  () => props.twin.engine.standing(STANDING.upright),
);
const simulation = computed(() => fill.value?.simulation ?? null);
const forecast = computed(() => simulation.value && forecastOf(simulation.value, standingMl(standing.value)));
/** which scene: 0 at rest, then pump stops and settled of each pulse in turn */
const at = ref(0);
const last = computed(() => Math.max(0, (fill.value?.scenes.length ?? 1) - 1));
const scene = computed(() => fill.value?.scenes[Math.min(at.value, last.value)] ?? full.value ?? null);
const pulse = computed(() => Math.ceil(at.value / 2) - 1);
const running = computed(() => at.value % 2 === 1);
const current = computed(() => simulation.value?.pulses[pulse.value] ?? null);

const headline = computed(() => {
  if (!simulation.value) return null;
  if (simulation.value.totalMl < 1) return { big: '0', words: say('{unitName}: nothing more goes in', { unitName: unitName('mL') }) };
  if (!current.value)
    return {
      big: digitsIn('mL', simulation.value.passiveMl),
      words: say('{unitName} to the fill mark; this much runs in by itself', { unitName: unitName('mL') }),
    };
  if (current.value.pouredRunning)
    return {
      big: digitsIn('mL', current.value.refillMl),
      words: say('{unitName} poured while the pump runs{slowedTo}', { unitName: unitName('mL'), slowedTo: slowedTo(current.value) }),
    };
  return running.value
    ? {
        big: secondsDigits(current.value.runS),
        words: say('s of pump{slowedTo} moves {formatMl}', {
          slowedTo: slowedTo(current.value),
          formatMl: formatMl(current.value.movedMl),
        }),
      }
    : { big: digitsIn('mL', current.value.refillMl), words: say('{unitName} at most now', { unitName: unitName('mL') }) };
});
/** the speed that a pulse needs, where it is less than the one set */
const slowedTo = ({ speed, slowed }: SimulatedPulse): string =>
  slowed ? say(' at {speed} % speed', { speed: Math.round(100 * speed) }) : '';
const tooQuickWords = computed(() =>
  props.loop.components.find(({ id }) => id === simulation.value?.tooQuick)?.speed_fixed
    ? say('and its speed is fixed')
    : say('as slow as the lift allows'),
);

/** ms between scenes while it plays */
const PLAY_MS = 900;
let timer: number | undefined;
const playing = ref(false);
function play(): void {
  if (playing.value) return stop();
  if (at.value >= last.value) at.value = 0;
  playing.value = true;
  timer = window.setInterval(() => {
    at.value += 1;
    if (at.value >= last.value) stop();
  }, PLAY_MS);
}
function stop(): void {
  playing.value = false;
  window.clearInterval(timer);
}
onScopeDispose(stop);
function step(by: number): void {
  stop();
  at.value = Math.min(last.value, Math.max(0, at.value + by));
}
const most = computed(() => Math.max(1, ...(simulation.value?.pulses.map(({ movedMl }) => movedMl) ?? [])));
const KEY = [
  { fate: 'liquid', words: 'filled' },
  { fate: 'gas', words: 'still air' },
] as const;
</script>

<template>
  <div>
    <ProfileSheet :scene="scene" :colour="colour" :fates="KEY" label="Loop profile, upright, as it fills" />

    <div v-if="simulation && headline" class="below">
      <section>
        <v-select
          v-if="reservoirs.length > 1"
          v-model="from"
          class="mb-3"
          :items="reservoirs.map((part) => ({ value: part.id, title: partName(part) }))"
          label="Pour into"
          density="comfortable"
          hide-details
          @update:model-value="at = 0"
        />
        <p class="big-number">
          {{ headline.big }} <small>{{ headline.words }}</small>
        </p>
        <p v-if="!simulation.primes" class="warn" role="alert">
          {{ cannotPrimeWords(simulation) }}
        </p>
        <p v-else-if="simulation.overflowMl > 0" class="warn" role="alert">
          When the pump stops, air enters at the return port and {{ formatMl(simulation.overflowMl) }} run over: fill lower, or bring the
          return under the surface.
        </p>
        <p v-else-if="simulation.tooQuick" class="warn" role="alert">
          The pump empties the reservoir faster than a hand can switch or pour, {{ tooQuickWords }}.
        </p>
        <p v-else-if="current && !running && current.fallsBackMl > 1">
          {{ formatMl(current.fallsBackMl) }} fell back into the reservoir when the pump stopped.
        </p>
        <p v-else-if="current?.pouredRunning">Between pulses all of it would fall back: one hand pours, one on the switch.</p>
        <div class="row mt-4">
          <v-btn variant="outlined" size="large" :disabled="at === 0" @click="step(-1)">Back</v-btn>
          <v-btn variant="flat" color="primary" size="large" :disabled="at >= last" @click="step(1)">{{
            running ? 'Pump off' : 'Next pulse'
          }}</v-btn>
          <v-btn variant="text" size="large" @click="play">{{ playing ? 'Hold' : 'Play it through' }}</v-btn>
        </div>
        <FillRange v-if="forecast" class="mt-4" :forecast="forecast" :colour="colour" />
        <label v-if="inside?.standing" class="row quiet mt-2"
          ><input v-model="dry" type="checkbox" @change="at = 0" /> as if the loop were dry, not from what is inside now</label
        >
        <p class="quiet mt-2">
          About <b>{{ formatMl(simulation.totalMl) }}</b> to pour, in {{ simulation.pulses.length }}
          {{ simulation.pulses.length === 1 ? 'pulse' : 'pulses' }}. The least is where a radiator’s channels carry no air down, the most
          once all air is out: tilt the case, see Air and flow. The front rises at most {{ formatIn('mm', simulation.liftMm) }} above the
          surface; at no flow the pump pushes {{ formatIn('mm', simulation.shutoffMm) }}.
          <span class="estimate">Computed for {{ liquidWords(liquid) }} at {{ formatIn('°C', 25) }} from the drawing.</span>
        </p>
        <p class="danger-note">The pump must never run dry: stop at the low mark, whatever this says.</p>
      </section>
      <section>
        <h2>Pulses</h2>
        <ol class="pulses">
          <li v-for="(each, index) in simulation.pulses" :key="index">
            <button type="button" class="pulse" :class="{ now: index === pulse }" @click="((at = 2 * index + 2), stop())">
              <span class="figures">{{ index + 1 }}</span>
              <span class="track" aria-hidden="true">
                <i class="kept" :style="{ width: `${(100 * each.refillMl) / most}%`, background: colour ?? 'var(--ink-soft)' }" />
                <i class="back" :style="{ width: `${(100 * each.fallsBackMl) / most}%` }" />
              </span>
              <span class="figures">{{ secondsDigits(each.runS) }} s{{ slowedTo(each) }} · pour {{ formatMl(each.refillMl) }}</span>
            </button>
          </li>
        </ol>
        <p v-if="simulation.pulses.length" class="quiet">Solid: what goes in for good. Hatched: what falls back when the pump stops.</p>
        <template v-if="fill?.uncovers.length">
          <h2 class="mt-5">Before the pump draws air</h2>
          <ul class="plain-list figures">
            <li v-for="turn in fill.uncovers" :key="turn.towards">
              towards {{ STANDING_WORDS[turn.towards].replace('on its ', 'the ') }}:
              {{
                turn.angleDeg === null
                  ? 'the outlet stays covered'
                  : turn.angleDeg === 0
                    ? 'not covered even upright'
                    : `up to ${turn.angleDeg - 1}°`
              }}
            </li>
          </ul>
        </template>
      </section>
    </div>
    <div v-else-if="fill?.gravity" class="below">
      <section>
        <p class="big-number">
          {{ digitsIn('mL', fill.gravity.totalMl) }} <small>{{ unitName('mL') }} by gravity</small>
        </p>
        <p>There is no reservoir: hang a bottle above {{ nameOpening(loop, fill.gravity.port) }} and turn the case as listed.</p>
      </section>
      <section>
        <h2>Turns</h2>
        <ol class="pulses">
          <li v-for="(turn, index) in fill.gravity.turns" :key="index" class="pulse">
            <span class="figures">{{ index + 1 }}</span><span>{{ STANDING_WORDS[turn.orientation] }}</span
            ><b class="figures">{{ formatMl(turn.pouredMl) }}</b>
          </li>
        </ol>
      </section>
    </div>
    <p v-else-if="fill" class="mt-5">The fill cannot be told yet: give the pump its curve in the loop file.</p>
  </div>
</template>

<style scoped src="../profile/panel.css"></style>

<style scoped>
.warn {
  margin-top: 8px;
  padding: 8px 12px;
  border-left: 5px solid var(--danger);
  background: var(--danger-ground);
}
.danger-note {
  margin-top: 14px;
  padding-left: 12px;
  border-left: 5px solid var(--danger);
}
.pulses {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
.pulse {
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 42px;
  padding: 4px 10px;
  text-align: left;
}
.pulse.now {
  background: var(--slab);
  color: var(--on-slab);
  border-radius: 3px;
}
.track {
  display: flex;
  height: 16px;
}
.track i {
  border: 1.5px solid currentColor;
}
.back {
  background: repeating-linear-gradient(45deg, currentColor 0 1.5px, transparent 1.5px 5px);
}
</style>
