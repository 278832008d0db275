<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { digitsIn, formatIn } from '@core/base/units/display.js';
import { computed, reactive, ref } from 'vue';
import { shortName } from '@core/machine/catalogue/names.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import type { MeasuredBlock } from '@core/physics/diagnosis/measured.js';
import { CATALOGUE } from '@core/machine/catalogue/parts.js';
import { PLACES, type Place } from '@core/machine/catalogue/places.js';
import { parallelBlocks, swapBlocks, withRadiator } from '@core/physics/heat/variants.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { HeatAnswer } from '../compute/twinEngine.js';
import { useTwin, useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import NumberField from '../../base/units/NumberField.vue';
import ProfileSheet from '../profile/ProfileSheet.vue';
import type { SecondLine } from '../profile/secondLine.js';
import { heatAskedBy, type RadiatorFans } from '@core/physics/heat/setup.js';
import type { HeatForm } from './useHeatSetup.js';

/** Two variants of a loop side by side: flow, pressure and temperature, part by part. */
const props = defineProps<{
  loopId: string;
  loop: LoopFile;
  twin: Twin;
  colour: string | null;
  liquid: Liquid;
  measured: readonly MeasuredBlock[];
  revisions: readonly { number: number; kind: string }[];
  /** what is said of air and load */
  setup: HeatForm;
  /** groups of fans on its radiators */
  fans: readonly RadiatorFans[];
}>();

const FIGURES = {
  temperature: { label: 'Temperature', unit: '°C', digits: 1 },
  flow: { label: 'Flow', unit: 'L/h', digits: 0 },
  pressure: { label: 'Pressure lost', unit: 'kPa', digits: 1 },
} as const;
type Figure = keyof typeof FIGURES;

const figure = ref<Figure>('temperature');
const choice = ref('swapped');
const choices = computed(() => [
  { value: 'same', title: say('the same loop, other speeds') },
  { value: 'swapped', title: say('first two blocks swapped') },
  { value: 'parallel', title: say('first two blocks in parallel') },
  { value: 'hungrier', title: say('a part that draws more') },
  { value: 'radiator', title: say('one more radiator, not drawn') },
  ...props.revisions
    .slice(1)
    .map(({ number, kind }) => ({ value: String(number), title: say('revision {number}, {kind}', { number, kind }) })),
]);
/** which radiator more, and where it stands: a roof or rear one blows the case's air out */
const RADIATORS = CATALOGUE.filter(({ group }) => group === 'radiators');
const radiatorKey = ref(RADIATORS.find(({ key }) => key === 'radiator-360-30')?.key ?? '');
const radiator = computed(() => RADIATORS.find(({ key }) => key === radiatorKey.value));
const placeWanted = ref<Place>('front');
/** where it can stand: not every radiator goes everywhere */
const place = computed(() => {
  const places = radiator.value?.places ?? [];
  return places.includes(placeWanted.value) ? placeWanted.value : (places[0] ?? 'front');
});
/** the part that draws more, and how much it draws in all */
const blocks = computed(() => props.loop.components.filter(({ kind }) => kind === 'block'));
const hungry = ref(blocks.value[0]?.id ?? '');
const hungryW = ref<number | null>(null);
const drawnW = computed(() => hungryW.value ?? Math.round((props.setup.loadsW[hungry.value] ?? 0) * 1.5));

/** the file of the chosen variant: a late answer never stands under another choice */
const variant = usePage(
  async (signal): Promise<LoopFile> => {
    const { loop, loopId } = props;
    if (choice.value === 'same' || choice.value === 'hungrier') return loop;
    if (choice.value === 'radiator') return radiator.value ? withRadiator(loop, radiator.value, place.value) : loop;
    if (choice.value === 'swapped') return swapBlocks(loop);
    if (choice.value === 'parallel') return parallelBlocks(loop);
    return get<LoopFile>(`/loops/${loopId}/revisions/${choice.value}/file`, signal);
  },
  () => [choice.value, props.loop, radiatorKey.value, place.value],
);
const other = variant.data;
const problem = computed(() => {
  const changes = choice.value === 'swapped' || choice.value === 'parallel';
  if (!variant.problem.value && changes && other.value === props.loop)
    return say('This loop has no two blocks that follow each other: both sides show it as drawn.');
  return variant.problem.value;
});
const otherTwin = useTwin(
  () => other.value,
  () => props.liquid,
);

const usual = { pump: props.setup.pumpSpeed, fans: props.setup.fanSpeed };
const speeds = reactive({ a: { ...usual }, b: { ...usual } });
const blockFactors = Object.fromEntries(props.measured.map(({ id, factor }) => [id, factor]));
const ask = (loop: LoopFile, { pump, fans }: { pump: number; fans: number }, loadsW = props.setup.loadsW) => ({
  ...heatAskedBy({ ...props.setup, loadsW }, loop, props.fans),
  blockFactors,
  pumpSpeed: pump,
  fanSpeed: fans,
});
const loadsOfB = computed(() =>
  choice.value === 'hungrier' ? { ...props.setup.loadsW, [hungry.value]: drawnW.value } : props.setup.loadsW,
);
const answers = {
  a: useTwinAnswer(props.twin, () => ask(props.loop, speeds.a), (question) => props.twin.engine.heat(question)), // prettier-ignore
  b: useTwinAnswer(otherTwin, () => ask(other.value ?? props.loop, speeds.b, loadsOfB.value), (question) => otherTwin.engine.heat(question)), // prettier-ignore
};
const sides = computed(() => [
  { key: 'a' as const, letter: 'A', title: say('as drawn'), answer: answers.a.value },
  {
    key: 'b' as const,
    letter: 'B',
    title: choices.value.find(({ value }) => value === choice.value)?.title ?? '',
    answer: answers.b.value,
  },
]);

/** The chosen figure of every part: what the coolant leaves at or the part itself stands at, what flows, what is lost. */
function valuesOf(answer: HeatAnswer | null): ReadonlyMap<string, number> {
  if (!answer) return new Map();
  if (figure.value === 'temperature') return new Map(answer.result.parts.map(({ id, partC, coolantOutC }) => [id, partC ?? coolantOutC]));
  return new Map([...answer.flow.links].map(([id, { flowLph, dropKpa }]) => [id, figure.value === 'flow' ? Math.abs(flowLph) : dropKpa]));
}
const rows = computed(() => {
  const [a, b] = [valuesOf(answers.a.value), valuesOf(answers.b.value)];
  return props.loop.components
    .filter(({ id, kind }) => a.has(id) && b.has(id) && kind !== 'junction' && kind !== 'valve')
    .map((part) => ({
      id: part.id,
      name: shortName(part),
      what: figure.value === 'temperature' ? (part.kind === 'block' ? say('the part') : say('coolant leaving')) : '',
      a: a.get(part.id) as number,
      b: b.get(part.id) as number,
    }))
    .sort((one, two) => Math.abs(two.b - two.a) - Math.abs(one.b - one.a));
});
const scale = computed(() => {
  const values = rows.value.flatMap(({ a, b }) => [a, b]);
  const low = figure.value === 'temperature' ? Math.floor(Math.min(24, ...values)) : Math.min(0, ...values);
  return { low, high: Math.max(low + 1, ...values) };
});
const left = (value: number): string => `${(100 * (value - scale.value.low)) / (scale.value.high - scale.value.low)}%`;
const shown = (value: number): string => digitsIn(FIGURES[figure.value].unit, value, FIGURES[figure.value].digits);
const lines = computed(() => {
  const [a, b] = [lineOf(answers.a.value, props.loop), lineOf(answers.b.value, other.value)];
  if (!a || !b) return { a, b };
  return { a: { ...a, beside: [...b.at.values()] }, b: { ...b, beside: [...a.at.values()] } };
});
function difference(a: number, b: number): string {
  const { unit, digits } = FIGURES[figure.value];
  const by = Math.abs(b - a);
  if (by < 0.5 / 10 ** digits) return say('no change');
  return `${b > a ? '+' : '−'}${formatIn(unit === '°C' ? 'K' : unit, by, digits)}`;
}
function lineOf(answer: HeatAnswer | null, loop: LoopFile | null): SecondLine | null {
  if (!answer || !loop) return null;
  if (figure.value === 'pressure') return { unit: 'kPa', at: answer.flow.portGaugeKpa };
  const at = new Map<string, number>();
  for (const { id, coolantInC, coolantOutC } of answer.result.parts) {
    const flow = loop.components.find((part) => part.id === id)?.flow;
    if (!flow) continue;
    const through = Math.abs(answer.flow.links.get(id)?.flowLph ?? 0);
    at.set(`${id}.${flow[0]}`, figure.value === 'flow' ? through : coolantInC);
    at.set(`${id}.${flow[1]}`, figure.value === 'flow' ? through : coolantOutC);
  }
  return at.size > 0 ? { unit: FIGURES[figure.value].unit, at } : null;
}
</script>

<template>
  <div>
    <div class="choose">
      <v-select v-model="choice" :items="choices" label="B is" density="comfortable" hide-details />
      <div role="group" aria-label="Figure compared" class="figures-of">
        <button v-for="({ label }, key) in FIGURES" :key="key" type="button" :aria-pressed="figure === key" @click="figure = key">
          {{ label }}
        </button>
      </div>
    </div>
    <div v-if="choice === 'hungrier'" class="choose">
      <v-select
        v-model="hungry"
        :items="blocks.map((part) => ({ value: part.id, title: shortName(part) }))"
        label="Which part"
        density="comfortable"
        hide-details
        @update:model-value="hungryW = null"
      />
      <NumberField :model-value="drawnW" class="small" label="draws in all" unit="W" @update:model-value="hungryW = $event" />
    </div>
    <div v-if="choice === 'radiator'" class="choose">
      <v-select
        v-model="radiatorKey"
        :items="RADIATORS.map(({ key, label }) => ({ value: key, title: say(label) }))"
        label="Which radiator"
        density="comfortable"
        hide-details
      />
      <v-select
        :model-value="place"
        :items="(radiator?.places ?? []).map((value) => ({ value, title: say(PLACES[value]) }))"
        label="Where it stands"
        density="comfortable"
        hide-details
        @update:model-value="placeWanted = $event"
      />
    </div>
    <p v-if="problem" role="alert" class="mt-3">{{ problem }}</p>
    <div class="pair">
      <section v-for="{ key, letter, title, answer } in sides" :key="key">
        <h2>
          {{ letter }} <small>{{ title }}</small>
        </h2>
        <ProfileSheet :scene="answer" :colour="colour" :line="lines[key]" :label="`Loop profile of ${letter}, ${title}`" />
        <p v-if="answer" class="big">
          {{ digitsIn('L/h', answer.flowLph) }} <small>{{ unitName('L/h') }} through the pump</small>
        </p>
        <div class="speeds">
          <label class="slide">
            <span
              >Pump <b class="figures">{{ Math.round(speeds[key].pump * 100) }} %</b></span
            >
            <input v-model.number="speeds[key].pump" type="range" min="0.1" max="1" step="0.01" :aria-label="`Pump speed of ${letter}`" />
          </label>
          <label class="slide">
            <span
              >Fans <b class="figures">{{ Math.round(speeds[key].fans * 100) }} %</b></span
            >
            <input v-model.number="speeds[key].fans" type="range" min="0.1" max="1" step="0.01" :aria-label="`Fan speed of ${letter}`" />
          </label>
        </div>
      </section>
    </div>
    <ul v-if="rows.length" class="plain-list rows">
      <li v-for="row in rows" :key="row.id">
        <span
          >{{ row.name }} <span class="quiet">{{ row.what }}</span></span
        >
        <span class="track" aria-hidden="true">
          <i
            :style="{
              left: left(Math.min(row.a, row.b)),
              width: `calc(${left(Math.max(row.a, row.b))} - ${left(Math.min(row.a, row.b))})`,
            }"
          />
          <b class="a" :style="{ left: left(row.a) }" />
          <b class="b" :style="{ left: left(row.b) }" />
        </span>
        <span class="figures">{{ shown(row.a) }} → {{ shown(row.b) }} {{ unitName(FIGURES[figure].unit) }}</span>
        <span class="figures"
          ><b>{{ difference(row.a, row.b) }}</b></span
        >
      </li>
    </ul>
    <p v-else class="mt-4">Nothing to compare yet: a pump needs its curve, and something must flow.</p>
    <p class="quiet">
      Ring: A. Dot: B.
      <span class="estimate"
        >Computed with the air and loads that are said under Heat; differences are surer than the figures themselves.</span
      >
    </p>
  </div>
</template>

<style scoped src="../profile/panel.css"></style>

<style scoped>
.choose {
  display: grid;
  grid-template-columns: 320px auto 1fr;
  gap: 20px;
  align-items: center;
}
.figures-of {
  display: flex;
  gap: 4px;
}
.figures-of button {
  min-height: var(--touch);
  padding: 0 14px;
  border-bottom: 3px solid transparent;
}
.figures-of button[aria-pressed='true'] {
  border-color: var(--ink);
  font-weight: 620;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 26px;
  margin-top: 14px;
}
.pair > section {
  min-width: 0;
}
h2 small {
  font-weight: 400;
  font-size: 1rem;
}
.big {
  font-size: 1.6rem;
  font-weight: 640;
  margin: 8px 0 0;
}
.big small {
  font-size: 1rem;
  font-weight: 400;
}
.speeds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
}
.rows {
  margin-top: 18px;
}
.rows li {
  display: grid;
  grid-template-columns: 230px 1fr 190px 110px;
  gap: 18px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
}
.track {
  position: relative;
  height: 18px;
  border-bottom: 1px solid var(--line);
  margin: 0 8px;
}
.track i {
  position: absolute;
  top: 7px;
  height: 3px;
  background: var(--ink-soft);
}
.track b {
  position: absolute;
  top: 2px;
  width: 13px;
  height: 13px;
  margin-left: -6.5px;
  border-radius: 50%;
  border: 2.5px solid var(--ink);
}
.track .b {
  background: var(--ink);
  width: 9px;
  height: 9px;
  top: 4px;
  margin-left: -4.5px;
}
@media (max-width: 1000px) {
  .pair,
  .choose {
    grid-template-columns: 1fr;
  }
  .rows li {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
