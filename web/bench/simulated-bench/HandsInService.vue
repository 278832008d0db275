<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { currentKind, type RunState } from '@core/bench/runs/state.js';
import type { HandMove } from '@core/bench/simulated-bench/hands.js';
import { movesOfRinseOut } from '@core/bench/simulated-bench/movesOfEntry.js';

/** Hands at a practised service: the jug, the water in it, parts looked at closely. Lines of the sheet that are ticked were done. */
const props = defineProps<{ procedure: Procedure; state: RunState; busy: boolean }>();
const emit = defineEmits<{ move: [moves: readonly HandMove[]] }>();
const kind = computed(() => currentKind(props.state));
const items = computed(() => props.procedure.service?.items ?? []);
/** what the sheet asks for next lies at hand */
const next = computed(() => items.value.find(({ id }) => !props.state.service.sheet.has(id)) ?? items.value[0]);
const item = ref<string | null>(null);
watch(
  () => next.value?.id ?? null,
  (id) => (item.value = id),
  { immediate: true },
);

function letOut(): void {
  if (props.procedure.service) emit('move', movesOfRinseOut(props.procedure.service));
}
</script>

<template>
  <div v-if="kind === 'drain' || kind === 'rinse'" class="row">
    <v-btn v-if="kind === 'rinse'" variant="outlined" size="large" :disabled="busy" @click="letOut">Let it out over the jug</v-btn>
    <v-btn variant="outlined" size="large" :disabled="busy" @click="emit('move', [{ do: 'read-jug' }])">Read the jug</v-btn>
    <v-btn v-if="kind === 'rinse'" variant="text" size="large" :disabled="busy" @click="emit('move', [{ do: 'look-at-water' }])"
      >Look at the water</v-btn
    >
    <span v-if="kind === 'drain'" class="quiet">A line of the sheet that is ticked is done: hands open what it says.</span>
  </div>
  <div v-if="kind === 'inspect' || kind === 'clean'" class="row">
    <v-select
      v-model="item"
      :items="items"
      item-title="name"
      item-value="id"
      :label="kind === 'clean' ? 'Finger over' : 'Held to the light'"
      hide-details
      density="comfortable"
    />
    <v-btn
      variant="outlined"
      size="large"
      :disabled="busy || item === null"
      @click="item && emit('move', [{ do: 'look-close', at: item }])"
      >{{ kind === 'clean' ? 'Feel it' : 'Look closely' }}</v-btn
    >
    <v-btn v-if="kind === 'clean'" variant="text" size="large" :disabled="busy" @click="emit('move', [{ do: 'look-at-water' }])"
      >Look at the water</v-btn
    >
  </div>
</template>

<style scoped>
.row > .v-input {
  max-width: 380px;
}
</style>
