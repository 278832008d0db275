<script setup lang="ts">
import { ledgerWords } from '@core/edge/words/bench.js';
import { asSentence } from '@core/edge/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ledgerOf, expectedDrains, judgeDrain } from '@core/bench/runs/contents.js';
import { openingIn } from '@core/bench/runs/facts.js';
import { FLUSH } from '@core/machine/liquids/rinsing.js';
import { wantsLevelFirst } from '@core/bench/runs/book.js';
import { formatMlWithSd } from '@core/base/units/display.js';
import { computed } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import BookBar from './BookBar.vue';
import LevelRead from '../filling/LevelRead.vue';
import CameOut from './CameOut.vue';

/** The drain as it is led: what should come at this stand, what came, what is still inside. */
const props = defineProps<{ procedure: Procedure; state: RunState; colour: string | null; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();

const service = computed(() => props.procedure.service);
const ledger = computed(() => (service.value ? ledgerOf(service.value, props.state) : null));
const verdict = computed(() => (service.value ? judgeDrain(service.value, props.state) : null));
const expected = computed(() => {
  const facts = service.value;
  if (!facts) return null;
  return expectedDrains(facts)[props.state.service.drains.length] ?? null;
});
/** once every stand has given what it gives, and nobody has blown yet */
const blow = computed(() => {
  const facts = service.value;
  if (!facts?.blow || facts.kind === 'partial-drain') return null;
  return props.state.service.drains.length === facts.stands.length ? facts.blow : null;
});
const leftMl = computed(() => (service.value?.kind === 'partial-drain' ? null : (service.value?.leftMl ?? null)));
const astray = computed(() => verdict.value !== null && !['balances', 'cannot-tell'].includes(verdict.value.kind));
</script>

<template>
  <section v-if="service && ledger && verdict" class="drain">
    <p class="big-number" aria-live="polite">
      <template v-if="expected !== null && !locked"
        >{{ Math.round(expected / 5) * 5 }} <small class="estimate">mL should come now</small></template
      >
      <template v-else-if="ledger.insideMl !== null"
        >{{ Math.round(Math.max(0, ledger.insideMl)) }} <small>mL still inside, by the book</small></template
      >
      <template v-else>{{ Math.round(ledger.outMl) }} <small>mL came out</small></template>
    </p>
    <BookBar v-if="service.inside" :ledger="ledger" :start-ml="service.inside.volumeMl" :predicted-left-ml="leftMl" :colour="colour" />
    <p v-if="astray || state.service.drains.length > 0" :class="{ astray }" aria-live="polite">
      {{ asSentence(ledgerWords(verdict)) }}
    </p>
    <p v-if="service.kept" class="quiet">
      This loop keeps {{ formatMlWithSd(service.kept.volumeMl, service.kept.sdMl) }}, by
      {{ service.kept.drains === 1 ? 'its last drain' : `its last ${service.kept.drains} drains` }}.
    </p>
    <p v-if="blow && !locked" class="first">
      <span
        >Then a hand bulb at {{ openingIn(service, blow.air) }}, jug under {{ openingIn(service, blow.drain) }}, all else shut: about
        <b class="figures estimate">{{ formatMlWithSd(blow.likelyMl, blow.sdMl) }}</b> more. Gently, below
        {{ Math.min(FLUSH.mostGaugeKpa, procedure.facts?.mostGaugeKpa ?? FLUSH.mostGaugeKpa) }} kPa; never with the mouth.</span
      >
    </p>
    <p v-if="service.stands.length === 0" class="quiet">
      Heights of this loop are not on record, so nothing is predicted: drain at the lowest opening, then tilt, and measure.
    </p>
    <div v-if="!locked && wantsLevelFirst(state)" class="first">
      <p>Before anything is opened: how high does it stand? Nobody has looked since it was last here.</p>
      <LevelRead @send="emit('send', $event)" />
    </div>
    <CameOut v-if="!locked" step="drain" :expected-ml="expected ?? blow?.likelyMl ?? null" @send="emit('send', $event)" />
  </section>
</template>

<style scoped>
.drain {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.first {
  display: grid;
  gap: 8px;
  border-left: 5px solid var(--ink);
  padding-left: 12px;
}
.astray {
  border-left: 5px solid var(--ink);
  padding-left: 12px;
  font-weight: 620;
}
</style>
