<script setup lang="ts">
import { groupedUpTo } from '@core/base/units/display.js';
import { BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import type { ScopeAdvice } from '@core/workshop/jobs/scope.js';
import type { Priced } from '@core/workshop/prices/priced.js';
import { totalWords } from '@core/edge/words/prices.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';

/** What the take-in comes to, always in sight: the job, its hours, its price, and why; its one button beside it. */
const props = defineProps<{
  kind: BookedKind;
  hours: number | null;
  price: Priced | null;
  /** null: a build, which nothing advises */ advice: ScopeAdvice | null;
}>();
const big = computed(() =>
  [
    capital(say(BOOKED_KINDS[props.kind].label)),
    props.hours === null ? '' : `${groupedUpTo(props.hours, 2)} h`,
    props.price ? totalWords(props.price) : '',
  ]
    .filter(Boolean)
    .join(' · '),
);
const why = computed(() =>
  props.advice === null
    ? say('with what is in its drawing; what builds took here says more as soon as there are three')
    : props.kind === props.advice.kind
      ? say('because {reasons}', { reasons: props.advice.reasons[0] ?? '' })
      : say('chosen by hand; the lightest that is safe is {label}', { label: sayWord(BOOKED_KINDS[props.advice.kind].label) }),
);
</script>

<template>
  <section class="verdict" aria-label="What it comes to" aria-live="polite">
    <p>
      <strong class="figures">{{ big }}</strong> <span>{{ why }}</span>
    </p>
    <div class="row"><slot /></div>
  </section>
</template>

<style scoped>
.verdict {
  position: sticky;
  z-index: 5;
  bottom: var(--edge-height);
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px 24px;
  align-items: center;
  background: var(--sheet);
  border-top: 3px solid var(--ink);
  padding: 10px 16px;
}
.verdict p {
  margin: 0;
}
strong {
  display: block;
  font-size: 1.35rem;
}
@media (max-width: 700px) {
  .verdict {
    grid-template-columns: 1fr;
    padding: 8px 10px;
  }
  strong {
    font-size: 1.1rem;
  }
}
</style>
