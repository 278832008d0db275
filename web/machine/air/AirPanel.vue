<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { computed, ref } from 'vue';
import { STANDING, type Tilt } from '@core/machine/loop-file/orientation.js';
import { shortName } from '@core/machine/catalogue/names.js';
import { liquidWords, type Liquid } from '@core/machine/liquids/fluids.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { intakeWords } from '@core/edge/words/intake.js';
import { digitsIn, formatIn, formatKpa, formatMl } from '@core/base/units/display.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import ProfileSheet from '../profile/ProfileSheet.vue';
import StandingPicker from '../profile/StandingPicker.vue';

/** Where gas can stay, what the flow sweeps out of there, and the pressures round the loop. */
const props = defineProps<{ loop: LoopFile; twin: Twin; colour: string | null; liquid: Liquid }>();

const tilt = ref<Tilt>({ ...STANDING.upright });
const speed = ref(props.loop.components.find(({ kind }) => kind === 'pump')?.speed ?? 1);
const withPressure = ref(true);

const air = useTwinAnswer(
  props.twin,
  () => ({ tilt: { ...tilt.value }, speed: speed.value }),
  ({ tilt: how, speed: share }) => props.twin.engine.air(how, share),
);
const upright = computed(() => tilt.value.pitchDeg === 0 && tilt.value.rollDeg === 0);
const staysMl = computed(() => air.value?.pockets.reduce((sum, { swept, volumeMl }) => sum + (swept?.staysMl ?? volumeMl), 0) ?? 0);
const mayStayMl = computed(() => air.value?.pockets.reduce((sum, { swept, volumeMl }) => sum + (swept?.mayStayMl ?? volumeMl), 0) ?? 0);
const names = computed(() => new Map(props.loop.components.map((part) => [part.id, shortName(part)])));
/** parts by name; the tubes between them go without saying */
const partsOf = (ids: readonly string[]): string => {
  const known = ids.flatMap((id) => names.value.get(id) ?? []);
  return known.length > 0 ? known.join(', ') : say('a tube between parts');
};
const flowLph = computed(() => {
  const first = props.loop.components.find(({ kind }) => kind === 'pump');
  return first ? (air.value?.flow?.links.get(first.id)?.flowLph ?? null) : null;
});
const most = computed(() => Math.max(1, ...(air.value?.pockets.map(({ volumeMl }) => volumeMl) ?? [])));
const lowest = computed(() => {
  const ports = [...(air.value?.flow?.portGaugeKpa ?? [])];
  return ports.length > 0 ? ports.reduce((low, each) => (each[1] < low[1] ? each : low)) : null;
});
/** "component.port" as said at the bench */
function portWords(at: string): string {
  const dot = at.lastIndexOf('.');
  return say('{get}, port {slice}', { get: names.value.get(at.slice(0, dot)) ?? at.slice(0, dot), slice: at.slice(dot + 1) });
}
const KEY = [
  { fate: 'liquid', words: 'liquid' },
  { fate: 'gas', words: 'air can stay here' },
] as const;
</script>

<template>
  <div>
    <ProfileSheet
      :scene="air"
      :colour="colour"
      :fates="KEY"
      :line="withPressure && upright && air?.flow ? { unit: 'kPa', at: air.flow.portGaugeKpa } : null"
      label="Loop profile with the places where air can stay"
    />
    <div v-if="air" class="below">
      <section>
        <p class="big-number">
          {{ digitsIn('mL', staysMl) }} <small>{{ unitName('mL') }} of air stay with the pump running</small>
        </p>
        <p v-if="mayStayMl - staysMl >= 1" class="estimate">
          At most {{ formatMl(mayStayMl) }}: that a radiator’s channels carry the rest down at this flow is an estimate.
        </p>
        <p>
          {{ formatMl(air.totalMl) }} can stay while it stands; the flow carries {{ formatMl(Math.max(0, air.totalMl - staysMl)) }} to the
          reservoir. <span class="quiet estimate">Upper limits: where air can be, not where it is.</span>
        </p>
        <label v-if="air.flow" class="slide speed mt-4">
          <span
            >Pump speed <b class="figures">{{ Math.round(speed * 100) }} %</b></span
          >
          <input v-model.number="speed" type="range" min="0" max="1" step="0.01" aria-label="Pump speed" />
          <span class="figures"
            ><b>{{ formatIn('L/h', Math.abs(flowLph ?? 0)) }}</b>
            <span class="quiet estimate"> computed for {{ liquidWords(liquid) }} at {{ formatIn('°C', 25) }}</span></span
          >
        </label>
        <p v-else class="mt-3">Flow cannot be told yet: the pump has no curve.</p>
        <v-checkbox
          v-if="air.flow"
          v-model="withPressure"
          :disabled="!upright"
          label="Gauge pressure along the way, upright"
          hide-details
        />
        <p v-if="lowest && lowest[1] < -1" class="quiet">
          Lowest pressure {{ formatKpa(lowest[1]) }} at {{ portWords(lowest[0]) }}: a leak there draws air in instead of dripping.
        </p>
        <p v-for="intake in air.intakes" :key="intake.pump" :class="intake.verdict === 'enough' ? 'quiet' : 'warn'">
          {{ intakeWords(intake, names.get(intake.pump) ?? intake.pump) }}
        </p>
        <StandingPicker v-model="tilt" class="mt-5" />
      </section>
      <section>
        <h2>Pockets</h2>
        <p v-if="air.pockets.length === 0" class="mt-2">None: from everywhere air finds its way up to the reservoir.</p>
        <ol v-else class="pockets">
          <li v-for="(pocket, index) in air.pockets" :key="index">
            <p>
              <b>{{ formatMl(pocket.volumeMl) }}</b> in {{ partsOf(pocket.parts) }}
            </p>
            <div class="track" aria-hidden="true">
              <i :style="{ width: `${(100 * (pocket.swept?.staysMl ?? pocket.volumeMl)) / most}%` }" />
              <i class="swept" :style="{ width: `${(100 * (pocket.swept?.sweptMl ?? 0)) / most}%` }" />
            </div>
            <p class="quiet">
              {{ formatIn('mm', pocket.topMm - pocket.sillMm) }} high above its sill<template v-if="pocket.swept"
                >; {{ formatMl(pocket.swept.staysMl) }} stay<template v-if="pocket.swept.mayStayMl - pocket.swept.staysMl >= 1"
                  >, at most {{ formatMl(pocket.swept.mayStayMl) }}</template
                >, {{ formatMl(pocket.swept.sweptMl) }} are carried off</template
              >
            </p>
          </li>
        </ol>
        <p v-if="air.pockets.length" class="quiet mt-3">
          Tilt the case until a pocket’s way leads up: what the flow leaves behind then rises to the reservoir.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped src="../profile/panel.css"></style>

<style scoped>
.warn {
  padding: 8px 12px;
  border-left: 5px solid var(--danger);
  background: var(--danger-ground);
}
.pockets {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
.pockets li {
  padding: 8px 0;
  border-bottom: 1px solid var(--line-soft);
}
.track {
  display: flex;
  height: 14px;
  margin: 4px 0;
}
.track i {
  border: 1.5px solid var(--ink);
  background: var(--glass);
}
.track .swept {
  background: repeating-linear-gradient(90deg, var(--ink) 0 1.5px, transparent 1.5px 6px);
}
</style>
