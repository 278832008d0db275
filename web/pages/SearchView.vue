<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { HIT_KINDS, type Hit, type HitKind } from '@core/workshop/search/answers.js';
import { computed, ref, watch } from 'vue';
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useDates } from '../base/units/dates.js';

/** One field for everything: machines, owners, jobs, findings, notes of the bench, lots, parts, photographs, the shelf. */
const route = useRoute();
const router = useRouter();
const dates = useDates();
const words = ref<string | null>(typeof route.query.q === 'string' ? route.query.q : '');
/** the words that were asked last; null: too few of them */
const asked = ref<string | null>(null);
const { data, problem } = usePage(
  (signal) => get<{ hits: Hit[] }>(`/search?q=${encodeURIComponent(asked.value ?? '')}`, signal).then((answer) => answer.hits),
  asked,
);
const hits = computed(() => (asked.value === null ? null : data.value));
const GROUPS: Record<HitKind, string> = {
  system: 'Machines and owners',
  job: 'Jobs',
  finding: 'Findings',
  note: 'Notes from the bench',
  lot: 'Lots, where they are inside',
  part: 'Parts in machines',
  photograph: 'Photographs',
  shelf: 'Store',
};
const groups = computed(() =>
  HIT_KINDS.map((kind) => ({
    kind,
    title: say(GROUPS[kind]),
    hits: (hits.value ?? []).filter((hit) => hit.kind === kind),
  })).filter((group) => group.hits.length > 0),
);
/** ms after the last letter before it is asked */
const PAUSE_MS = 250;
let timer: number | undefined;
function ask(): void {
  const q = (words.value ?? '').trim();
  asked.value = q.length < 2 ? null : q;
  if (asked.value !== null) void router.replace({ query: { q } });
}
watch(words, () => {
  window.clearTimeout(timer);
  timer = window.setTimeout(ask, PAUSE_MS);
});
ask();
// whoever presses a hit while the words still wait goes there
onBeforeRouteLeave(() => window.clearTimeout(timer));
</script>

<template>
  <main class="page">
    <h1 class="mb-4">Search</h1>
    <v-text-field v-model="words" label="A name, a lot, a word of a note" autofocus clearable class="field" />
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <p v-else-if="hits === null" class="quiet">
      Everything that was ever written down is found here: “white paste” finds the machine that had it, a lot’s number every machine that
      holds it.
    </p>
    <p v-else-if="hits.length === 0" role="status">Nothing holds “{{ words }}”. Try a shorter piece of the word.</p>
    <section v-for="group in groups" :key="group.kind">
      <h2>{{ group.title }}</h2>
      <ul class="plain-list">
        <li v-for="(hit, index) in group.hits" :key="index">
          <router-link :to="hit.to"
            ><strong>{{ hit.title }}</strong></router-link
          >
          <span>{{ hit.text }}</span>
          <span class="quiet figures">{{ hit.at ? dates.day(hit.at) : '' }}</span>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.field {
  max-width: 560px;
}
section {
  margin-top: 18px;
}
li {
  display: grid;
  grid-template-columns: 240px 1fr auto;
  gap: 18px;
  padding: 7px 0;
  border-top: 1px solid var(--line-soft);
}
@media (max-width: 800px) {
  li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
