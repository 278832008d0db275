<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState, StepState } from '@core/bench/runs/state.js';

/** The steps as ticks, the one of now raised: what is done can be looked at again. */
const props = defineProps<{ procedure: Procedure; state: RunState; shown: string | null }>();
const emit = defineEmits<{ look: [id: string] }>();
const holder = ref<HTMLElement | null>(null);
const STATUS_WORDS = { done: 'done', current: 'now', 'to-come': 'to come' } as const;
const statusOf = (id: string): StepState['status'] => props.state.steps.find((step) => step.id === id)?.status ?? 'to-come';
const at = computed(() => props.procedure.steps.findIndex(({ id }) => id === props.shown));
const then = computed(() => props.procedure.steps[at.value + 1]?.title ?? null);

/** where there are more ticks than room the step of now stays in sight */
function show(): void {
  holder.value?.querySelector('[aria-current]')?.scrollIntoView?.({ inline: 'center', block: 'nearest' });
}
onMounted(show);
watch(() => props.state.current, show, { flush: 'post' });
</script>

<template>
  <div class="steps">
    <ol ref="holder" class="plain-list" aria-label="Steps of this run">
      <li v-for="(step, index) in procedure.steps" :key="step.id" :class="[statusOf(step.id), { shown: shown === step.id }]">
        <button
          type="button"
          :disabled="statusOf(step.id) === 'to-come'"
          :aria-current="statusOf(step.id) === 'current' ? 'step' : undefined"
          :aria-label="`${index + 1}: ${step.title}, ${STATUS_WORDS[statusOf(step.id)]}`"
          :title="step.title"
          @click="emit('look', step.id)"
        >
          <i aria-hidden="true" />
        </button>
      </li>
    </ol>
    <div class="title">
      <span class="figures">{{ at + 1 }} of {{ procedure.steps.length }}</span>
      <h2>{{ procedure.steps[at]?.title }}</h2>
      <span v-if="then" class="quiet">then {{ then }}</span>
    </div>
  </div>
</template>

<style scoped>
.steps {
  min-width: 0;
}
ol {
  display: flex;
  gap: 4px;
}
li {
  flex: 1 1 26px;
  max-width: 48px;
}
button {
  display: flex;
  align-items: flex-end;
  width: 100%;
  height: 24px;
}
button:disabled {
  cursor: default;
}
i {
  display: block;
  width: 100%;
  height: 8px;
  border: 1.5px solid var(--ink);
}
.done i {
  background: var(--ink);
}
.current i {
  height: 20px;
  background: var(--ink);
}
.to-come i {
  border-color: var(--line);
}
.shown:not(.current) i {
  height: 14px;
}
.title {
  display: flex;
  align-items: baseline;
  gap: 8px;
  white-space: nowrap;
  overflow: hidden;
}
h2 {
  font-size: 1.1rem;
}
.title .quiet {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
