<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import { standingNow } from '@core/bench/runs/book.js';
import { useNow } from '../../base/units/now.js';
import { levelWatch } from '@core/bench/runs/fillOrder.js';
import { formatMl, formatSpan } from '@core/base/units/display.js';
import NumberField from '../../base/units/NumberField.vue';
import LevelRead from './LevelRead.vue';
import LevelBar from '../../machine/filling/LevelBar.vue';
import { usePour } from './usePour.js';

/** After the fill the level falls as air comes home: what is put back counts to the whole. */
const props = defineProps<{
  procedure: Procedure;
  state: RunState;
  liquid?: Liquid;
  colour: string | null;
  /** mL of air that the levels at the stops leave room for; null: nobody has stopped and looked */
  airAtMostMl?: number | null;
  /** the level is read here; a step with fields of its own for it has them */
  reads?: boolean;
}>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const pour = usePour(props);
const { volume, levelMl, scaleWords } = pour;
const reservoir = computed(() => props.procedure.facts?.reservoir ?? null);
const now = useNow(1000);
/** mL up to the mark: by the sensor, or by the book once the level was read */
const wantsMl = computed(() => {
  const standing = standingNow(props.procedure, props.state, now.value, levelMl.value);
  if (!reservoir.value) return null;
  if (!standing) return levelMl.value === null ? null : reservoir.value.fillMarkMl - levelMl.value;
  return standing.contents.isLevelRead ? reservoir.value.fillMarkMl - standing.at.reservoirMl : null;
});
const isLow = computed(() => levelMl.value !== null && reservoir.value !== null && levelMl.value <= reservoir.value.lowMarkMl);

/** how long the level may be left alone while the pump runs */
const watched = computed(() =>
  levelWatch(props.procedure, props.state, now.value, { measuredMl: levelMl.value, airAtMostMl: props.airAtMostMl }),
);

/** what may have come home since the level was read may be all that stood above the low mark */
const mayBeLow = computed(() => {
  const watch = watched.value;
  return watch !== null && watch.everyS !== null && watch.freeMl < 1 && levelMl.value === null;
});
function enter(toMark?: true): void {
  const body = pour.take();
  if (body) emit('send', { ...body, ...(toMark ? { toMark } : {}) } as RunEventBody);
}
</script>

<template>
  <section class="top-up" aria-label="Top up" :data-mark="Math.round(reservoir?.fillMarkMl ?? 0)">
    <LevelBar v-if="levelMl !== null && reservoir" :level-ml="levelMl" :reservoir="reservoir" :colour="colour" />
    <p v-if="isLow" role="alert" class="danger">
      Below the low mark: pump off and top up, at most {{ formatMl(Math.max(0, wantsMl ?? 0)) }}.
    </p>
    <p v-if="mayBeLow" role="alert" class="danger">Read the level now: for all that the book knows it may stand at its low mark.</p>
    <p v-else-if="watched && watched.everyS !== null && !isLow" class="watch">
      Up to {{ formatMl(watched.gasMl) }} of air may still come home, {{ formatMl(watched.freeMl) }} stand above the low mark: look at the
      level <b>every {{ formatSpan(watched.everyS) }}</b> while the pump runs.
      <span class="estimate">By what went in and what the parts hold, and by the rise at the stops once there are some.</span>
    </p>
    <LevelRead v-if="reads && levelMl === null && watched?.everyS" :mark-ml="reservoir?.fillMarkMl ?? null" @send="emit('send', $event)" />
    <form class="row" novalidate @submit.prevent="enter()">
      <NumberField v-model="volume" label="Topped up just now" unit="mL" @enter="enter()" />
      <v-btn type="submit" size="large" variant="outlined" :disabled="!volume || volume <= 0">Enter top-up</v-btn>
      <v-btn size="large" variant="text" :disabled="!volume || volume <= 0" @click="enter(true)">up to the mark</v-btn>
      <span class="quiet">{{ scaleWords ?? (wantsMl !== null && wantsMl > 5 ? `${formatMl(wantsMl)} to the fill mark` : '') }}</span>
    </form>
  </section>
</template>

<style scoped>
.top-up {
  display: grid;
  gap: 8px;
}
p {
  margin: 0;
}
/* beside the picture it is narrow: the field above its two answers */
:deep(.level) {
  grid-template-columns: 1fr 1fr;
}
:deep(.level .v-input) {
  grid-column: 1 / -1;
}
.row > .v-input {
  flex: 1 1 240px;
}
</style>
