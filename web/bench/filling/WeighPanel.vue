<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import { formatKg, formatMl, formatMlWithSd } from '@core/base/units/display.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { insideByWeight } from '@core/bench/runs/entries/weighed.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { pouredMl, type RunState } from '@core/bench/runs/state.js';
import NumberField from '../../base/units/NumberField.vue';

/** The machine on a scale, before the first pour and once the last is in: what is inside where no mark tells. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const mass = ref<number | null>(null);
const problem = ref<string | null>(null);

const before = computed(() => props.state.weights.before);
const after = computed(() => props.state.weights.after);
const inside = computed(() => insideByWeight(props.procedure, props.state));
/** the first weight is one of the machine as it was: once something was poured it is too late for it */
const when = computed(() => (props.state.pours.length === 0 ? 'before' : 'after'));
const missed = computed(() => when.value === 'after' && before.value === null);

function weigh(): void {
  if (mass.value === null || mass.value <= 0) {
    problem.value = say('Read the scale, in g, hoses and bottle off.');
    return;
  }
  problem.value = null;
  emit('send', { type: 'weighed', when: when.value, massG: mass.value });
  mass.value = null;
}
</script>

<template>
  <section class="scale" aria-label="On the scale">
    <p v-if="missed" class="quiet">Not weighed before the first pour: the jug alone says what went in.</p>
    <form v-else-if="!locked" class="entry" novalidate @submit.prevent="weigh">
      <NumberField
        v-model="mass"
        large
        :label="when === 'before' ? 'Machine on the scale, before' : 'Machine on the scale, filled'"
        unit="g"
      />
      <v-btn type="submit" size="x-large" :variant="when === 'before' ? 'flat' : 'outlined'">{{
        (when === 'before' ? before : after) ? 'Weighed again' : 'Weighed'
      }}</v-btn>
    </form>
    <p v-if="inside" class="by-weight" aria-live="polite">
      <b class="figures">{{ formatMlWithSd(inside.volumeMl, inside.sdMl) }}</b> inside by the scale; {{ formatMl(pouredMl(state)) }} left
      the jug.
    </p>
    <p v-else-if="before" class="quiet">{{ formatKg(before.massG) }} before the first pour. Weigh it again once the last one is in.</p>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </section>
</template>

<style scoped>
.scale {
  display: grid;
  gap: 8px;
}
p {
  margin: 0;
}
.entry {
  display: grid;
  grid-template-columns: minmax(240px, 320px) auto;
  gap: 12px;
  justify-content: start;
}
.v-btn {
  height: 64px;
  padding-inline: 16px;
}
.by-weight b {
  font-size: 1.5rem;
}
@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr;
  }
}
</style>
