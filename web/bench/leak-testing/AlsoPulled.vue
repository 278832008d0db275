<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { RunState } from '@core/bench/runs/state.js';
import { ref } from 'vue';

/** A connector that the list does not know: written down as it is pulled, so that it comes back by name. */
const props = defineProps<{ state: RunState; step: string; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const name = ref('');
function write(): void {
  const said = name.value.trim();
  if (said === '') return;
  emit('send', {
    type: 'also-pulled',
    step: props.step,
    line: `${props.state.alsoPulled.length + 1}-${crypto.randomUUID().slice(0, 8)}`,
    name: said,
  });
  name.value = '';
}
</script>

<template>
  <form v-if="!locked" class="also" @submit.prevent="write">
    <v-text-field
      v-model="name"
      label="Also pulled, not on the list"
      density="comfortable"
      maxlength="120"
      autocomplete="off"
      hide-details
    />
    <v-btn type="submit" variant="outlined" size="large" :disabled="name.trim() === ''">Pulled</v-btn>
  </form>
</template>

<style scoped>
.also {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
  margin: 8px 0;
}
</style>
