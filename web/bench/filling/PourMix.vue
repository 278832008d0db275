<script setup lang="ts">
import { ledgerOf } from '@core/bench/runs/contents.js';
import { computed } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { pouredMl, type RunState } from '@core/bench/runs/state.js';
import { formatMl, formatPercent } from '@core/base/units/display.js';
import { formatDegrees } from '@core/base/units/display.js';
import { liquidOf } from '@core/machine/liquids/fluids.js';
import { mixFor } from '@core/machine/liquids/mixFor.js';
import type { Product } from '@core/workshop/coolants/answers.js';

/** Of a concentrate: how much of it and how much water make the next pour, and what strength the loop ends at. */
const props = defineProps<{ procedure: Procedure; state: RunState; product: Product; pourMl: number }>();

/** what is inside already, before the fill: water of the rinses, and old coolant of the same kind */
const inside = computed(() => {
  const { service } = props.procedure;
  const poured = pouredMl(props.state);
  if (!service) return { waterMl: 0, coolantMl: poured };
  const { insideMl, shares } = ledgerOf(service, props.state);
  const whole = Math.max(0, insideMl ?? 0);
  return { waterMl: whole * shares.water, coolantMl: whole * (shares.coolant + shares.old) };
});
const mix = computed(() => {
  const { form, targetFraction } = props.product;
  if (form !== 'concentrate' || targetFraction === null || props.pourMl <= 0) return null;
  const wholeMl = props.procedure.service?.inside?.volumeMl ?? props.procedure.fillPlan.total.volumeMl;
  return mixFor({ pourMl: props.pourMl, wholeMl, ...inside.value, targetFraction, liquid: liquidOf(props.product) });
});
</script>

<template>
  <p v-if="mix && mix.possible" class="mix">
    <b class="figures">{{ formatMl(mix.concentrateMl) }}</b> of concentrate and <b class="figures">{{ formatMl(mix.waterMl) }}</b> of
    distilled water make this pour<template v-if="inside.waterMl >= 1"
      >: the {{ formatMl(inside.waterMl) }} of water left inside count</template
    >. The loop ends at {{ formatPercent(mix.finalFraction)
    }}<template v-if="mix.freezesC !== null"> and stays liquid down to about {{ formatDegrees(mix.freezesC) }}</template
    >.
  </p>
  <p v-else-if="mix" role="alert" class="danger">
    Drain {{ formatMl(mix.possible ? 0 : mix.drainMoreMl) }} more first: with {{ formatMl(inside.waterMl) }} of water inside even pure
    concentrate stays too weak.
  </p>
</template>

<style scoped>
.mix {
  margin: 0;
  border-left: 5px solid var(--ink);
  padding-left: 12px;
  font-size: 1.1rem;
}
p {
  margin: 0;
}
</style>
