<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { SistersAsked } from '@core/bench/runs/sisters.js';

/** Places that had the same bag, or share the cause: each is looked at before the machine goes. */
const props = defineProps<{ asked: SistersAsked; locked: boolean }>();
const emit = defineEmits<{ seen: [] }>();
const bags = computed(() => {
  const found = new Map<string, string[]>();
  for (const { name, bag } of props.asked.sisters) {
    const of = bag ? say('{make} lot {lot}', { make: bag.make, lot: bag.lot }) : '';
    found.set(of, [...(found.get(of) ?? []), name]);
  }
  return [...found].map(([bag, names]) => ({ bag, names: names.join(', ') }));
});
</script>

<template>
  <div class="mend">
    <div>
      <p v-for="{ bag, names } in bags" :key="bag">
        <template v-if="bag"
          >Out of the same bag, {{ bag }}: <b>{{ names }}</b>.</template
        >
        <template v-else>The same may be at {{ names }}.</template>
      </p>
      <p>Look at each. What is not sound is said with “Something is wrong”.</p>
    </div>
    <v-btn v-if="!locked" size="large" @click="emit('seen')">All looked at</v-btn>
  </div>
</template>

<style scoped src="./trouble.css"></style>
