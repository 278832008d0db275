<script setup lang="ts">
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { checksBeforeGoingOn, waitingNow } from '@core/bench/runs/waiting.js';
import { capital } from '@core/base/words/say.js';
import { standCheckWords, waitsForWords } from '@core/edge/words/waiting.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { computed, ref } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useDates } from '../../base/units/dates.js';
import { useBenches } from '../benches/benchStore.js';
import FramePart from '../frame/FramePart.vue';
import TickLines from '../../base/look/TickLines.vue';

/** A run that waits: for what, until when, where it lies, and the way back onto a bench. */
const props = defineProps<{ runId: string; systemId: string; procedure: Procedure; state: RunState; today: string }>();
const emit = defineEmits<{ resumed: []; again: [] }>();
const submit = useSubmit();
const dates = useDates();
const benches = useBenches();
void benches.refresh();

const waiting = computed(() => waitingNow(props.state));
const lines = computed(() =>
  checksBeforeGoingOn(props.state).map((check) => ({ id: check.check, text: standCheckWords(props.procedure, check) })),
);
const seen = ref<string[]>([]);
const unseenLine = computed(() => lines.value.find(({ id }) => !seen.value.includes(id)) ?? null);
const taken = (benchId: string): string | null =>
  benches.runs.find((run) => run.benchId === benchId && run.systemId !== props.systemId)?.systemName ?? null;
const chosen = ref<string | null>(null);
const benchId = computed(() => chosen.value ?? benches.benches.find(({ id }) => taken(id) === null)?.id ?? null);
const id = crypto.randomUUID();

async function goOn(): Promise<void> {
  if (unseenLine.value || benchId.value === null) return;
  const body = { id, benchId: benchId.value, seen: seen.value };
  const done = await submit.run(() => call('POST', `/runs/${props.runId}/go-on`, { body }));
  if (done) emit('resumed');
}
</script>

<template>
  <section v-if="waiting" class="waiting" aria-label="This run waits">
    <div>
      <p class="quiet">waits for {{ waiting.for === 'other' ? '' : waitsForWords(waiting).split(':')[0] }}</p>
      <p class="big">{{ capital(waiting.what || 'goes on tomorrow') }}</p>
      <p>
        Looked at again <strong>{{ dates.day(waiting.until) }}</strong> ({{ sayDue(waiting.until, today) }}). It lies: {{ waiting.lies }}.
        <button type="button" class="link" @click="emit('again')">Another day or place</button>
      </p>
    </div>
    <form id="go-on" novalidate @submit.prevent="goOn">
      <TickLines v-model="seen" legend="Before hands go on" :lines="lines" />
      <div class="tops" role="radiogroup" aria-label="Bench">
        <label v-for="bench in benches.benches" :key="bench.id" :class="{ on: bench.id === benchId, taken: taken(bench.id) !== null }"
          ><input
            type="radio"
            name="bench"
            :value="bench.id"
            :checked="bench.id === benchId"
            :disabled="taken(bench.id) !== null"
            @change="chosen = bench.id"
          />{{ bench.name }}<span v-if="taken(bench.id)">{{ taken(bench.id) }}</span></label
        >
      </div>
    </form>
    <!-- the act of now stands where it always stands -->
    <FramePart at="act">
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <!-- what must be looked at comes first, one look at a time: no grey bar -->
      <v-btn v-if="unseenLine" size="x-large" variant="outlined" block @click="seen = [...seen, unseenLine.id]"
        >✓ {{ unseenLine.text }}</v-btn
      >
      <v-btn v-else-if="benchId !== null" type="submit" form="go-on" size="x-large" block :loading="submit.busy.value"
        >Back on the bench, go on</v-btn
      >
      <p v-else-if="benches.benches.length > 0" class="quiet">Every bench is taken: it goes on once one is free.</p>
    </FramePart>
  </section>
</template>

<style scoped>
.waiting {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 36px;
  padding: 18px 22px;
  border: 3px dashed var(--ink);
  background: var(--sheet);
}
.waiting p {
  margin: 0 0 6px;
}
.big {
  font-size: 2.4rem;
  line-height: 1.1;
  font-weight: 420;
}
form {
  display: grid;
  gap: 14px;
  justify-items: start;
}
form > fieldset {
  width: 100%;
}
.link {
  text-decoration: underline;
}
.tops {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.tops label {
  display: grid;
  align-content: center;
  min-width: 130px;
  min-height: 56px;
  padding: 6px 16px;
  border-bottom: 12px solid var(--line);
  cursor: pointer;
}
.tops label.on {
  border-bottom-color: var(--slab);
  font-weight: 600;
}
.tops label.taken {
  color: var(--ink-soft);
  cursor: default;
}
.tops label:focus-within {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
.tops span {
  font-size: 0.85rem;
}
.tops input {
  position: absolute;
  opacity: 0;
}
@media (max-width: 900px) {
  .waiting {
    grid-template-columns: 1fr;
  }
}
</style>
