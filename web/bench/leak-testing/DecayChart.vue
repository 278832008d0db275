<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { digitsIn, formatIn, grouped } from '@core/base/units/display.js';
import { computed } from 'vue';
import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { Z_TWO_SIDED_95 } from '@core/base/units/physics.js';
import { SVGRenderer } from 'echarts/renderers';
import VChart from 'vue-echarts';
import { useTheme } from 'vuetify';
import type { DecayResult } from '@core/physics/leak-testing/decay.js';

use([LineChart, ScatterChart, GridComponent, SVGRenderer]);

/** Pressure over time with the temperature taken out: readings as marks, the settled tail as a line in its 95 % band. */
const props = defineProps<{ times: readonly number[]; result: DecayResult; limitSlopeKpaPerS: number }>();
const theme = useTheme();

interface Inks {
  readonly ink: string;
  readonly soft: string;
}

/** an invisible line and what is stacked upon it: together a band */
const bandPart = (name: string, data: [number, number][], fill: string | null) => ({
  type: 'line',
  name,
  data,
  stack: 'band',
  stackStrategy: 'all',
  symbol: 'none',
  silent: true,
  lineStyle: { opacity: 0 },
  ...(fill === null ? {} : { areaStyle: { color: fill, opacity: 0.14 } }),
});

const straight = (name: string, data: [number, number][], lineStyle: object) => ({
  type: 'line',
  name,
  data,
  symbol: 'none',
  lineStyle,
  silent: true,
});

/** The settled tail, what slopes the readings still allow, and how a leak at the limit would fall; each slower as the pressure goes. */
function tailSeries(tail: NonNullable<DecayResult['tail']>, { ink, soft }: Inks) {
  const settled = props.times.findIndex((t) => t >= tail.fromS);
  const start = Math.max(0, settled < 0 ? props.times.length - 2 : settled - 1);
  const leakTimes = props.result.leakTimesS;
  const since = leakTimes[start] ?? 0;
  const over = (kpa: (leakS: number) => number): [number, number][] =>
    props.times.slice(start).map((t, index) => [t / 60, kpa((leakTimes[start + index] ?? 0) - since)]);
  const from = tail.intercept + tail.slope * since;
  // the band opens from where it settled
  const spread = Z_TWO_SIDED_95 * tail.slopeSe;
  return [
    bandPart(
      say('lower bound'),
      over((s) => from + (tail.slope - spread) * s),
      null,
    ),
    bandPart(
      '95 % band',
      over((s) => 2 * spread * s),
      ink,
    ),
    straight(
      say('a leak at the limit'),
      over((s) => from - props.limitSlopeKpaPerS * s),
      { color: soft, type: 'dashed', width: 1.5 },
    ),
    straight(
      say('settled tail'),
      over((s) => from + tail.slope * s),
      { color: ink, width: 2.5 },
    ),
  ];
}

const axis = (name: string, nameGap: number, soft: string) => ({
  type: 'value',
  name,
  nameGap,
  nameLocation: 'middle',
  nameTextStyle: { color: soft },
  axisLine: { lineStyle: { color: soft } },
  splitLine: { lineStyle: { color: soft, opacity: 0.18 } },
});

const option = computed(() => {
  const { primary, secondary } = theme.current.value.colors;
  const [ink, soft] = [String(primary), String(secondary)];
  const { tail, correctedKpa } = props.result;
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable' },
    grid: { left: 66, right: 18, top: 14, bottom: 42 },
    xAxis: { ...axis(say('min since closed'), 28, soft), min: 0, axisLabel: { color: soft } },
    yAxis: {
      ...axis(say('{unitName} absolute, corrected', { unitName: unitName('kPa') }), 52, soft),
      scale: true,
      // as many lines as the picture has room for
      splitNumber: 3,
      axisLabel: { color: soft, hideOverlap: true, formatter: (value: number) => digitsIn('kPa', value, 1) },
    },
    series: [
      ...(tail ? tailSeries(tail, { ink, soft }) : []),
      {
        type: 'scatter',
        name: 'reading',
        data: props.times.map((t, index) => [t / 60, correctedKpa[index]]),
        symbol: 'circle',
        symbolSize: 9,
        itemStyle: { color: 'transparent', borderColor: ink, borderWidth: 2 },
        // a reading says itself while it is pointed at
        emphasis: {
          label: {
            show: true,
            position: 'top',
            color: ink,
            formatter: ({ value: [min, kpa] }: { value: readonly [number, number] }) =>
              say('{formatIn} at {grouped} min', { formatIn: formatIn('kPa', kpa, 2), grouped: grouped(min, 1) }),
          },
        },
      },
    ],
  };
});
</script>

<template>
  <v-chart class="decay" :option="option" autoresize role="img" aria-label="Decay of the test pressure, temperature taken out" />
</template>

<style scoped>
.decay {
  height: 100%;
  min-height: 110px;
  width: 100%;
}
</style>
