<script setup lang="ts">
import type { ReservoirFacts } from '@core/bench/runs/facts.js';
import { formatMl } from '@core/base/units/display.js';

/** The reservoir by its sensor, against its marks. */
defineProps<{ levelMl: number; reservoir: ReservoirFacts; colour: string | null }>();
</script>

<template>
  <div
    class="gauge"
    role="img"
    :aria-label="`${formatMl(Math.max(0, levelMl))} in the reservoir, low mark ${formatMl(reservoir.lowMarkMl)}`"
  >
    <i
      :style="{
        width: `${Math.max(0, Math.min(100, (100 * levelMl) / reservoir.fillMarkMl))}%`,
        background: colour ?? 'var(--ink-soft)',
      }"
    />
    <b :style="{ left: `${(100 * reservoir.lowMarkMl) / reservoir.fillMarkMl}%` }" />
    <span class="figures">{{ formatMl(Math.max(0, levelMl)) }} in the reservoir, measured</span>
  </div>
</template>

<style scoped>
.gauge {
  position: relative;
  height: 30px;
  background: var(--well);
  border: 2px solid var(--ink);
  max-width: 620px;
}
i {
  display: block;
  height: 100%;
}
b {
  position: absolute;
  top: -6px;
  bottom: -6px;
  width: 3px;
  background: var(--danger);
}
span {
  position: absolute;
  top: 2px;
  right: 8px;
  padding: 0 6px;
  background: var(--sheet);
}
</style>
