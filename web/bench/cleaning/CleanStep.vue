<script setup lang="ts">
import FramePart from '../frame/FramePart.vue';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { type RunState, runningSoak } from '@core/bench/runs/state.js';
import { computed } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { GRADE_WORDS, gradeItem } from '@core/bench/inspection/grade.js';
import WaterReading from '../flushing/WaterReading.vue';
import SoakClock from '../flushing/SoakClock.vue';

/** Cleaner with its clock, then part by part: gritty to the finger is deposit, smooth is done. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const soak = computed(() => runningSoak(props.state.service));
const dirty = computed(() =>
  (props.procedure.service?.items ?? []).flatMap((item) => {
    const seen = props.state.service.sheet.get(item.id);
    return seen && seen.first.deposit !== 'none' ? [{ item, seen, graded: gradeItem(item.kind, seen.last) }] : [];
  }),
);
function felt(id: string, touch: 'smooth' | 'gritty'): void {
  const seen = props.state.service.sheet.get(id);
  if (seen) emit('send', { type: 'inspected', step: 'clean', item: id, findings: { ...seen.last, touch } });
}
</script>

<template>
  <section class="clean">
    <SoakClock step="clean" :state="state" :locked="locked" @send="emit('send', $event)" />
    <FramePart v-if="dirty.length && !soak" at="work">
      <ul class="plain-list felt" aria-label="Parts that had deposit">
        <li v-for="{ item, seen, graded } in dirty" :key="item.id">
          <span
            ><strong>{{ item.name }}</strong> <span class="quiet">{{ seen.first.deposit }}</span></span
          >
          <span role="group" :aria-label="`${item.name} feels`">
            <button type="button" :disabled="locked" :aria-pressed="seen.last.touch === 'gritty'" @click="felt(item.id, 'gritty')">
              gritty
            </button>
            <button type="button" :disabled="locked" :aria-pressed="seen.last.touch === 'smooth'" @click="felt(item.id, 'smooth')">
              smooth
            </button>
          </span>
          <span class="quiet">{{ GRADE_WORDS[graded.grade] }}: {{ graded.rule }}</span>
        </li>
      </ul>
    </FramePart>
    <WaterReading v-if="!locked && state.service.soaks.length && !soak" step="clean" @send="emit('send', $event)" />
  </section>
</template>

<style scoped>
.clean {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.felt li {
  display: grid;
  grid-template-columns: 1fr auto 1.4fr;
  gap: 16px;
  align-items: center;
  border-top: 1px solid var(--line-soft);
  padding: 6px 0;
}
.felt button {
  min-height: 48px;
  padding: 0 18px;
  border: 1.5px solid var(--line);
  margin-right: -1.5px;
}
.felt [aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}
</style>
