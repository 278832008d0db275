<script setup lang="ts">
import type { FillOrder } from '@core/bench/runs/fillOrder.js';
import { cautionNow } from '@core/bench/runs/cautionNow.js';
import { stepOf, type Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { cautionWords } from '@core/edge/words/cautions.js';
import { computed, ref, watch } from 'vue';

/** The one caution of this moment, large; the step's others are one touch away. */
const props = defineProps<{ procedure: Procedure; state: RunState; order: FillOrder | null }>();
const open = ref(false);
const all = computed(() => {
  const { procedure, state, order } = props;
  const now = cautionNow(procedure, state, order);
  const general = stepOf(procedure, state.current)?.cautions ?? [];
  return now === null ? [...general] : [cautionWords(procedure, now), ...general];
});
watch(
  () => props.state.current,
  () => {
    open.value = false;
  },
);
</script>

<template>
  <section v-if="all.length" class="caution" :class="{ open }" aria-label="Cautions">
    <p class="first">{{ all[0] }}</p>
    <template v-if="all.length > 1">
      <ul v-if="open" class="plain-list">
        <li v-for="each in all.slice(1)" :key="each">{{ each }}</li>
      </ul>
      <button type="button" :aria-expanded="open" @click="open = !open">{{ open ? 'Fold' : `+ ${all.length - 1} more` }}</button>
    </template>
  </section>
</template>

<style scoped>
.caution {
  position: relative;
  border-left: 8px solid var(--danger);
  background: var(--danger-ground);
  padding: 8px 14px;
}
.first {
  font-size: 1.55rem;
  line-height: 1.16;
  font-weight: 640;
  text-wrap: pretty;
}
li {
  padding-top: 6px;
}
button {
  min-height: 32px;
  text-decoration: underline;
}
/* on a tablet held upright it is one line across: what is long stays whole, and smaller */
@media (max-width: 1000px) {
  .caution {
    display: flex;
    flex-wrap: wrap;
    column-gap: 14px;
    align-items: baseline;
    padding-block: 6px;
  }
  .first {
    font-size: 1.3rem;
  }
}
</style>
