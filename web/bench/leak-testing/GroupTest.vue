<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { digitsIn, formatAtMost, formatIn, formatMl, formatSpan } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { groupReadings, groupVolumeMl, judgeGroup } from '@core/bench/runs/groupTest.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { TEST_GAUGE_KPA } from '@core/physics/leak-testing/defaults.js';
import { computed, ref } from 'vue';
import NumberField from '../../base/units/NumberField.vue';

/** Parts that are joined outside the case hold air on their own before they go in: a small led air test, judged as the loop's is. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
/** the group of the last reading goes on after a reload */
const parts = ref<string[]>([...(props.state.groupReadings.at(-1)?.value.parts ?? [])]);
const gauge = ref<number | null>(null);
const temp = ref<number | null>(null);
const problem = ref<string | null>(null);
const choices = computed(() => props.procedure.facts?.parts ?? []);
const readings = computed(() => groupReadings(props.state, parts.value));
const judged = computed(() => (parts.value.length > 0 ? judgeGroup(props.procedure, props.state, parts.value) : null));
const volumeMl = computed(() => (props.procedure.twin ? groupVolumeMl(props.procedure.twin.loop, parts.value) : 0));
const mostKpa = computed(() => Math.min(TEST_GAUGE_KPA, props.procedure.facts?.mostGaugeKpa ?? TEST_GAUGE_KPA));
/** said already of every one of them, since the last reading */
const told = computed(() => {
  const last = props.state.groupReadings.at(-1)?.at ?? '';
  return (
    parts.value.length > 0 && parts.value.every((id) => props.state.partTests.some(({ value, at }) => value.part === id && at >= last))
  );
});

function enter(): void {
  if (gauge.value === null || temp.value === null) {
    problem.value = say('Enter the gauge and the room temperature; without the temperature a warm hand looks like a leak.');
    return;
  }
  problem.value = null;
  emit('send', { type: 'group-reading', parts: [...parts.value], gaugeKpa: gauge.value, tempC: temp.value });
  gauge.value = null;
}
/** The verdict for each of them: one that leaks stays in doubt until it, or all of them, held air. */
function tell(tight: boolean): void {
  const [first, last] = [readings.value[0], readings.value.at(-1)];
  if (!first || !last) return;
  const how = say('air, joined outside: {from} to {to} in {span}', {
    from: formatIn('kPa', first.gaugeKpa, 1),
    to: formatIn('kPa', last.gaugeKpa, 1),
    span: formatSpan(last.tS),
  });
  for (const part of parts.value) {
    if (!tight) emit('send', { type: 'doubt', part, text: how });
    emit('send', { type: 'part-test', part, tight, how, leftMl: 0 });
  }
}
</script>

<template>
  <details v-if="choices.length > 1 && procedure.twin" class="group" :open="state.groupReadings.length > 0">
    <summary>Something is joined outside the case: test it with air first</summary>
    <v-select
      v-model="parts"
      :items="[...choices]"
      item-title="name"
      item-value="id"
      label="Joined outside"
      multiple
      chips
      density="comfortable"
      hide-details
      :disabled="locked"
    />
    <template v-if="parts.length > 0">
      <p class="quiet">
        Every open port plugged, hand pump and gauge on one of them. {{ formatMl(Math.round(volumeMl)) }} by the drawing: pump to
        {{ formatAtMost('kPa', mostKpa) }}, wait until it has settled.
      </p>
      <p v-if="judged" class="verdict" :class="{ danger: judged.verdict === 'fail' }">
        <template v-if="judged.verdict === 'pass'"><b>Tight</b>: no leak above the limit.</template>
        <template v-else-if="judged.verdict === 'fail'"><b>It leaks</b>: find where before it goes in.</template>
        <template v-else
          ><b>Cannot tell yet</b
          ><template v-if="judged.moreMinutes !== null">: about {{ Math.ceil(judged.moreMinutes) }} min more</template>.</template
        >
        <span class="quiet figures">
          {{ readings.length === 1 ? 'one reading' : `${readings.length} readings` }},
          {{ digitsIn('kPa', readings[0]?.gaugeKpa ?? 0, 1) }} → {{ digitsIn('kPa', readings.at(-1)?.gaugeKpa ?? 0, 1) }}
          {{ unitName('kPa') }} in {{ formatSpan(readings.at(-1)?.tS ?? 0) }}</span
        >
      </p>
      <div v-if="!locked" class="fields">
        <NumberField v-model="gauge" label="Gauge of the group" unit="kPa" @enter="enter" />
        <NumberField v-model="temp" label="Room beside it" unit="°C" @enter="enter" />
        <v-btn size="large" @click="enter">Write it down</v-btn>
      </div>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <p v-if="told">Written down for each of them.</p>
      <v-btn v-else-if="!locked && judged?.verdict === 'pass'" size="large" @click="tell(true)">They are tight: let the air out</v-btn>
      <v-btn v-else-if="!locked && judged?.verdict === 'fail'" size="large" variant="outlined" @click="tell(false)"
        >It leaks: each of them stays in doubt</v-btn
      >
    </template>
  </details>
</template>

<style scoped>
.group {
  display: block;
  padding: 4px 0;
}
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
p {
  margin: 6px 0;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
  align-items: start;
}
</style>
