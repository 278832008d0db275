<script setup lang="ts">
import type { RunState } from '@core/bench/runs/state.js';
import { useLimitWords } from '@core/edge/words/dates.js';
import { OWED } from '@core/workshop/due-dates/owed.js';
import { useDates } from '../../base/units/dates.js';

/** What stays open after this run, as far as it was said. */
defineProps<{ state: RunState }>();
const dates = useDates();
</script>

<template>
  <ul v-if="state.service.temporaryFixes.length + state.owed.length" class="plain-list" aria-label="What stays open">
    <li v-for="fix in state.service.temporaryFixes" :key="fix.eventId">
      <strong>Holds for now: {{ fix.what }}</strong> until {{ fix.awaits }}, by {{ dates.day(fix.until) }};
      {{ useLimitWords(fix.limits) }}
    </li>
    <li v-for="each in state.owed" :key="each.eventId">
      <strong>{{ OWED[each.kind] }}: {{ each.what }}</strong
      >, by {{ dates.day(each.until) }}
    </li>
  </ul>
</template>

<style scoped>
li {
  border-left: 5px solid var(--ink);
  padding: 4px 0 4px 12px;
  margin-bottom: 6px;
}
</style>
