<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { WEAR_MONTHS } from '@core/workshop/due-dates/defaults.js';
import type { RingAge } from '@core/machine/seals/rings.js';
import { computed } from 'vue';
import { get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useDates } from '../../base/units/dates.js';

/** How old each ring and gasket is, against the age at which they are renewed: the oldest first. */
const props = defineProps<{ loopId: string }>();
const { data } = usePage(
  (signal) => get<{ rings: RingAge[] }>(`/loops/${props.loopId}/rings`, signal),
  () => props.loopId,
);
const rings = computed(() => data.value?.rings ?? []);
const dates = useDates();
const DAYS_A_MONTH = 30.44;
const mostDays = WEAR_MONTHS.seals * DAYS_A_MONTH;
/** rings of one day and kind of place are one line */
const groups = computed(() => {
  const bySince = new Map<string | null, RingAge[]>();
  for (const ring of rings.value) bySince.set(ring.since, [...(bySince.get(ring.since) ?? []), ring]);
  return [...bySince].map(([since, rings]) => ({ since, days: rings[0]?.days ?? null, names: rings.map(({ place }) => place.name) }));
});
const ageWords = (days: number | null): string =>
  days === null
    ? say('nobody knows')
    : days < DAYS_A_MONTH * 2
      ? say('{days} days', { days })
      : days < 730
        ? say('{months} months', { months: Math.round(days / DAYS_A_MONTH) })
        : say('{years} years', { years: grouped(days / 365.25, 1) });
</script>

<template>
  <section v-if="rings.length > 0">
    <h2>Rings and gaskets</h2>
    <ul class="plain-list">
      <li v-for="group in groups" :key="group.since ?? ''">
        <p class="head">
          <b>{{ ageWords(group.days) }}</b><span v-if="group.since" class="quiet">since {{ dates.day(group.since) }}</span>
        </p>
        <span class="track" aria-hidden="true"
          ><i :class="{ over: (group.days ?? 0) > mostDays }" :style="{ width: `${Math.min(100, (100 * (group.days ?? 0)) / mostDays)}%` }"
        /></span>
        <p class="quiet">{{ group.names.join(' · ') }}</p>
      </li>
    </ul>
    <p class="quiet">The bar’s end is {{ WEAR_MONTHS.seals / 12 }} years, when rings are renewed (workshop practice).</p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
p {
  margin: 2px 0;
}
li {
  padding: 4px 0;
}
.track {
  display: block;
  height: 8px;
  background: var(--well);
}
.track i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.track i.over {
  background: var(--danger);
}
</style>
