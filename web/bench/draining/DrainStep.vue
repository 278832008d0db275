<script setup lang="ts">
import { unitName } from '@core/base/units/shown.js';
import { ledgerWords } from '@core/edge/words/bench.js';
import { asSentence, say } from '@core/base/words/say.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { ledgerOf, expectedDrains, judgeDrain } from '@core/bench/runs/contents.js';
import { openingIn } from '@core/bench/runs/facts.js';
import { FLUSH } from '@core/machine/liquids/rinsing.js';
import { wantsLevelFirst } from '@core/bench/runs/book.js';
import { digitsIn, formatAtMost, formatMlWithSd } from '@core/base/units/display.js';
import { computed, ref } from 'vue';
import { stepOfKind, type Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import JugLimit from '../frame/JugLimit.vue';
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
/** its reservoir shows no level, or nobody gets to see it */
const unread = ref(false);
const levelFirst = computed(() => wantsLevelFirst(props.state) && !unread.value);
/** what the hands do next: the next line of the stand, as the list beside it has it */
const nextLine = computed(() => {
  const step = stepOfKind(props.procedure, 'drain');
  const marks = props.state.steps.find(({ id }) => id === step?.id)?.checks ?? {};
  return step?.checks.find(({ id }) => (marks[id]?.mark ?? 'open') === 'open')?.text ?? null;
});
const order = computed(() => (levelFirst.value ? say('How high does it stand?') : (nextLine.value ?? say('Enter what came out'))));
const how = computed(() =>
  levelFirst.value
    ? say('Before anything is opened: nobody has looked since it was last here.')
    : (stepOfKind(props.procedure, 'drain')?.lead ?? ''),
);
const astray = computed(() => verdict.value !== null && !['balances', 'cannot-tell'].includes(verdict.value.kind));
</script>

<template>
  <section v-if="service && ledger && verdict" class="drain">
    <FrameOrder v-if="!locked" :say="order" :how="how" />
    <FrameFigure
      v-if="expected !== null && !locked"
      :value="digitsIn('mL', Math.round(expected / 5) * 5)"
      :unit="`${unitName('mL')} should come now`"
      estimate
    />
    <FrameFigure
      v-else-if="ledger.insideMl !== null"
      :value="digitsIn('mL', Math.max(0, ledger.insideMl))"
      :unit="`${unitName('mL')} still inside, by the book`"
    />
    <FrameFigure v-else :value="digitsIn('mL', ledger.outMl)" :unit="`${unitName('mL')} came out`" />
    <FramePart at="limit"><JugLimit :expected-ml="locked ? null : expected" :came-ml="ledger.outMl" :colour="colour" /></FramePart>
    <FramePart v-if="service.inside" at="so-far">
      <BookBar :ledger="ledger" :start-ml="service.inside.volumeMl" :predicted-left-ml="leftMl" :colour="colour" />
    </FramePart>
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
        {{ formatAtMost('kPa', Math.min(FLUSH.mostGaugeKpa, procedure.facts?.mostGaugeKpa ?? FLUSH.mostGaugeKpa)) }}; never with the
        mouth.</span
      >
    </p>
    <p v-if="service.stands.length === 0" class="quiet">
      Heights of this loop are not on record, so nothing is predicted: drain at the lowest opening, then tilt, and measure.
    </p>
    <button
      v-if="!locked && state.service.drains.length > 0 && state.service.blownByMouth.length === 0"
      type="button"
      class="link quiet"
      @click="emit('send', { type: 'blown', step: 'drain' })"
    >
      It was blown through by mouth
    </button>
    <FramePart v-if="!locked" at="act">
      <div v-if="levelFirst">
        <LevelRead @send="emit('send', $event)" />
        <button type="button" class="link" @click="unread = true">It cannot be read here</button>
      </div>
      <CameOut v-else step="drain" :expected-ml="expected ?? blow?.likelyMl ?? null" @send="emit('send', $event)" />
    </FramePart>
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
