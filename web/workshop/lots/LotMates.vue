<script setup lang="ts">
import type { MatesAnswer } from '@core/workshop/lots/answers.js';
import { ref, watch } from 'vue';
import { get, wordsOf } from '../../base/http/api.js';
import { useDates } from '../../base/units/dates.js';

/** Other machines that hold what is suspected: who to call. Each gets a finding and a day when the job is signed off. */
const props = defineProps<{ jobId: string; suspect: 'coolant-lot' | 'part'; item: string | null; done?: boolean }>();
const answer = ref<MatesAnswer | null>(null);
const problem = ref<string | null>(null);
const dates = useDates();

watch(
  () => [props.suspect, props.item] as const,
  async ([suspect, item]) => {
    answer.value = null;
    problem.value = null;
    if (suspect === 'part' && item === null) return;
    try {
      const query = new URLSearchParams({ suspect, ...(item === null ? {} : { item }) });
      const found = await get<MatesAnswer>(`/jobs/${props.jobId}/mates?${query.toString()}`);
      if (suspect === props.suspect && item === props.item) answer.value = found;
    } catch (error) {
      problem.value = wordsOf(error);
    }
  },
  { immediate: true },
);
</script>

<template>
  <div class="mates" aria-live="polite">
    <p v-if="problem" class="quiet">{{ problem }}</p>
    <template v-else-if="answer">
      <p v-if="answer.what === null" class="quiet">
        No lot of it is on record, so nobody can say who else holds one. Write lots down when parts are fitted.
      </p>
      <p v-else-if="answer.mates.length === 0">No other machine holds {{ answer.what }}.</p>
      <template v-else>
        <p>
          <strong>{{ answer.mates.length === 1 ? 'One other machine holds' : `${answer.mates.length} other machines hold` }}</strong>
          {{ answer.what }}{{ done ? '' : '; each is flagged at the sign-off' }}:
        </p>
        <ul class="plain-list">
          <li v-for="mate in answer.mates" :key="mate.systemId">
            <router-link :to="`/systems/${mate.systemId}`">{{ mate.systemName }}</router-link>
            <span>{{ mate.ownerName }}</span>
            <span class="figures">{{ mate.phone ?? '' }}</span>
            <span class="quiet figures">since {{ dates.day(mate.since) }}</span>
          </li>
        </ul>
      </template>
    </template>
  </div>
</template>

<style scoped>
.mates {
  width: 100%;
}
p {
  margin: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  padding: 4px 0;
  border-top: 1px solid var(--line-soft);
}
</style>
