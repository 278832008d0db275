<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { MovedJob } from '@core/workshop/planning/board.js';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { useDates } from '../../base/units/dates.js';
import type { Proposal } from './useArrange.js';

/** What would move and which promise would break, before anything is changed. */
const props = defineProps<{ board: WorkshopBoard; moved: readonly MovedJob[]; left: readonly string[]; proposal: Proposal | null }>();
const emit = defineEmits<{ take: []; leave: [] }>();
const dates = useDates();
const nameOf = (id: string): string => props.board.jobs.find((each) => each.id === id)?.systemName ?? id;
const benchOf = (index: number): string => props.board.benches[index]?.name ?? '';
const when = (ms: number): string => dates.dayAndTime(new Date(ms).toISOString());
const days = (minutes: number): string =>
  minutes < 1440 ? `${Math.ceil(minutes / 60)} h` : say('{minutes} days', { minutes: grouped(minutes / 1440, 1) });
</script>

<template>
  <section class="changes" aria-live="polite">
    <div class="spread">
      <h2>{{ proposal ? 'It would change' : 'Dropped here' }}</h2>
      <p v-if="proposal" class="figures quiet">
        {{ grouped(proposal.weightedLateMinutes / 1440, 1) }} weighted days late in all; it cannot be below
        {{ grouped(proposal.lowerBound / 1440, 1) }}
      </p>
    </div>
    <ul class="plain-list">
      <li v-for="each in moved" :key="each.id" :class="{ breaks: each.lateAfter > each.lateBefore }">
        <strong>{{ nameOf(each.id) }}</strong>
        <span class="figures"
          ><template v-if="each.fromMs !== null">{{ when(each.fromMs) }} → </template>{{ when(each.toMs) }}, {{ benchOf(each.bench) }}</span
        >
        <span v-if="each.lateAfter > each.lateBefore" class="danger">{{ days(each.lateAfter) }} after its day</span>
        <span v-else-if="each.lateBefore > 0" class="quiet">{{ each.lateAfter > 0 ? 'less late' : 'in time again' }}</span>
        <span v-else class="quiet">{{ each.hands ? 'same time, other hands' : `ready ${when(each.endMs)}` }}</span>
      </li>
    </ul>
    <p v-if="left.length" class="danger">No place any more: {{ left.map(nameOf).join(', ') }}. It is not dropped here.</p>
    <div v-if="proposal" class="row">
      <v-btn size="large" @click="emit('take')">Take this plan</v-btn>
      <v-btn size="large" variant="text" @click="emit('leave')">Leave it as it is</v-btn>
    </div>
  </section>
</template>

<style scoped>
.changes {
  border-top: 3px solid var(--ink);
  margin-top: 10px;
  padding-top: 10px;
}
p {
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: 170px 1fr 200px;
  gap: 16px;
  padding: 5px 0;
  border-top: 1px solid var(--line-soft);
}
@media (max-width: 800px) {
  li {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
