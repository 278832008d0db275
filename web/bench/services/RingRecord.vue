<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { ringsRenewedIn } from '@core/bench/runs/ringsAfter.js';
import type { RunState } from '@core/bench/runs/state.js';
import { computed, ref } from 'vue';

/** Which rings and gaskets are new: each has an age of its own from here on. */
const props = defineProps<{ procedure: Procedure; state: RunState; step: string; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const rings = computed(() => (props.procedure.facts?.seals ?? []).filter(({ hasRing }) => hasRing !== false));
const renewed = computed(() => new Set(ringsRenewedIn(props.state)));
const open = computed(() => rings.value.filter(({ id }) => !renewed.value.has(id)));
const chosen = ref<string[]>([]);
const words = computed(() =>
  renewed.value.size === 0
    ? say('New rings and gaskets: which')
    : say('New rings and gaskets: {count} of {all}', { count: renewed.value.size, all: rings.value.length }),
);
function write(places: readonly string[]): void {
  if (places.length > 0) emit('send', { type: 'ring-renewed', step: props.step, places: [...places] });
  chosen.value = [];
}
const turn = (id: string): void =>
  void (chosen.value = chosen.value.includes(id) ? chosen.value.filter((each) => each !== id) : [...chosen.value, id]);
</script>

<template>
  <details v-if="rings.length > 0" class="rings">
    <summary>{{ words }}</summary>
    <div v-if="!locked" class="places" role="group" aria-label="Rings and gaskets">
      <button v-for="ring in open" :key="ring.id" type="button" :aria-pressed="chosen.includes(ring.id)" @click="turn(ring.id)">
        {{ ring.name }}
      </button>
    </div>
    <div v-if="!locked && open.length > 0" class="row">
      <v-btn size="large" variant="outlined" :disabled="chosen.length === 0" @click="write(chosen)">These are new</v-btn>
      <v-btn size="large" variant="text" @click="write(open.map(({ id }) => id))">All of them</v-btn>
    </div>
  </details>
</template>

<style scoped>
.rings summary {
  min-height: 44px;
  padding-block: 10px;
  cursor: pointer;
}
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}
.places button {
  min-height: 44px;
  padding: 6px 12px;
  border: 1px solid var(--line);
  border-radius: 3px;
}
.places [aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
</style>
