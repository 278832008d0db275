<script setup lang="ts">
import { computed } from 'vue';
import type { Ledger } from '@core/physics/contents/ledger.js';
import { AGREES_WITHIN_SD } from '@core/physics/measuring/errors.js';
import { formatMl, formatMlWithSd } from '@core/base/units/display.js';

/** The book as one column laid flat: what stood inside, what came out, what is still in; the twin's figure as a mark. */
const props = defineProps<{ ledger: Ledger; startMl: number; predictedLeftMl: number | null; colour: string | null }>();

const whole = computed(() => Math.max(1, props.startMl + props.ledger.inMl, props.ledger.outMl + props.ledger.lostMl));
const share = (ml: number): string => `${Math.max(0, Math.min(100, (100 * ml) / whole.value))}%`;
const inside = computed(() => Math.max(0, props.ledger.insideMl ?? 0));
/** drawn: two standard deviations to each side */
const band = computed(() => AGREES_WITHIN_SD * props.ledger.sdMl);
const bandFrom = computed(() => Math.max(0, inside.value - band.value));
const bandTo = computed(() => Math.min(whole.value, inside.value + band.value));
</script>

<template>
  <figure class="book" :aria-label="`${formatMl(ledger.outMl)} came out, ${formatMl(inside)} still inside`">
    <div class="bar" aria-hidden="true">
      <span class="inside" :style="{ width: share(inside), background: colour ?? 'var(--ink-soft)' }" />
      <span class="band" :style="{ left: share(bandFrom), width: share(bandTo - bandFrom) }" />
      <span v-if="predictedLeftMl !== null" class="mark" :style="{ left: share(predictedLeftMl) }" />
    </div>
    <figcaption class="figures">
      <span
        ><b>{{ formatMlWithSd(inside, ledger.sdMl) }}</b> inside</span
      >
      <span v-if="predictedLeftMl !== null" class="estimate">this loop keeps {{ formatMl(predictedLeftMl) }}</span>
      <span
        >{{ formatMl(ledger.outMl) }} out<template v-if="ledger.inMl > 0">, {{ formatMl(ledger.inMl) }} in</template
        ><template v-if="ledger.lostMl > 0">, {{ formatMl(ledger.lostMl) }} lost</template></span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
.book {
  margin: 0;
}
.bar {
  position: relative;
  height: 34px;
  background: var(--well);
  border: 2px solid var(--ink);
}
.bar span {
  position: absolute;
  top: 0;
  bottom: 0;
}
.inside {
  left: 0;
  border-right: 2px solid var(--ink);
}
.band {
  border-block: 6px solid var(--ink-soft);
  opacity: 0.45;
}
.mark {
  width: 0;
  border-left: 3px dashed var(--ink);
  top: -6px !important;
  bottom: -6px !important;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 20px;
  padding-top: 6px;
}
</style>
