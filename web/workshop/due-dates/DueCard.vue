<script setup lang="ts">
import { useSession } from '../people/sessionStore.js';
import type { SystemPage } from '@core/workshop/machines/answers.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { firstReason } from '@core/workshop/due-dates/facts.js';
import { computed, ref } from 'vue';
import { escalationWords, reasonWords } from '@core/edge/words/dates.js';
import { isBesideDue, sayDue, type DueKind } from '@core/workshop/due-dates/attention.js';
import { useDates } from '../../base/units/dates.js';
import ReasonDialog from '../../base/look/ReasonDialog.vue';
import { call, wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';
import PostponeDialog from './PostponeDialog.vue';
import SettlingDialog from './SettlingDialog.vue';

/** One clock of a loop: when, why, and what can be done about it. */
const props = defineProps<{
  due: SystemPage['dues'][number];
  today: string;
  big: boolean;
  loopName: string | null;
  waitingRunId?: string | null;
  /** its loop has none: no mark shows a level */
  noReservoir?: boolean;
}>();
const emit = defineEmits<{ changed: [text: string]; service: [] }>();
const dates = useDates();
const postponing = ref(false);
const settling = ref(false);
const following = ref(false);
const notices = useNotices();

async function followed(note: string): Promise<void> {
  following.value = false;
  try {
    await call('PUT', `/due-items/${props.due.id}/close`, {
      body: { outcome: 'done', levelChangeMm: null, note, version: props.due.version },
    });
    emit('changed', sayWord(byHand.value?.done) ?? '');
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
/** an awaited part that is in opens the job that it is for */
const awaited = computed(() => {
  const first = firstReason(props.due.reason);
  if (props.due.kind !== 'follow-up' || first.why !== 'temporary' || props.due.jobId) return null;
  const kind = first.then ?? 'leak-repair';
  return `/systems/${props.due.systemId}/jobs/new?loop=${props.due.loopId}&answers=${props.due.id}&kind=${kind}&said=${encodeURIComponent(first.what)}`;
});
/** items that a hand closes with a word: what is asked, and what is said then */
const BY_HAND: Readonly<Partial<Record<DueKind, { readonly asks: string; readonly done: string }>>> = {
  'follow-up': { asks: 'Close the follow-up', done: 'The follow-up is closed.' },
  'dust-clean': { asks: 'Fins and filters are clean', done: 'Clean again; the next cleaning has its day.' },
  'paste-renewal': { asks: 'All of it lies on new paste', done: 'New paste everywhere; the next has its day.' },
  stirring: { asks: 'The pump ran until all of it moved', done: 'Stirred; the next has its day.' },
};
const byHand = computed(() => BY_HAND[props.due.kind]);
const names = {
  'coolant-service': say('Coolant service'),
  'settling-check': say('Settling check'),
  'follow-up': say('Follow-up'),
  'dust-clean': say('Dust'),
  'paste-renewal': say('Paste'),
  stirring: say('Stirring run'),
};
const session = useSession();
/** an owner's word is written down by the desk */
const putsOff = computed(() => (props.due.kind === 'coolant-service' || isBesideDue(props.due)) && session.may('desk'));
</script>

<template>
  <article class="due">
    <h2>
      {{ names[due.kind] }}<span v-if="loopName" class="quiet">, {{ loopName }}</span>
    </h2>
    <p class="when figures" :class="{ 'big-number': big }">{{ sayDue(due.dueOn, today) }}</p>
    <p class="figures">
      <template v-if="due.windowFrom">{{ dates.day(due.windowFrom) }} to </template>{{ dates.day(due.dueOn)
      }}<span v-if="due.postponed" class="quiet">, put off {{ due.postponed }}×</span>
    </p>
    <p class="reason">{{ capital(reasonWords(due.reason)) }}<span v-if="due.estimated" class="estimate quiet"> (estimate)</span></p>
    <p v-if="due.escalation.level > 0" class="escalation">{{ capital(escalationWords(due.escalation)) }}.</p>
    <ul v-if="due.clocks.length > 1" class="plain-list quiet clocks">
      <li v-for="clock in due.clocks.slice(1)" :key="clock.kind">later: {{ dates.day(clock.dueOn) }}, {{ reasonWords(clock.reason) }}</li>
    </ul>
    <div class="row mt-3 no-print">
      <v-btn v-if="waitingRunId && due.kind === 'follow-up'" :to="`/runs/${waitingRunId}`">To the run that waits</v-btn>
      <v-btn v-else-if="awaited" :to="awaited">It has come: book the fix</v-btn>
      <v-btn v-else-if="due.jobId && due.kind === 'follow-up'" variant="outlined" :to="`/jobs/${due.jobId}`">To its job</v-btn>
      <v-btn
        v-if="byHand"
        :variant="awaited || waitingRunId ? 'outlined' : undefined"
        :aria-label="`It is done: ${names[due.kind]}`"
        @click="following = true"
        >It is done</v-btn
      >
      <v-btn v-if="due.kind === 'settling-check'" @click="settling = true">Read the level</v-btn>
      <v-btn v-if="due.kind === 'coolant-service' && !waitingRunId" @click="emit('service')">Record the service</v-btn>
      <v-btn v-if="putsOff" variant="outlined" :aria-label="`Owner puts it off: ${names[due.kind]}`" @click="postponing = true"
        >Owner puts it off</v-btn
      >
    </div>
    <ReasonDialog
      v-model="following"
      :title="sayWord(byHand?.asks) ?? ''"
      label="What was found or done"
      button="It is done"
      :least="3"
      @say="followed"
    />
    <PostponeDialog v-model="postponing" :due="due" :today="today" @saved="emit('changed', $event)" />
    <SettlingDialog v-model="settling" :due="due" :no-reservoir="noReservoir" @saved="emit('changed', $event)" />
  </article>
</template>

<style scoped>
.due p {
  margin: 4px 0 0;
}
.when:not(.big-number) {
  font-size: 1.6rem;
  font-weight: 400;
}
.reason {
  max-width: 52ch;
}
.escalation {
  border-left: 4px solid var(--ink);
  padding-left: 10px;
  font-weight: 500;
}
.clocks {
  margin-top: 6px;
  font-size: 0.92rem;
}
</style>
