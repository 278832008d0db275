<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ref } from 'vue';
import { CLARITIES, CLARITY_WORDS, type Clarity } from '@core/machine/liquids/rinsing.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';

/** What the water says that just ran out: clear or not, and its pH where a cleaner was inside. */
const props = defineProps<{ step: string }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const ph = ref<number | null>(null);
const clarity = ref<Clarity | null>(null);
const problem = ref<string | null>(null);
const options = CLARITIES.map((value) => ({ value, title: say(CLARITY_WORDS[value]) }));

function enter(): void {
  if (clarity.value === null) {
    problem.value = say('Hold it against the light: clear, tinted, cloudy or with particles?');
    return;
  }
  if (ph.value !== null && (ph.value < 0 || ph.value > 14)) {
    problem.value = say('pH lies between 0 and 14.');
    return;
  }
  problem.value = null;
  emit('send', { type: 'water', step: props.step, ph: ph.value, clarity: clarity.value });
  clarity.value = null;
}
</script>

<template>
  <form class="water" novalidate @submit.prevent="enter">
    <ChoiceRow v-model="clarity" label="The water is" :options="options" />
    <div class="ph">
      <NumberField v-model="ph" label="pH, where a cleaner was inside" unit="pH" @enter="enter" />
      <v-btn type="submit" size="large" variant="outlined">Read</v-btn>
    </div>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </form>
</template>

<style scoped>
.water {
  display: grid;
  gap: 10px;
}
.ph {
  display: grid;
  grid-template-columns: minmax(180px, 280px) auto;
  gap: 12px;
  justify-content: start;
}
.ph .v-btn {
  height: 56px;
}
.water p {
  margin: 0;
}
</style>
