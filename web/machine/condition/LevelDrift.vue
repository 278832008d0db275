<script setup lang="ts">
import { computed, reactive } from 'vue';
import { daysBetween, DAYS_PER_MONTH } from '@core/base/units/calendar.js';
import { formatDay } from '@core/base/units/dates.js';
import { digitsIn, formatDegrees, formatIn, formatMm } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { say } from '@core/base/words/say.js';
import { levelWords } from '@core/edge/words/drift.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { REFERENCE_COOLANT_C } from '@core/machine/liquids/classes.js';
import { LEVEL, levelDrift, vapourLine } from '@core/physics/condition/level.js';
import type { LoopLevels } from '@core/workshop/logs/answers.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import DayField from '../../base/units/DayField.vue';
import NumberField from '../../base/units/NumberField.vue';
import DriftChart from './DriftChart.vue';

/** The level since the last fill beside what its own walls let through: air coming home, vapour, or a leak. */
const props = defineProps<{
  systemId: string;
  levels: LoopLevels;
  name: string | null;
  file: LoopFile | null;
  today: string;
  canWrite: boolean;
}>();
const emit = defineEmits<{ saved: [text: string]; strike: [id: string] }>();
const submit = useSubmit();
const form = reactive({ on: props.today, mm: null as number | null });

const coolantC = computed(() => props.levels.coolantC ?? REFERENCE_COOLANT_C);
const drift = computed(() => levelDrift(props.levels.filledOn, props.levels.read, props.file && vapourLine(props.file, coolantC.value)));
/** from the check of the first days on, or from the fill */
const band = computed(() => {
  const { vapour, filledOn, points } = drift.value;
  if (!vapour) return [];
  const early = points.filter(({ on }) => daysBetween(filledOn, on) <= LEVEL.settlesDays).at(-1);
  const [from, zero] = [early?.on ?? filledOn, early?.mm ?? 0];
  const months = daysBetween(from, props.today) / DAYS_PER_MONTH;
  return [
    { on: from, low: zero - LEVEL.readSdMm, high: zero + LEVEL.readSdMm },
    { on: props.today, low: zero - vapour.highMm * months - LEVEL.readSdMm, high: zero - vapour.lowMm * months + LEVEL.readSdMm },
  ];
});
const points = computed(() => [
  { key: 'fill', on: drift.value.filledOn, value: 0, told: say('filled to its mark, {day}', { day: formatDay(drift.value.filledOn) }) },
  ...drift.value.points.map(({ on, mm, id }) => ({
    key: id ?? `${on} settling`,
    on,
    value: mm,
    told: say('{day}: {level} from its mark', { day: formatDay(on), level: formatMm(mm) }),
  })),
]);
const filled = computed(() => ({ on: props.levels.filledOn, words: say('filled') }));
const byHand = computed(() => drift.value.points.flatMap((point) => (point.id === undefined ? [] : [{ ...point, id: point.id }])));

async function save(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/systems/${props.systemId}/levels`, { body: { loopId: props.levels.loopId, ...form }, idempotencyKey }),
  );
  if (!saved) return;
  form.mm = null;
  emit('saved', say('Level written down.'));
}
</script>

<template>
  <section class="drift" :aria-label="name ? `Level, ${name}` : 'Level'">
    <div class="says">
      <h2>
        Level<template v-if="name">, {{ name }}</template>
      </h2>
      <p class="big-number">
        {{ drift.points.length ? digitsIn('mm', drift.points.at(-1)?.mm ?? 0) : '–'
        }}<small v-if="drift.points.length"> {{ unitName('mm') }}</small>
      </p>
      <p :class="{ danger: drift.verdict === 'leak' }">{{ levelWords(drift) }}</p>
      <p v-if="drift.vapour" class="quiet figures">
        By vapour it would fall {{ formatIn('mm', drift.vapour.mmPerMonth, 1) }} a month<template v-if="levels.coolantC === null"
          >, with coolant of {{ formatDegrees(REFERENCE_COOLANT_C) }}</template
        >.
      </p>
    </div>
    <div class="shows">
      <DriftChart name="Level against its mark" unit="mm" :points="points" :marks="[filled]" :band="band" :today="today" :digits="0" />
      <form v-if="canWrite" class="row no-print" novalidate @submit.prevent="save">
        <NumberField v-model="form.mm" label="From its mark" unit="mm" :errors="submit.at('mm')" />
        <DayField v-model="form.on" label="On" :max="today" :errors="submit.at('on')" />
        <v-btn type="submit" variant="outlined" size="large" :loading="submit.busy.value">Write the level down</v-btn>
        <button
          v-for="point in byHand"
          :key="point.id"
          type="button"
          class="link"
          :aria-label="`Strike out the level of ${formatDay(point.on)}`"
          @click="emit('strike', point.id)"
        >
          strike out {{ formatDay(point.on) }}
        </button>
      </form>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    </div>
  </section>
</template>

<style scoped src="./drift.css"></style>

<style scoped>
.shows {
  min-width: 0;
}
.shows .v-input {
  flex: 0 1 200px;
}
</style>
