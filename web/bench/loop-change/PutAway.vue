<script setup lang="ts">
import { ref } from 'vue';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';

/** Parts that came out and have no place yet: most lie in one box. */
const props = defineProps<{ step: string; parts: readonly { readonly id: string; readonly name: string }[] }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const place = ref('');
function putAway(): void {
  for (const { id } of props.parts)
    emit('send', { type: 'swapped', step: props.step, item: id, action: 'removed', text: place.value.trim(), heldMl: 0 });
  place.value = '';
}
</script>

<template>
  <form class="away" novalidate @submit.prevent="putAway">
    <v-text-field v-model="place" :label="`Where they lie: ${parts.map(({ name }) => name).join(', ')}`" hide-details />
    <v-btn type="submit" size="large" :disabled="!place.trim()">All of them there</v-btn>
  </form>
</template>

<style scoped>
.away {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
}
</style>
