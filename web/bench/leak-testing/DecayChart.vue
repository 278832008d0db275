<script setup lang="ts">
import { computed } from 'vue';
import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { Z_TWO_SIDED_95 } from '@core/base/units/physics.js';
import { SVGRenderer } from 'echarts/renderers';
import VChart from 'vue-echarts';
import { useTheme } from 'vuetify';
import type { DecayResult } from '@core/physics/leak-testing/decay.js';

use([LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

/** Pressure over time with the temperature taken out: readings as marks, the settled tail as a line in its 95 % band. */
const props = defineProps<{ times: readonly number[]; result: DecayResult; limitSlopeKpaPerS: number }>();
const theme = useTheme();

const option = computed(() => {
  const colours = theme.current.value.colors;
  const ink = colours.primary;
  const soft = colours.secondary;
  const { tail, correctedKpa } = props.result;
  const points = props.times.map((t, index) => [t / 60, correctedKpa[index]]);
  const last = props.times.at(-1) ?? 0;
  const from = tail?.fromS ?? 0;
  const at = (t: number, slope: number): [number, number] => [
    t / 60,
    (tail?.intercept ?? 0) + (tail?.slope ?? 0) * from + slope * (t - from),
  ];
  // the band opens from where it settled: what slopes the readings still allow
  const spread = Z_TWO_SIDED_95 * (tail?.slopeSe ?? 0);
  const lower = at(last, (tail?.slope ?? 0) - spread);
  const band = (name: string, data: [number, number][], shown: boolean) => ({
    type: 'line',
    name,
    data,
    stack: 'band',
    stackStrategy: 'all',
    symbol: 'none',
    silent: true,
    lineStyle: { opacity: 0 },
    ...(shown ? { areaStyle: { color: ink, opacity: 0.14 } } : {}),
  });
  const axis = {
    axisLine: { lineStyle: { color: soft } },
    axisLabel: { color: soft },
    splitLine: { lineStyle: { color: soft, opacity: 0.18 } },
  };
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable' },
    grid: { left: 66, right: 18, top: 14, bottom: 42 },
    tooltip: {
      trigger: 'item',
      valueFormatter: (value: unknown) =>
        Array.isArray(value) ? `${Number(value[1]).toFixed(2)} kPa at ${Number(value[0]).toFixed(1)} min` : String(value),
    },
    xAxis: {
      type: 'value',
      name: 'min since closed',
      nameLocation: 'middle',
      nameGap: 28,
      nameTextStyle: { color: soft },
      min: 0,
      ...axis,
    },
    yAxis: {
      type: 'value',
      name: 'kPa absolute, corrected',
      nameLocation: 'middle',
      nameGap: 52,
      nameTextStyle: { color: soft },
      scale: true,
      axisLabel: { ...axis.axisLabel, formatter: (value: number) => value.toFixed(1) },
      axisLine: axis.axisLine,
      splitLine: axis.splitLine,
    },
    series: [
      ...(tail
        ? [
            band('lower bound', [at(from, 0), lower], false),
            band(
              '95 % band',
              [
                [from / 60, 0],
                [last / 60, 2 * spread * (last - from)],
              ],
              true,
            ),
            {
              type: 'line',
              name: 'a leak at the limit',
              data: [at(from, 0), at(last, -props.limitSlopeKpaPerS)],
              symbol: 'none',
              lineStyle: { color: soft, type: 'dashed', width: 1.5 },
              silent: true,
            },
            {
              type: 'line',
              name: 'settled tail',
              data: [at(from, 0), at(last, tail.slope)],
              symbol: 'none',
              lineStyle: { color: ink, width: 2.5 },
              silent: true,
            },
          ]
        : []),
      {
        type: 'scatter',
        name: 'reading',
        data: points,
        symbol: 'circle',
        symbolSize: 9,
        itemStyle: { color: 'transparent', borderColor: ink, borderWidth: 2 },
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
  height: 250px;
  width: 100%;
}
</style>
