<script setup lang="ts">
import { unitName } from '@core/base/units/shown.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { DecayOpen } from '@core/physics/leak-testing/decay.js';
import { airInsideKpa, judgeDryTest } from '@core/bench/runs/dryTest.js';
import { leaksAgainst, sealsAgainst } from '@core/bench/runs/locks.js';
import { whyWords } from '@core/edge/words/bench.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { computed, defineAsyncComponent, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { dryReadings, type RunState } from '@core/bench/runs/state.js';
import { LEAK_LIMITS, TEST_GAUGE_KPA } from '@core/physics/leak-testing/defaults.js';
import { digitsIn, formatLeak, formatLeakWithSe, formatRoughMl, formatSpan } from '@core/base/units/display.js';
import NumberField from '../../base/units/NumberField.vue';
import { useDates } from '../../base/units/dates.js';
import { useNow } from '../../base/units/now.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import GaugeLimit from '../frame/GaugeLimit.vue';
import { useRunBench } from '../instruments/liveBench.js';

const DecayChart = defineAsyncComponent(() => import('./DecayChart.vue'));

/** Readings by hand, the decay with the temperature taken out, and a verdict that may be "cannot tell yet". */
const OPEN_WORDS: Readonly<Record<DecayOpen, string>> = {
  'few-readings': 'Cannot tell yet: there are too few readings.',
  hold: 'Cannot tell yet: it must hold longer before anything can be told.',
  'lost-half':
    'More than half of the pressure is gone: this is never tight. Find where, let the air out, mend it, then start the test again.',
  'pumped-up': 'Air was pumped in between: begin the test again.',
  weather: 'Cannot tell yet: the weather moves the gauge as much as such a leak. Read a barometer beside it, or wait.',
  noise: 'Cannot tell yet: the readings so far fit both a tight loop and a leak at the limit.',
};
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const dates = useDates();
const now = useNow();
const gauge = ref<number | null>(null);
const temp = ref<number | null>(null);
/** hPa; where a barometer stands beside the gauge */
const barometer = ref<number | null>(null);
const problem = ref<string | null>(null);
const restarting = ref(false);
const reason = ref('');

/** the weather matters to the finer limits only: a screen is over before it moves */
const wantsBarometer = computed(
  () => props.procedure.schools.limit !== 'screen' || readings.value.some(({ atmosphereKpa }) => atmosphereKpa !== undefined),
);
const HPA_PER_KPA = 10;

const readings = computed(() => dryReadings(props.state));
/** the same list until another reading comes: the chart is drawn anew with it, not with the clock */
const times = computed(() => readings.value.map(({ tS }) => tS));
const result = computed(() => judgeDryTest(props.procedure, props.state));
/** it says something: another reading is one touch away, no longer what hands do next */
const decided = computed(() => result.value !== null && result.value.verdict !== 'not-yet');
const limitSlope = computed(() => (props.procedure.dry?.limitMbarLs ?? 0) / (props.procedure.volume.volumeMl / 1000) / 10);
const sinceLastS = computed(() => {
  const last = props.state.dryReadings.at(-1);
  return last ? (now.value - Date.parse(last.at)) / 1000 : null;
});
/** Open somewhere: nothing is raised before it is closed. */
const stillOpen = computed(() => [...sealsAgainst(props.state), ...leaksAgainst(props.state)][0] ?? null);
const verdict = computed(() => {
  const judged = result.value;
  if (!judged && stillOpen.value)
    return {
      order: say('First close what is open'),
      big: '0',
      small: unitName('kPa'),
      words: `${capital(whyWords(props.procedure, stillOpen.value.fact))}.`,
    };
  const left = airInsideKpa(props.procedure, props.state);
  if (!judged && left !== null)
    return {
      order: say('Let the air out before anything is opened'),
      big: digitsIn('kPa', left, 1),
      small: say('{unitName} stand inside', { unitName: unitName('kPa') }),
      words: say('The air of the test before is still in. Or raise it again, close, and enter the first reading.'),
    };
  if (!judged)
    return {
      order: say('Raise it, close, enter the first reading'),
      big: digitsIn('kPa', Math.min(TEST_GAUGE_KPA, props.procedure.facts?.mostGaugeKpa ?? TEST_GAUGE_KPA)),
      small: say('{unitName} to begin with', { unitName: unitName('kPa') }),
      words: say('Do not judge before it has settled: soft tube stretches and pumped air is warm.'),
    };
  if (judged.verdict === 'pass')
    return {
      order: say('Let the air out, needle back at zero'),
      big: say('tight'),
      small: '',
      words: say('No leak above the {label} limit, with 95 % confidence.', {
        label: sayWord(LEAK_LIMITS[props.procedure.schools.limit].label),
      }),
    };
  if (judged.verdict === 'fail')
    return {
      order: say('Brush the joints, look for bubbles'),
      big: say('leaks'),
      small: '',
      words: say(
        'Above the limit with 95 % confidence. Brush plain water on the joints in flow order and look for bubbles; let the air out, mend it, then start the test again.',
      ),
    };
  return {
    order:
      judged.open === 'lost-half' || judged.open === 'pumped-up' ? say('Start the test again') : say('Read the gauge about every minute'),
    big: String(Math.ceil(judged.moreMinutes ?? 0)),
    small: say('min more, about'),
    words: judged.open === null ? '' : say(OPEN_WORDS[judged.open]),
  };
});

const bench = useRunBench();
const live = computed(() => {
  const gaugeKpa = bench?.value('gauge', now.value) ?? null;
  const tempC = bench?.value('room-temp', now.value) ?? null;
  return gaugeKpa === null ? null : { gaugeKpa, tempC };
});
/** the server goes on by itself once the first reading came from the gauge */
const goesOn = computed(() => {
  const last = props.state.dryReadings.at(-1);
  return last !== undefined && last.source !== 'hand' && live.value !== null;
});
function fromGauge(): void {
  const at = live.value;
  const source = bench?.source.value;
  if (!at || at.tempC === null || !source) {
    problem.value = say('There is no room thermometer on this bench: enter both by hand.');
    return;
  }
  problem.value = null;
  emit('send', { type: 'dry-reading', gaugeKpa: at.gaugeKpa, tempC: at.tempC, source });
}

function enter(): void {
  if (gauge.value === null || temp.value === null) {
    problem.value = say('Enter the gauge and the room temperature; without the temperature a warm hand looks like a leak.');
    return;
  }
  problem.value = null;
  emit('send', {
    type: 'dry-reading',
    gaugeKpa: gauge.value,
    tempC: temp.value,
    ...(barometer.value === null ? {} : { atmosphereKpa: barometer.value / HPA_PER_KPA }),
  });
  gauge.value = null;
}

function restart(): void {
  if (reason.value.trim().length < 3) return;
  emit('send', { type: 'dry-restarted', reason: reason.value.trim() });
  restarting.value = false;
  reason.value = '';
}
const correctedAt = (index: number): string => {
  const kpa = result.value?.correctedKpa[index];
  return kpa === undefined ? '' : digitsIn('kPa', kpa, 2);
};
</script>

<template>
  <section class="dry">
    <FrameOrder v-if="!locked" :say="verdict.order" :how="verdict.words" />
    <FrameFigure :value="verdict.big" :unit="verdict.small" :danger="result?.verdict === 'fail'" />
    <FramePart at="limit">
      <GaugeLimit
        :most-kpa="procedure.facts?.mostGaugeKpa ?? 50"
        :first-kpa="readings[0]?.gaugeKpa ?? null"
        :now-kpa="live?.gaugeKpa ?? readings.at(-1)?.gaugeKpa ?? null"
      />
    </FramePart>
    <div class="verdict">
      <p v-if="locked">{{ verdict.words }}</p>
      <dl v-if="result?.tail" class="facts figures">
        <dt>Leak</dt>
        <dd>{{ formatLeakWithSe(result.leakMbarLs, result.seMbarLs) }}</dd>
        <dt>Limit</dt>
        <dd>{{ formatLeak(procedure.dry?.limitMbarLs ?? 0) }}</dd>
        <dt>Excluded</dt>
        <dd>above {{ formatRoughMl(result.excludedMlPerDay) }} of water a day</dd>
        <dt>Settled after</dt>
        <dd>{{ formatSpan(result.settledAfterS) }}</dd>
      </dl>
    </div>
    <FramePart v-if="result && readings.length > 1" at="curve">
      <DecayChart :times="times" :result="result" :limit-slope-kpa-per-s="limitSlope" />
    </FramePart>
    <FramePart v-if="!locked" at="act">
      <div v-if="live && !decided" class="row" aria-live="polite">
        <p class="gauge figures">
          {{ digitsIn('kPa', live.gaugeKpa, 1) }} <small>{{ unitName('kPa') }} on the gauge now</small>
        </p>
        <v-btn v-if="!goesOn" size="x-large" @click="fromGauge">Closed at pressure: read it every minute</v-btn>
        <p v-else class="quiet">Read by itself, once a minute.</p>
      </div>
      <details class="by-hand" :open="!live && !decided">
        <summary v-show="live || decided">{{ decided ? 'Enter another reading' : 'Enter a reading by hand' }}</summary>
        <form class="entry" novalidate @submit.prevent="enter">
          <NumberField v-model="gauge" large label="Gauge" unit="kPa" @enter="enter" />
          <NumberField v-model="temp" large label="Room at the loop" unit="°C" @enter="enter" />
          <NumberField v-if="wantsBarometer" v-model="barometer" large label="Barometer, if there is one" unit="hPa" @enter="enter" />
          <v-btn type="submit" size="x-large">Enter reading</v-btn>
        </form>
      </details>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    </FramePart>
    <FramePart v-if="sinceLastS !== null && !locked" at="so-far">
      <p class="figures">
        {{ readings.length }} readings<template v-if="state.dryTestNumber > 1"> in test {{ state.dryTestNumber }}</template
        >, the last {{ formatSpan(sinceLastS) }} ago.
        <button type="button" class="link" @click="restarting = !restarting">Start the test again</button>
      </p>
    </FramePart>
    <form v-if="restarting && !locked" class="entry" @submit.prevent="restart">
      <v-text-field v-model="reason" label="Why: what was found or changed" autofocus />
      <v-btn type="submit" size="large">Start again from zero</v-btn>
    </form>
    <details v-if="readings.length" class="readings">
      <summary>All readings</summary>
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">at</th>
            <th scope="col">gauge, {{ unitName('kPa') }}</th>
            <th scope="col">room, {{ unitName('°C') }}</th>
            <th scope="col">corrected, {{ unitName('kPa') }} absolute</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(reading, index) in readings" :key="reading.tS">
            <td>{{ dates.time(state.dryReadings[index]?.at ?? '') }}</td>
            <td>{{ digitsIn('kPa', reading.gaugeKpa, 1) }}</td>
            <td>{{ digitsIn('°C', reading.tempC, 1) }}</td>
            <td>{{ correctedAt(index) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>

<style scoped>
.dry {
  display: grid;
  gap: 14px;
}
.verdict p {
  margin: 0;
  max-width: 62ch;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 18px;
  margin: 10px 0 0;
}
.facts dt {
  color: var(--ink-soft);
}
.facts dd {
  margin: 0;
}
.entry {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
  align-items: start;
}
.gauge {
  font-size: 2.4rem;
  font-weight: 340;
  margin: 0;
}
.gauge small {
  font-size: 1.05rem;
}
.entry .v-btn {
  height: 64px;
}
.link {
  text-decoration: underline;
}
td,
th {
  padding: 2px 22px 2px 0;
  text-align: right;
  font-weight: 420;
}
th {
  color: var(--ink-soft);
}
summary {
  cursor: pointer;
}
@media (max-width: 700px) {
  .facts {
    grid-template-columns: auto 1fr;
  }
  .entry {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
