<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { strengthOf } from '@core/bench/runs/strength.js';
import { strengthWords } from '@core/edge/words/strength.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import FormDialog from '../../base/look/FormDialog.vue';
import NumberField from '../../base/units/NumberField.vue';

/** A drop of the coolant inside, on the refractometer or on a strip. */
const props = defineProps<{ procedure: Procedure; state: RunState }>();
const emit = defineEmits<{ close: []; send: [body: RunEventBody] }>();
const percent = ref<number | null>(null);
const ph = ref<number | null>(null);
const problem = ref<string | null>(null);
const book = computed(() => strengthOf(props.procedure, props.state));

function enter(): void {
  if (percent.value === null && ph.value === null) {
    problem.value = say('Enter what was read: the strength, the pH, or both.');
    return;
  }
  emit('send', { type: 'coolant-read', strength: percent.value === null ? null : percent.value / 100, ph: ph.value });
}
</script>

<template>
  <FormDialog
    title="The coolant was measured"
    button="Write it down"
    :busy="false"
    :problem="problem"
    @submit="enter"
    @close="emit('close')"
  >
    <p class="quiet">A drop from the fill port, after the pump has mixed it for some minutes; the prism wiped with distilled water.</p>
    <p v-if="book" class="estimate">{{ strengthWords(book) }}</p>
    <NumberField v-model="percent" label="Concentrate, by refractometer" unit="%" />
    <NumberField v-model="ph" label="Strip or meter" unit="pH" />
  </FormDialog>
</template>

<style scoped>
p {
  margin: 0 0 14px;
}
</style>
