<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { pouredMl, type RunState } from '@core/bench/runs/state.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { dropsFor, dyeWords } from '@core/machine/liquids/dye.js';
import { computed, ref } from 'vue';
import NumberField from '../../base/units/NumberField.vue';

/** Dye, last and little: by drops a litre for what is inside, and written down, since it hides what the coolant's own colour tells. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const DROPS = say('drops');
const name = ref('');
const dropsPerL = ref<number | null>(null);
const drops = ref<number | null>(null);
const insideMl = computed(() => props.state.contents.insideMl ?? props.procedure.fillPlan.total.volumeMl);
const advised = computed(() => (dropsPerL.value !== null && dropsPerL.value > 0 ? dropsFor(insideMl.value, dropsPerL.value) : null));
const mayDye = computed(() => pouredMl(props.state) > 0 || Boolean(props.procedure.service?.inside));
function write(): void {
  const count = drops.value ?? advised.value;
  if (count === null || name.value.trim() === '') return;
  emit('send', { type: 'dyed', name: name.value.trim(), drops: Math.round(count) });
  drops.value = null;
}
</script>

<template>
  <details v-if="mayDye" class="dye">
    <summary>{{ state.dyes.length > 0 ? `Dyed: ${dyeWords(state.dyes)}` : 'Dye, last and little' }}</summary>
    <form v-if="!locked" novalidate @submit.prevent="write">
      <v-text-field v-model="name" label="As its bottle calls it" hide-details maxlength="80" autocomplete="off" />
      <NumberField v-model="dropsPerL" label="Its sheet says, a litre" :unit="DROPS" />
      <NumberField
        v-model="drops"
        label="Went in"
        :unit="DROPS"
        :hint="advised === null ? undefined : `${advised} for ${formatMl(insideMl)}`"
      />
      <v-btn type="submit" size="large" variant="outlined" :disabled="name.trim() === '' || (drops ?? advised) === null"
        >Write it down</v-btn
      >
    </form>
    <p class="quiet">From then on the sample of the coolant’s lot is no reference: keep one of this very loop.</p>
  </details>
</template>

<style scoped>
.dye summary {
  min-height: 44px;
  padding-block: 10px;
  cursor: pointer;
}
.dye form {
  display: grid;
  grid-template-columns: 1.4fr 1fr 1fr auto;
  gap: 10px;
  align-items: start;
}
</style>
