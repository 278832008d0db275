<script setup lang="ts">
import { computed } from 'vue';
import { formatMl, secondsDigits } from '@core/base/units/display.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { planFill } from '@core/physics/filling/fillPlan.js';
import { cannotPrimeWords } from '@core/edge/words/filling.js';
import { forecastOf } from '@core/physics/filling/forecast.js';
import { standingMl, type InsideNow } from '@core/physics/live-book/insideNow.js';
import { useTwin, useTwinAnswer } from '../compute/useTwin.js';
import FillPlanDrawing from './FillPlanDrawing.vue';
import FillRange from './FillRange.vue';

/** The fill of a loop from what is inside now, as the bench will lead it; by volumes alone where heights are not drawn. */
const props = defineProps<{ loop: LoopFile; liquid: Liquid; colour: string | null; inside: InsideNow | null }>();
const twin = useTwin(
  () => props.loop,
  () => props.liquid,
);
const answer = useTwinAnswer(
  twin,
  () => ({ standing: props.inside?.standing ?? null }),
  ({ standing }) => twin.engine.pourAndPulse(null, standing),
);
const reservoirs = computed(() => props.loop.components.filter(({ kind }) => kind === 'reservoir').length);
/** of two reservoirs nobody can tell which one was poured into */
const simulation = computed(() => (reservoirs.value === 1 ? (answer.value?.simulation ?? null) : null));
const forecast = computed(() => simulation.value && forecastOf(simulation.value, standingMl(props.inside?.standing)));
const plan = computed(() => planFill(props.loop));
const pulses = computed(() => simulation.value?.pulses.filter(({ pouredRunning }) => !pouredRunning) ?? []);
const runningMl = computed(
  () => simulation.value?.pulses.reduce((sum, { pouredRunning, refillMl }) => sum + (pouredRunning ? refillMl : 0), 0) ?? 0,
);
const longest = computed(() => Math.max(0, ...pulses.value.map(({ runS }) => runS)));
</script>

<template>
  <div class="forecast">
    <template v-if="forecast && simulation">
      <FillRange :forecast="forecast" :colour="colour" />
      <p v-if="!simulation.primes" class="warn mt-2" role="alert">
        {{ cannotPrimeWords(simulation) }}
      </p>
      <p v-else-if="forecast.toGoMl < 5" class="mt-2">Nothing more goes in.</p>
      <p v-else class="mt-2">
        <template v-if="simulation.passiveMl >= 1"
          >First <strong class="figures">{{ formatMl(simulation.passiveMl) }}</strong> to the fill mark<template
            v-if="simulation.pulses.length"
            >, then
          </template></template
        ><template v-if="pulses.length"
          >{{ pulses.length }} {{ pulses.length === 1 ? 'pulse' : 'pulses' }} of
          <span class="figures">{{ secondsDigits(longest) }} s</span> at most, topped up after each</template
        ><template v-if="runningMl > 0"
          ><template v-if="pulses.length">, and </template><strong class="figures">{{ formatMl(runningMl) }}</strong> poured beside the
          running pump</template
        >.
      </p>
      <p class="quiet estimate">Simulated from heights, volumes and the pump’s curve; at the bench the level decides.</p>
    </template>
    <FillPlanDrawing v-else-if="twin.problem.value !== null || answer" :plan="plan" :colour="colour" />
  </div>
</template>

<style scoped>
/* its place is there before the worker has an answer */
.forecast {
  min-height: 128px;
}
</style>
