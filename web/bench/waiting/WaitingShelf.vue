<script setup lang="ts">
import type { BenchRun } from '@core/bench/benches/answers.js';
import { waitsForWords } from '@core/edge/words/waiting.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { computed } from 'vue';
import { useDates } from '../../base/units/dates.js';
import RunPicture from '../benches/RunPicture.vue';

/** Machines off the benches, opened, with what they wait for: the one that is looked at first stands in front. */
const props = defineProps<{ runs: readonly BenchRun[]; today: string; fileOf: (runId: string) => LoopFile | null }>();
const dates = useDates();
const waiting = computed(() =>
  props.runs
    .flatMap((run) => (run.waits ? [{ ...run, waits: run.waits, file: props.fileOf(run.id) }] : []))
    .sort((a, b) => a.waits.until.localeCompare(b.waits.until)),
);
</script>

<template>
  <section v-if="waiting.length" class="shelf" aria-label="Waiting, off the benches">
    <h2>{{ waiting.length }} waiting, off the benches</h2>
    <ul class="plain-list">
      <li v-for="run in waiting" :key="run.id">
        <router-link :to="`/runs/${run.id}`">
          <RunPicture :run="run" :file="run.file" :height="64" />
          <span class="words">
            <strong>{{ run.systemName }}</strong> <span class="quiet">{{ run.ownerName }}</span>
            <span class="line">{{ waitsForWords(run.waits) }}</span>
            <span class="line quiet">{{ run.stepTitle }} · {{ run.waits.lies }}</span>
          </span>
          <span class="until figures" :class="{ now: run.waits.until <= today }"
            >{{ sayDue(run.waits.until, today) }}<small>{{ dates.day(run.waits.until) }}</small></span
          >
        </router-link>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.shelf {
  margin: 0 0 26px;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(460px, 1fr));
  gap: 0 28px;
}
li {
  border-bottom: 5px solid var(--line);
  padding: 10px 4px 8px;
}
a {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  text-decoration: none;
  color: inherit;
}
a:hover strong {
  text-decoration: underline;
}
.words {
  min-width: 0;
}
.line {
  display: block;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.until {
  font-size: 1.6rem;
  line-height: 1.1;
  text-align: right;
}
.until.now {
  font-weight: 700;
}
.until small {
  display: block;
  font-size: 0.85rem;
  font-weight: 400;
  color: var(--ink-soft);
}
@media (max-width: 640px) {
  ul {
    grid-template-columns: 1fr;
  }
}
</style>
