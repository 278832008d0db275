<script setup lang="ts">
import { capital, say } from '@core/base/words/say.js';
import { computed } from 'vue';
import { JOB_KIND_KEYS, JOB_KINDS, type JobKind } from '@core/workshop/job-kinds/kinds.js';
import { usualHours } from '@core/workshop/jobs/usualHours.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { ScopeAdvice } from '@core/workshop/jobs/scope.js';

/** Jobs from the longest to the shortest as rungs of one height, each bar as long as it takes; the advised one is marked, any can be chosen. */
const kind = defineModel<JobKind>({ required: true });
const props = defineProps<{ advice: ScopeAdvice; file: LoopFile }>();

const hours = (key: JobKind): number => usualHours(key, props.file);
const rungs = computed(() =>
  JOB_KIND_KEYS.filter((key) => JOB_KINDS[key].rung !== null)
    .map((key) => ({ key, label: say(JOB_KINDS[key].label), hours: hours(key), note: noteOf(key) }))
    // by what each takes on this very machine: a bar that is out of order reads as a mistake
    .sort((a, b) => b.hours - a.hours || (JOB_KINDS[b.key].rung ?? 0) - (JOB_KINDS[a.key].rung ?? 0)),
);
const others = JOB_KIND_KEYS.filter((key) => JOB_KINDS[key].rung === null);
const longest = computed(() => Math.max(...rungs.value.map((rung) => Math.sqrt(rung.hours))));

function noteOf(key: JobKind): string {
  const { advice } = props;
  if (key === advice.kind) return advice.reasons.join('; ');
  if (key === advice.lighter?.kind) return advice.lighter.words;
  return key === advice.heavier?.kind ? advice.heavier.words : '';
}
</script>

<template>
  <section class="ladder" aria-label="Scope of the job">
    <ol class="plain-list">
      <li v-for="rung in rungs" :key="rung.key" :class="{ advised: rung.key === advice.kind }">
        <button type="button" :aria-pressed="kind === rung.key" @click="kind = rung.key">
          <span class="bar" aria-hidden="true"><i :style="{ width: `${(100 * Math.sqrt(rung.hours)) / longest}%` }" /></span>
          <span class="words"
            ><strong>{{ rung.label }}</strong>
            <span class="quiet figures"> {{ rung.hours }} h, estimate</span>
            <em v-if="rung.key === advice.kind"> lightest that is safe</em></span
          >
          <span v-if="rung.note" class="quiet note">{{ capital(rung.note) }}.</span>
        </button>
      </li>
    </ol>
    <p v-if="advice.kind === 'leak-repair'" class="leak">
      <strong>Leak repair.</strong> {{ advice.reasons[0] }}; {{ advice.lighter?.words }}.
    </p>
    <div class="others" role="group" aria-label="Other jobs">
      <button
        v-for="key in others"
        :key="key"
        type="button"
        :aria-pressed="kind === key"
        :class="{ advised: key === advice.kind }"
        @click="kind = key"
      >
        {{ JOB_KINDS[key].label }}
      </button>
    </div>
    <p v-if="advice.unknown.length" class="quiet">Would make it surer: {{ advice.unknown.join(', ') }}.</p>
  </section>
</template>

<style scoped>
.ladder {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
ol {
  border-left: 4px solid var(--ink);
  display: grid;
  grid-auto-rows: 1fr;
}
li button {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 2px 16px;
  width: 100%;
  height: 100%;
  min-height: 52px;
  align-content: center;
  align-items: center;
  text-align: left;
  padding: 6px 10px 6px 0;
}
.bar i {
  display: block;
  height: 10px;
  border: 2px solid var(--ink);
  border-left: 0;
}
.advised .bar i {
  height: 22px;
}
[aria-pressed='true'] .bar i {
  background: var(--ink);
}
li [aria-pressed='true'] {
  background: var(--well);
}
em {
  font-style: normal;
  border-bottom: 2px solid var(--ink);
  margin-left: 8px;
}
.note {
  grid-column: 2;
}
.others {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.others button {
  min-height: 44px;
  padding: 0 14px;
  border: 1.5px solid var(--line);
  border-radius: 3px;
}
.others [aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}
.others .advised {
  border: 3px solid var(--ink);
}
.leak {
  border-left: 5px solid var(--danger);
  padding-left: 12px;
}
</style>
