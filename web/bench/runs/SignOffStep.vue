<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import FramePart from '../frame/FramePart.vue';
import { balanceWords } from '@core/edge/words/bench.js';
import { resultOf } from '@core/bench/commissioning/testedAlone.js';
import { fillBalance, fillTotal } from '@core/bench/runs/contents.js';
import { judgeDryTest } from '@core/bench/runs/dryTest.js';
import { serviceReport } from '@core/edge/records/serviceReport.js';
import { computed, ref } from 'vue';
import { verdictsOf } from '@core/bench/runs/verdicts.js';
import { nameIn } from '@core/machine/catalogue/names.js';
import LeftOpenList from '../left-open/LeftOpenList.vue';
import ThreeLines from '../verdicts/ThreeLines.vue';
import VerdictPlates from '../verdicts/VerdictPlates.vue';
import { placesOf, type Procedure, type StepKind } from '@core/bench/runs/procedure.js';
import { pouredMl, type RunState } from '@core/bench/runs/state.js';
import { formatLeakWithSe, formatMl, formatMlWithSd } from '@core/base/units/display.js';

/** The record as it will stand, before it is closed for ever. */
const props = defineProps<{ procedure: Procedure; state: RunState; busy: boolean; waiting: number }>();
const emit = defineEmits<{ sign: [remark: string] }>();
const remark = ref('');

const lines = computed(() => {
  const { procedure, state } = props;
  // what this kind of job does not do is no line of it
  const has = (kind: StepKind): boolean => procedure.steps.some((step) => step.kind === kind && !step.does.includes('measures-before'));
  const dry = judgeDryTest(procedure, state);
  const poured = pouredMl(state);
  const planned = fillTotal(procedure, state);
  const report = serviceReport(procedure, state);
  const alone = resultOf(procedure, state);
  return [
    ...(report
      ? [
          ...(report.volumes.outMl + report.volumes.lostMl > 0 ? [[say('Book, drained'), report.volumes.balance]] : []),
          ...(report.comparison ? [[say('Before, after'), report.comparison]] : []),
          ...report.looseEnds.map((each) => [say('Loose end'), each]),
        ]
      : []),
    ...(alone
      ? [
          [say('Poured'), formatMl(poured)],
          [say('Stayed inside'), formatMl(alone.leftMl)],
          [alone.unit.name, alone.tight ? say('tight') : say('leaks')],
        ]
      : []),
    ...(has('fill') && !procedure.unit
      ? [
          [say('Planned fill'), formatMlWithSd(planned.volumeMl, planned.sdMl)],
          [say('Poured'), poured > 0 ? `${formatMl(poured)}, ${balanceWords(fillBalance(procedure, state))}` : say('nothing recorded')],
          [
            say('Coolant'),
            state.coolant
              ? `${state.coolant.productName}${state.coolant.lot ? say(', lot {lot}', { lot: state.coolant.lot }) : ''}`
              : 'not recorded',
          ],
        ]
      : []),
    ...(procedure.dry && dry
      ? [[say('Air test'), say('leak {formatLeak}', { formatLeak: formatLeakWithSe(dry.leakMbarLs, dry.seMbarLs) })]]
      : []),
  ];
});
const verdicts = computed(() => verdictsOf(props.procedure, props.state));
const nameOf = (id: string): string => nameIn(placesOf(props.procedure), id);
const deviations = computed(() =>
  props.state.steps
    .filter(({ deviation }) => deviation)
    .map(({ id, deviation }) => `${props.procedure.steps.find((step) => step.id === id)?.title}: ${deviation?.text}`),
);
const failed = computed(() => [
  ...props.state.pastDryTests
    .filter(({ verdict }) => verdict === 'fail')
    .map(({ testNumber }) => say('air test {testNumber}', { testNumber })),
  ...props.state.leaks.map(({ where, inAir }) =>
    say('leak at {nameOf}{say}', { nameOf: nameOf(where), say: inAir ? say(', found with air') : '' }),
  ),
]);
const mended = computed(() => props.state.leaks.flatMap(({ where, mended: fix }) => (fix ? [`${nameOf(where)}: ${fix.text}`] : [])));
</script>

<template>
  <FramePart at="work">
    <section class="sign">
      <VerdictPlates :verdicts="verdicts" />
      <ThreeLines :passed-over="deviations" :failed="failed" :mended="mended" />
      <dl class="figures">
        <template v-for="[name, value] in lines" :key="name"
          ><dt>{{ name }}</dt>
          <dd>{{ value }}</dd></template
        >
      </dl>
      <div v-if="state.owed.length + state.service.temporaryFixes.length > 0">
        <h3>Stays open, each with its own follow-up</h3>
        <LeftOpenList :state="state" />
      </div>
      <v-textarea v-model="remark" label="Closing remark" placeholder="quiet setting kept; owner shown the level mark" />
      <p class="quiet">
        Signing off opens the settling check in two to seven days, sets the next service date and closes this record. It can be added to,
        never changed.
      </p>
      <FramePart at="act">
        <v-btn size="x-large" :loading="busy" :disabled="waiting > 0" @click="emit('sign', remark)">{{
          waiting > 0 ? 'Waiting for the last entries' : 'Sign off'
        }}</v-btn>
      </FramePart>
    </section>
  </FramePart>
</template>

<style scoped>
.sign {
  display: grid;
  gap: 14px;
  justify-items: start;
}
dl {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 8px 18px;
  margin: 0;
  font-size: 1.08rem;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.sign :deep(.v-textarea) {
  width: min(100%, 620px);
}
</style>
