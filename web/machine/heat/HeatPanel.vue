<script setup lang="ts">
import { HEAT_SD } from '@core/physics/heat/defaults.js';
import { digitsIn, formatDegrees, formatIn } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { MeasuredBlock } from '@core/physics/diagnosis/measured.js';
import type { SpareW } from '@core/physics/heat/spare.js';
import { usualAir, type AirPath, type HeatEnd } from '@core/physics/heat/steady.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import ProfileSheet from '../profile/ProfileSheet.vue';
import NumberField from '../../base/units/NumberField.vue';
import RadiatorAir from './RadiatorAir.vue';
import RoomForRadiators from './RoomForRadiators.vue';
import { airUntold, given, heatAskedBy, type RadiatorFans } from '@core/physics/heat/setup.js';
import FanCurve from './FanCurve.vue';
import FanGroups from './FanGroups.vue';
import type { HeatForm } from './useHeatSetup.js';

/** Temperatures at steady load, with coolant and case air solved together; the quietest speeds. */
const props = defineProps<{
  loop: LoopFile;
  twin: Twin;
  colour: string | null;
  measured: readonly MeasuredBlock[];
  /** groups of fans on its radiators, by the machine's sheet of connectors */
  fans: readonly RadiatorFans[];
  systemId: string;
  loopId: string;
}>();
/** what is said of air and load, the same in every panel */
const setup = defineModel<HeatForm>('setup', { required: true });
/** of a part's temperature: where a baseline was recorded, and where size and flow say all of it */
const measuredK = computed(() => formatIn('K', HEAT_SD.measuredK));
const estimatedK = computed(() => formatIn('K', HEAT_SD.estimatedK));
/** radiators of which neither the drawing nor a hand says how they breathe */
const untold = computed(() => airUntold(props.loop, setup.value));
const pathOf = (id: string): AirPath | null => setup.value.air[id] ?? usualPaths.get(id) ?? null;
const usualPaths = new Map(
  props.loop.components
    .filter(({ kind }) => kind === 'radiator')
    .map((part) => {
      const { from, to, blockage } = usualAir(part, 1);
      return [part.id, { from, to, blockage }] as const;
    }),
);

const WHY_NOT: Readonly<Record<HeatEnd, string>> = {
  solved: '',
  'no-radiator': 'There is no radiator to give the heat off.',
  'nothing-flows': 'Nothing flows at this pump speed: temperatures cannot be told.',
  singular: 'Some parts take up heat and have no way to give it off: there is no steady temperature.',
};

const blockFactors = Object.fromEntries(props.measured.map(({ id, factor }) => [id, factor]));

const carried = computed(() => ({ ...heatAskedBy(setup.value, props.loop, props.fans), blockFactors }));
const limits = computed(() => given(setup.value.limitsC));
const question = computed(() => ({
  ...carried.value,
  pumpSpeed: setup.value.pumpSpeed,
  fanSpeed: setup.value.fanSpeed,
  limitsC: limits.value,
}));
const heat = useTwinAnswer(
  props.twin,
  () => question.value,
  (asked) => props.twin.engine.heat(asked),
);
const quiet = useTwinAnswer(
  props.twin,
  () => ({ ...carried.value, limitsC: limits.value }),
  (question) => props.twin.engine.quietPoint(question),
);
const names = computed(() => new Map(props.loop.components.map((part) => [part.id, shortName(part)])));
const hot = computed(() => heat.value?.result.parts.filter(({ partC }) => partC !== null) ?? []);
const hottest = computed(() =>
  hot.value.reduce<(typeof hot.value)[number] | null>((so, each) => ((each.partC ?? 0) > (so?.partC ?? 0) ? each : so), null),
);
/** the part that is furthest over what it may get; null: every limit holds */
const over = computed(() => {
  const beyond = hot.value.flatMap(({ id, partC }) => {
    const limitC = setup.value.limitsC[id] ?? null;
    return limitC !== null && partC !== null && partC > limitC ? [{ id, byK: partC - limitC }] : [];
  });
  return beyond.sort((one, other) => other.byK - one.byK)[0] ?? null;
});
const line = computed(() => {
  const at = new Map<string, number>();
  for (const { id, coolantInC, coolantOutC } of heat.value?.result.parts ?? []) {
    const flow = props.loop.components.find((part) => part.id === id)?.flow;
    if (!flow) continue;
    at.set(`${id}.${flow[0]}`, coolantInC);
    at.set(`${id}.${flow[1]}`, coolantOutC);
  }
  return at.size > 0 ? { unit: '°C', at } : null;
});
const scale = computed(
  () => Math.max(40, ...hot.value.map(({ partC }) => partC ?? 0), ...Object.values(setup.value.limitsC).map((limit) => limit ?? 0)) * 1.05,
);
const radiators = computed(() => heat.value?.result.parts.filter(({ air }) => air !== null) ?? []);
/** what a part may draw beside its load until a limit is met, by part */
const spare = computed(
  () =>
    new Map(
      (heat.value?.spare ?? []).map((each) => [each.id, { isOver: each.spareW < 0 && each.first === each.id, words: spareWords(each) }]),
    ),
);
function spareWords({ id, spareW, first }: SpareW): string {
  const name = names.value.get(first) ?? first;
  if (spareW >= 0)
    return first === id
      ? say('{watt} W to spare', { watt: Math.floor(spareW) })
      : say('{watt} W to spare, then {name} is at its limit', { watt: Math.floor(spareW), name });
  const watt = Math.ceil(-spareW);
  if (first === id) return say('{watt} W too much', { watt });
  return watt > (setup.value.loadsW[id] ?? 0)
    ? say('without it {name} is over its limit as well', { name })
    : say('{watt} W less here would bring {name} to its limit', { watt, name });
}
const groupsOn = (id: string): readonly RadiatorFans[] => props.fans.filter(({ of }) => of?.part === id);
const isMeasured = (id: string): boolean => Object.hasOwn(blockFactors, id);
function takeQuiet(): void {
  const best = quiet.value?.best;
  if (!best) return;
  setup.value.pumpSpeed = best.pumpSpeed;
  setup.value.fanSpeed = Math.ceil(best.fanSpeed * 100) / 100;
}
</script>

<template>
  <div>
    <ProfileSheet :scene="heat" :colour="colour" :line="line" label="Loop profile with the coolant’s temperature along the way" />
    <template v-if="heat && heat.result.end === 'solved'">
      <div class="below" style="--left: 0.9fr; --right: 1.2fr">
        <section>
          <p v-if="over" class="big-number danger">
            {{ digitsIn('K', Math.max(1, Math.round(over.byK))) }}
            <small>{{ unitName('K') }} over its limit, {{ names.get(over.id) }}</small>
          </p>
          <p v-else class="big-number">
            {{ hottest ? digitsIn('°C', hottest.partC ?? 0) : '–' }}
            <small>{{ unitName('°C') }} {{ hottest ? names.get(hottest.id) : 'no part carries a load' }}</small>
          </p>
          <p>
            <template v-if="over && hottest">{{ names.get(hottest.id) }} at {{ formatIn('°C', hottest.partC ?? 0) }}. </template>
            <b>{{ formatIn('L/h', heat.flowLph) }}</b>, air in the case {{ formatIn('°C', heat.result.caseAirC, 1) }}.
            <span v-if="measured.length === 0" class="quiet estimate"
              >Estimates from size and flow, ± {{ estimatedK }} until a baseline is recorded.</span
            >
            <span v-else class="quiet estimate"
              >{{ measured.map(({ id }) => names.get(id)).join(', ') }} from the recorded baseline, ± {{ measuredK }}; the rest estimated
              from size and flow, ± {{ estimatedK }}.</span
            >
          </p>
          <label class="slide">
            <span
              >Fans <b class="figures">{{ Math.round(setup.fanSpeed * 100) }} %</b></span
            >
            <input v-model.number="setup.fanSpeed" type="range" min="0.1" max="1" step="0.01" aria-label="Fan speed" />
          </label>
          <label class="slide">
            <span
              >Pump <b class="figures">{{ Math.round(setup.pumpSpeed * 100) }} %</b></span
            >
            <input v-model.number="setup.pumpSpeed" type="range" min="0.1" max="1" step="0.01" aria-label="Pump speed" />
          </label>
          <p v-if="quiet?.best" class="mt-2">
            Quiet point: fans <b>{{ Math.round(quiet.best.fanSpeed * 100) }} %</b>, pump
            <b>{{ Math.round(quiet.best.pumpSpeed * 100) }} %</b> keep every limit at {{ formatDegrees(setup.roomC) }}.
            <v-btn class="ml-2" size="small" variant="outlined" @click="takeQuiet">Set it</v-btn>
          </p>
          <p v-else-if="quiet" class="mt-2">
            <b>No speed keeps every limit at {{ formatDegrees(setup.roomC) }}:</b> more radiator, a lower power limit, or a cooler room.
          </p>
          <div class="conditions mt-3">
            <NumberField v-model="setup.roomC as number | null" label="Room" unit="°C" />
            <NumberField v-model="setup.caseHeatW as number | null" label="Air-cooled parts" unit="W" />
          </div>
        </section>
        <section>
          <h2>Parts</h2>
          <ul class="plain-list parts">
            <li v-for="each in hot" :key="each.id">
              <span class="name">{{ names.get(each.id) }}</span>
              <span class="track" aria-hidden="true">
                <i
                  class="coolant"
                  :style="{
                    width: `${(100 * ((each.coolantInC + each.coolantOutC) / 2)) / scale}%`,
                    background: colour ?? 'var(--ink-soft)',
                  }"
                />
                <i :style="{ width: `${(100 * ((each.partC ?? 0) - (each.coolantInC + each.coolantOutC) / 2)) / scale}%` }" />
                <b
                  v-if="setup.limitsC[each.id] !== null"
                  class="limit"
                  :style="{ left: `${(100 * (setup.limitsC[each.id] ?? 0)) / scale}%` }"
                />
              </span>
              <span class="figures"
                ><b>{{ formatIn('°C', each.partC ?? 0, 1) }}</b> <span class="quiet">{{ isMeasured(each.id) ? '± 2' : '± 5' }}</span></span
              >
              <NumberField v-model="setup.loadsW[each.id] as number | null" class="small" label="load" :of="names.get(each.id)" unit="W" />
              <NumberField
                v-model="setup.limitsC[each.id] as number | null"
                class="small"
                label="limit"
                :of="names.get(each.id)"
                unit="°C"
              />
              <span v-if="spare.has(each.id)" class="spare" :class="spare.get(each.id)?.isOver ? 'danger' : 'quiet'">{{
                spare.get(each.id)?.words
              }}</span>
            </li>
          </ul>
          <p class="quiet">In the liquid’s colour: the coolant. Beyond it: what the part stands above it. The mark: its limit.</p>
          <h2 class="mt-4">Radiators</h2>
          <ul class="plain-list figures">
            <li v-for="each in radiators" :key="each.id" class="radiator">
              <p>
                {{ names.get(each.id) }}: <b>{{ Math.round(-each.heatW) }} W</b>
                <span class="quiet"
                  >air {{ digitsIn('°C', each.air?.inC ?? 0, 1) }} → {{ formatIn('°C', each.air?.outC ?? 0, 1) }}, coolant
                  {{ digitsIn('°C', each.coolantInC, 1) }} → {{ formatIn('°C', each.coolantOutC, 1) }}</span
                >
              </p>
              <p v-if="untold.includes(each.id)" class="danger">Where it sits is not drawn: taken to breathe room air until said here.</p>
              <RadiatorAir
                v-if="pathOf(each.id)"
                :model-value="pathOf(each.id) as AirPath"
                :name="names.get(each.id) ?? each.id"
                @update:model-value="setup.air[each.id] = $event"
              />
              <FanGroups v-model="setup.paces" :groups="groupsOn(each.id)" :system-id="systemId" />
            </li>
          </ul>
        </section>
      </div>
      <RoomForRadiators class="mt-6" :loop="loop" :loop-id="loopId" :twin="twin" :question="question" />
      <FanCurve v-model:setup="setup" class="mt-6" :twin="twin" :carried="carried" />
    </template>
    <p v-else-if="heat" class="mt-5">
      {{ WHY_NOT[heat.result.end] }}
    </p>
    <p v-else-if="twin.loaded.value > 0" class="mt-5">Temperatures cannot be told yet: give the pump its curve in the loop file.</p>
  </div>
</template>

<style scoped src="../profile/panel.css"></style>

<style scoped>
.radiator {
  padding: 6px 0;
}
.conditions {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.parts {
  margin-top: 8px;
}
.parts li {
  display: grid;
  grid-template-columns: 110px 1fr 104px 96px 96px;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
}
.track {
  position: relative;
  display: flex;
  height: 20px;
  background: var(--well);
}
.track i {
  border: 1.5px solid var(--ink);
  background: var(--glass);
}
.limit {
  position: absolute;
  top: -4px;
  bottom: -4px;
  width: 3px;
  background: var(--ink);
}
.small :deep(.v-input__details) {
  display: none;
}
.spare {
  grid-column: 2 / 6;
  font-size: 0.92rem;
}
@media (max-width: 1000px) {
  .parts li {
    grid-template-columns: 1fr 1.4fr 1fr;
  }
  .parts .small {
    grid-row: 2;
  }
  .parts .small:last-child {
    grid-column: 3;
  }
  .parts .small:nth-last-child(2) {
    grid-column: 2;
  }
}
</style>
