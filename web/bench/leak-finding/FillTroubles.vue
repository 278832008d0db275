<script setup lang="ts">
import { FILL_CAUSES, FILL_SYMPTOMS, rankFillCauses, type ConfirmedFillCauses, type FillCause } from '@core/bench/fill-troubles/causes.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { FillTrouble, RunState } from '@core/bench/runs/state.js';
import { capital, sayWord } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import RankedCauses from './RankedCauses.vue';

/** What is wrong with the filling: causes ranked by what is usual, by this loop and by what was found here, each with its next check. */
const props = defineProps<{ procedure: Procedure; state: RunState; confirmed: ConfirmedFillCauses; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const causes = ref<Record<string, FillCause>>({});
const fixes = ref<Record<string, string>>({});
const unsaid = ref<string | null>(null);
const open = computed(() => props.state.fillTroubles.filter(({ solved }) => solved === null));
const evidence = computed(() => ({
  primes: props.procedure.facts?.fill?.primes ?? null,
  hasValve: props.procedure.facts?.ports.some(({ valve }) => valve) ?? true,
  turned: props.state.stand.angleDeg > 0,
  pumpOn: props.state.pump?.on === true,
}));
const ranked = ({ symptom }: FillTrouble) => rankFillCauses(symptom, evidence.value, props.confirmed).slice(0, 5);

function solved({ eventId }: FillTrouble): void {
  const cause = causes.value[eventId];
  unsaid.value = cause ? null : eventId;
  if (!cause) return;
  emit('send', { type: 'fill-trouble-solved', trouble: eventId, cause, fix: fixes.value[eventId]?.trim() || FILL_CAUSES[cause].nextCheck });
}
</script>

<template>
  <article v-for="trouble in open" :key="trouble.eventId">
    <h3>{{ capital(sayWord(FILL_SYMPTOMS[trouble.symptom])) }}</h3>
    <p v-if="trouble.text">“{{ trouble.text }}”</p>
    <RankedCauses v-model="causes[trouble.eventId]" :name="trouble.eventId" :causes="ranked(trouble)" />
    <p v-if="unsaid === trouble.eventId && !causes[trouble.eventId]" role="alert" class="danger">Touch the cause that was found first.</p>
    <div v-if="!locked" class="mend">
      <v-text-field v-model="fixes[trouble.eventId]" label="What was done" hide-details density="comfortable" />
      <v-btn size="large" @click="solved(trouble)">It goes on</v-btn>
    </div>
  </article>
</template>

<style scoped src="./trouble.css"></style>
