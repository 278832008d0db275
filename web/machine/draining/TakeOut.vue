<script setup lang="ts">
import { ref } from 'vue';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import { formatMl } from '@core/base/units/display.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { nameOpening } from '@core/physics/draining/openingNames.js';

/** Taking one part out: what to draw first and where, and what else comes at each of its joints. */
const props = defineProps<{ loop: LoopFile; twin: Twin; inside?: InsideNow | null; parts: { value: string; title: string }[] }>();
const part = ref<string | null>(null);
const plan = useTwinAnswer(
  props.twin,
  () => (part.value === null ? null : { part: part.value, standing: props.inside?.standing ?? null }),
  ({ part: id, standing }) => props.twin.engine.takeOut(id, standing),
);
</script>

<template>
  <div>
    <h2>Take one part out</h2>
    <v-select
      v-model="part"
      class="mt-2"
      :items="parts"
      label="Which part"
      density="comfortable"
      variant="outlined"
      hide-details
      clearable
    />
    <template v-if="plan && part">
      <p v-if="plan.airs.length" class="mt-3">Open first for air: {{ plan.airs.map((port) => nameOpening(loop, port)).join(', ') }}.</p>
      <p v-if="plan.drawFirstMl >= 5" class="mt-2">
        Draw <strong class="figures">{{ formatMl(plan.drawFirstMl) }}</strong> first,
        {{ plan.drawAt === null ? 'out of the reservoir by hose' : `at ${nameOpening(loop, plan.drawAt)}` }}.
      </p>
      <table class="joints figures">
        <tbody>
          <tr v-for="joint in plan.joints" :key="joint.joint">
            <td>{{ nameOpening(loop, joint.joint) }}</td>
            <td>{{ formatMl(joint.volumeMl) }}</td>
          </tr>
          <tr v-if="plan.hangsMl >= 1">
            <td>hang above them and follow when air gets in</td>
            <td>{{ formatMl(plan.hangsMl) }}</td>
          </tr>
          <tr>
            <td>comes out of the part when you tilt it</td>
            <td>{{ formatMl(plan.insideMl) }}</td>
          </tr>
          <tr class="quiet">
            <td>stays in the rest of the loop</td>
            <td>{{ formatMl(plan.elsewhereMl) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <p v-else class="quiet mt-2">Says what to expect at each joint before you loosen it, and what stays where it is.</p>
  </div>
</template>

<style scoped>
.joints {
  width: 100%;
  margin-top: 8px;
  border-collapse: collapse;
}
.joints td {
  padding: 6px 0;
  border-bottom: 1px solid var(--line-soft);
}
.joints td:last-child {
  text-align: right;
  font-weight: 600;
}
</style>
