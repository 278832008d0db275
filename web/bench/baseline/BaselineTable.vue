<script setup lang="ts">
import { digitsIn, formatIn } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { computed } from 'vue';
import { normaliseBaseline } from '@core/physics/diagnosis/baseline.js';
import type { BaselineReading } from '@core/physics/diagnosis/reading.js';

/** Readings with their conditions, as a record keeps them: before anything was touched, and at the hand-over. */
const props = defineProps<{ before: readonly BaselineReading[]; after: readonly BaselineReading[] }>();
const readings = computed(() => [
  ...props.before.map((each) => ({ each, when: 'before: ' })),
  ...props.after.map((each) => ({ each, when: props.before.length > 0 ? 'after: ' : '' })),
]);
</script>

<template>
  <section v-if="readings.length" class="mt-8">
    <h2>Baseline</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Baseline readings">
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">setting</th>
            <th scope="col">workload</th>
            <th scope="col">min</th>
            <th scope="col">W</th>
            <th scope="col">sensor, statistic</th>
            <th scope="col">part, {{ unitName('°C') }}</th>
            <th scope="col">coolant, {{ unitName('°C') }}</th>
            <th scope="col">room, {{ unitName('°C') }}</th>
            <th scope="col">above room</th>
            <th scope="col">pump / fans</th>
            <th scope="col">panels</th>
            <th scope="col">{{ unitName('L/h') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="({ each, when }, index) in readings" :key="index">
            <td>{{ when }}{{ each.setting }}</td>
            <td>{{ each.workload }}</td>
            <td>{{ each.durationMinutes }}</td>
            <td>{{ each.powerW ?? '' }}</td>
            <td>{{ each.sensor }}, {{ each.statistic }}</td>
            <td>
              {{ digitsIn('°C', each.partC, 1)
              }}<template v-if="each.warming && each.warming.reachedFraction < 0.98">
                (ends at {{ digitsIn('°C', each.warming.endsC, 1) }} ± {{ formatIn('K', each.warming.endsSdK, 1) }})</template
              >
            </td>
            <td>{{ each.coolantC === null ? '' : digitsIn('°C', each.coolantC, 1) }}</td>
            <td>{{ digitsIn('°C', each.roomC, 1) }}</td>
            <td>
              <strong>{{ formatIn('K', normaliseBaseline(each).aboveRoomK, 1) }}</strong>
            </td>
            <td>{{ each.pumpPercent }} / {{ each.fanPercent }} %</td>
            <td>{{ each.panels }}</td>
            <td>{{ each.flowLph === null ? '' : digitsIn('L/h', each.flowLph) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  margin-top: 8px;
  white-space: nowrap;
}
th,
td {
  text-align: left;
  padding: 5px 18px 5px 0;
  border-top: 1px solid var(--line-soft);
  font-weight: 420;
}
th {
  color: var(--ink-soft);
  font-size: 0.9rem;
  border: none;
}
</style>
