<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import NumberField from '../../base/units/NumberField.vue';

/** One part tested on its own: tight or not, how, and what stays inside. */
const props = defineProps<{ procedure: Procedure; part?: string; liquid?: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const chosen = ref<string | null>(props.part ?? null);
const how = ref(props.liquid ? 'coolant, ten minutes, scrap tube between its ports' : 'air, ten minutes after settling');
const leftMl = ref<number | null>(0);
const problem = ref<string | null>(null);
const parts = computed(() => [...(props.procedure.facts?.parts ?? []), ...(props.part ? (props.procedure.facts?.joints ?? []) : [])]);

function tell(tight: boolean): void {
  if (chosen.value === null || how.value.trim() === '') {
    problem.value = say('Say which part, and how it was tested.');
    return;
  }
  problem.value = null;
  emit('send', { type: 'part-test', part: chosen.value, tight, how: how.value.trim(), leftMl: leftMl.value ?? 0 });
  if (!props.part) chosen.value = null;
  leftMl.value = 0;
}
</script>

<template>
  <form class="part-test" novalidate @submit.prevent>
    <v-select v-if="!part" v-model="chosen" :items="parts" item-title="name" item-value="id" label="Part" hide-details />
    <v-text-field v-model="how" label="How it was tested" hide-details />
    <NumberField v-if="liquid" v-model="leftMl" label="Stays inside" unit="mL" />
    <div class="row">
      <v-btn size="large" @click="tell(true)">It is tight</v-btn>
      <v-btn size="large" variant="outlined" @click="tell(false)">It leaks</v-btn>
    </div>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </form>
</template>

<style scoped>
.part-test {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 12px;
  align-items: center;
}
p {
  grid-column: 1 / -1;
  margin: 0;
}
</style>
