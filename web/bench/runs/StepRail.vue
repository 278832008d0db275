<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';

/** What is done and what is to come. A step that is done can be looked at again. */
const props = defineProps<{ procedure: Procedure; state: RunState; shown: string | null }>();
const emit = defineEmits<{ look: [id: string] }>();
const rail = ref<HTMLElement | null>(null);

/** On a tablet the rail is one line that scrolls: the current step stays in sight. */
function show(): void {
  rail.value?.querySelector('[aria-current]')?.scrollIntoView?.({ inline: 'center', block: 'nearest' });
}
onMounted(show);
watch(() => props.state.current, show, { flush: 'post' });

const statusOf = (state: RunState, id: string): string => state.steps.find((step) => step.id === id)?.status ?? 'to-come';
</script>

<template>
  <ol ref="rail" class="rail plain-list" aria-label="Steps of this run">
    <li v-for="(step, index) in procedure.steps" :key="step.id" :class="[statusOf(state, step.id), { shown: shown === step.id }]">
      <button
        type="button"
        :disabled="statusOf(state, step.id) === 'to-come'"
        :aria-current="statusOf(state, step.id) === 'current' ? 'step' : undefined"
        @click="emit('look', step.id)"
      >
        <span class="tick figures" aria-hidden="true">{{ statusOf(state, step.id) === 'done' ? '✓' : index + 1 }}</span>
        <span>{{ step.title }}</span>
        <span class="visually-hidden">{{ statusOf(state, step.id) }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.rail {
  display: grid;
  align-content: start;
  position: relative;
}
button {
  display: grid;
  grid-template-columns: 30px 1fr;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 42px;
  text-align: left;
  padding: 2px 8px 2px 0;
  color: var(--ink-soft);
}
button:disabled {
  opacity: 1;
  cursor: default;
}
.tick {
  display: grid;
  place-items: center;
  width: 26px;
  height: 26px;
  font-size: 0.9rem;
}
.done .tick {
  color: var(--ink);
}
.current button {
  color: var(--ink);
  font-weight: 660;
  font-size: 1.05rem;
}
.current .tick {
  background: var(--ink);
  color: var(--ground);
  border-radius: 3px;
}
.to-come button {
  color: var(--ink-soft);
}
.shown:not(.current) button {
  text-decoration: underline;
  color: var(--ink);
}
@media (max-width: 1000px) {
  .rail {
    display: flex;
    overflow-x: auto;
    gap: 4px;
    padding-bottom: 6px;
  }
  button {
    grid-template-columns: 26px auto;
    white-space: nowrap;
    min-height: 48px;
    padding-right: 12px;
  }
}
</style>
