<script setup lang="ts">
import { formatIn, formatMl, formatSpan } from '@core/base/units/display.js';
import { capital, say } from '@core/base/words/say.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { swings } from '@core/machine/loop-file/swing.js';
import { BOOKED_KINDS, type JobKind } from '@core/workshop/job-kinds/kinds.js';
import { usualHours } from '@core/workshop/jobs/usualHours.js';
import { WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import type { DrainPolicy } from '@core/physics/draining/defaults.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import { computed } from 'vue';
import { useTwin, useTwinAnswer } from '../compute/useTwin.js';

/** What this design asks of whoever looks after it: hours of its usual services, and what its tubes let a block swing. */
const props = withDefaults(
  defineProps<{
    loop: LoopFile;
    liquid?: Liquid;
    /** the workshop's own, as "What drains" goes by; null: the loop was not saved yet */
    policy?: DrainPolicy | null;
    inside?: InsideNow | null;
  }>(),
  { liquid: () => WATER, policy: null, inside: null },
);
const twin = useTwin(
  () => (props.policy ? props.loop : null),
  () => props.liquid,
);
/** the plan of "What drains": what it leaves belongs to the design */
const drained = useTwinAnswer(
  twin,
  () =>
    props.policy ? { standing: props.inside?.standing ?? null, policy: { ...props.policy, mayTurn: [...props.policy.mayTurn] } } : null,
  async ({ standing, policy }) => (await twin.engine.advise(standing, policy)).plan,
);
const SERVICES: readonly JobKind[] = ['drain-refill', 'flush-refill', 'partial-drain', 'strip-clean'];
/** mm from which a block is cleaned and pasted beside its place without undoing a joint (workshop practice) */
const SWINGS_FREE_MM = 60;
const hours = computed(() => SERVICES.map((kind) => ({ kind, hours: usualHours(kind, props.loop) })));
const most = computed(() => Math.max(1, ...hours.value.map(({ hours: each }) => each)));
const blocks = computed(() =>
  swings(props.loop).map(({ part, mm }) => ({
    id: part.id,
    words:
      mm === null
        ? say('{name}: its tubes give nothing, it comes out of the loop for new paste', { name: shortName(part) })
        : mm >= SWINGS_FREE_MM
          ? say('{name}: swings {mm} on its tubes, paste is renewed with the loop closed', {
              name: shortName(part),
              mm: formatIn('mm', mm),
            })
          : say('{name}: swings {mm} on its tubes, too little to work under it', { name: shortName(part), mm: formatIn('mm', mm) }),
  })),
);
</script>

<template>
  <section>
    <h2>To live with</h2>
    <dl class="hours">
      <template v-for="each in hours" :key="each.kind">
        <dt>{{ capital(say(BOOKED_KINDS[each.kind].short)) }}</dt>
        <dd>
          <b :style="{ width: `${(100 * each.hours) / most}%` }" aria-hidden="true" /><span class="figures estimate">{{
            formatSpan(each.hours * 3600)
          }}</span>
        </dd>
      </template>
    </dl>
    <p v-if="drained && drained.stages.length > 0" class="left">
      <b class="figures">{{ formatMl(Math.round(drained.leftMl)) }}</b> stay after the best drain,
      {{ drained.stages.length === 1 ? 'in one stand' : `in ${drained.stages.length} stands` }}
      <span class="bar" aria-hidden="true"><i :style="{ width: `${(100 * drained.leftMl) / Math.max(1, drained.wholeMl)}%` }" /></span>
      <span class="quiet estimate">of {{ formatMl(Math.round(drained.wholeMl)) }}, as “What drains” advises it</span>
    </p>
    <ul v-if="blocks.length > 0" class="plain-list">
      <li v-for="block in blocks" :key="block.id">{{ block.words }}</li>
    </ul>
    <p class="quiet">Hours with hands, by what is in this machine (workshop practice, estimates).</p>
  </section>
</template>

<style scoped>
.hours {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 12px;
  margin: 6px 0;
}
.hours dd {
  display: grid;
  grid-template-columns: 1fr max-content;
  gap: 8px;
  align-items: center;
  margin: 0;
}
.hours b {
  height: 8px;
  background: var(--ink-soft);
}
.left {
  margin: 6px 0;
}
.bar {
  display: block;
  height: 10px;
  border: 1.5px solid var(--ink);
  margin: 3px 0;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
p {
  margin: 0;
}
</style>
