<script setup lang="ts">
import { useSession } from '../workshop/people/sessionStore.js';
import KeyCap from '../base/keys/KeyCap.vue';
import { computed, nextTick, ref } from 'vue';
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router';
import { ATTENTION_WORDS, type Attention } from '@core/workshop/due-dates/attention.js';
import { useShortcuts } from '../base/keys/shortcuts.js';
import { AHEAD_MONTHS, PAST_MONTHS } from '../workshop/machines/lifeScale.js';
import LifeRow from '../workshop/machines/LifeRow.vue';
import ListDownload from '../workshop/machine-list/ListDownload.vue';
import type { LinesAsked } from '../workshop/machine-list/linesPath.js';
import { useLines } from '../workshop/machine-list/useLines.js';

const route = useRoute();
const router = useRouter();
const words = ref(typeof route.query.q === 'string' ? route.query.q : '');
/** the words that were asked for last */
const asked = ref(words.value);
const only = ref<Attention | null>(null);
const what = computed((): LinesAsked => ({ q: asked.value.trim(), attention: only.value }));
const { lines, first, hasMore, loading, problem, more, load } = useLines(() => what.value);
const today = computed(() => first.value?.today ?? '');
const counts = computed(() => Object.entries(first.value?.counts ?? {}) as [Attention, number][]);
const all = computed(() => counts.value.reduce((sum, [, count]) => sum + count, 0));
const found = computed(() => first.value?.found ?? 0);
const search = ref<{ focus: () => void } | null>(null);
const months = Array.from({ length: (PAST_MONTHS + AHEAD_MONTHS) / 3 + 1 }, (_, index) => index * 3 - PAST_MONTHS).map((month) => ({
  month,
  at: ((month + PAST_MONTHS) / (PAST_MONTHS + AHEAD_MONTHS)) * 100,
}));

/** ms after the last letter before it is asked */
const PAUSE_MS = 150;
let timer: number | undefined;
function remember(value: string | null): void {
  words.value = value ?? '';
  window.clearTimeout(timer);
  timer = window.setTimeout(() => {
    asked.value = words.value;
    void router.replace({ query: words.value ? { q: words.value } : {} });
  }, PAUSE_MS);
}
// whoever presses a machine while the words still wait goes there
onBeforeRouteLeave(() => window.clearTimeout(timer));

useShortcuts({ 'search-systems': () => void nextTick(() => search.value?.focus()) });
const session = useSession();
</script>

<template>
  <main class="page">
    <header class="spread">
      <h1>Machines</h1>
      <div class="row">
        <ListDownload v-if="found > 0" :asked="what" :today="today" :found="found" />
        <v-btn v-if="session.may('desk')" variant="outlined" size="large" to="/systems/import">From a table</v-btn>
        <v-btn v-if="session.may('desk')" size="large" to="/systems/new">New machine <KeyCap action="new-system" /></v-btn>
      </div>
    </header>

    <div class="finder">
      <v-text-field
        ref="search"
        :model-value="words"
        label="Name, owner, phone, coolant"
        clearable
        hide-details
        autocomplete="off"
        @update:model-value="remember"
      />
      <div class="filters" role="group" aria-label="Show only">
        <button type="button" :aria-pressed="only === null" @click="only = null">
          all <b class="figures">{{ all }}</b>
        </button>
        <button
          v-for="[attention, count] in counts"
          :key="attention"
          type="button"
          :aria-pressed="only === attention"
          @click="only = only === attention ? null : attention"
        >
          {{ ATTENTION_WORDS[attention] }} <b class="figures">{{ count }}</b>
        </button>
      </div>
    </div>

    <p v-if="problem" role="alert" class="danger">{{ problem }} <v-btn size="small" @click="load">Try again</v-btn></p>
    <template v-if="first && all > 0">
      <p v-if="asked.trim()" class="quiet figures" role="status">{{ found }} of {{ all }} found</p>
      <div class="axis quiet figures" aria-hidden="true">
        <span v-for="each in months" :key="each.month" :style="{ left: `${each.at}%` }">{{
          each.month === 0 ? 'today' : `${each.month > 0 ? '+' : '−'}${Math.abs(each.month)} mo`
        }}</span>
      </div>
      <div role="list" aria-label="Machines, most urgent first" :aria-busy="loading">
        <!-- only what is seen stands in the page: a list of ten thousand scrolls like one of fifty -->
        <v-virtual-scroll renderless :items="lines" item-key="id">
          <template #default="{ item, index, itemRef }">
            <div :ref="itemRef" role="listitem" :aria-posinset="index + 1" :aria-setsize="found">
              <LifeRow :line="item" :today="today" />
            </div>
          </template>
        </v-virtual-scroll>
      </div>
      <div
        v-if="hasMore"
        v-intersect="{ handler: (isSeen: boolean) => isSeen && more(), options: { rootMargin: '1200px' } }"
        class="row mt-4"
      >
        <v-btn variant="text" :loading="loading" @click="more">More of {{ found }}</v-btn>
      </div>
      <p v-if="lines.length === 0" class="mt-6">
        Nothing matches.
        <button
          type="button"
          class="link"
          @click="
            remember('');
            only = null;
          "
        >
          Show all {{ all }}
        </button>
      </p>
    </template>
    <section v-else-if="first" class="mt-8 first">
      <p>
        Each machine has one owner. Enter it with its owner, then lay out its loop from generic parts in flow order: volume, coolant to
        order and fill plan appear as you go.
      </p>
      <v-btn size="x-large" class="mt-4" to="/systems/new">Enter the first machine</v-btn>
    </section>
  </main>
</template>

<style scoped>
/* what stands here is the answer to the question before */
[aria-busy='true'] {
  opacity: 0.55;
  transition: opacity 80ms 120ms;
}
.finder {
  display: grid;
  grid-template-columns: minmax(240px, 300px) 1fr;
  gap: 22px;
  align-items: center;
  margin: 20px 0 22px;
}
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
}
.filters button {
  padding: 9px 12px;
  border-bottom: 3px solid transparent;
  color: var(--ink-soft);
}
.filters button[aria-pressed='true'] {
  color: var(--ink);
  border-color: var(--ink);
  font-weight: 620;
}
.filters b {
  font-weight: 420;
}
.axis {
  position: relative;
  height: 22px;
  font-size: 0.82rem;
  margin-left: calc(12px + (100% - 24px - 610px) * 1.3 / 3.3 + 182px);
  width: calc((100% - 24px - 610px) * 2 / 3.3);
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
  white-space: nowrap;
}
.link {
  text-decoration: underline;
}
.first {
  max-width: 62ch;
  font-size: 1.15rem;
}
@media (max-width: 1000px) {
  .finder {
    grid-template-columns: 1fr;
  }
  .axis {
    display: none;
  }
}
</style>
