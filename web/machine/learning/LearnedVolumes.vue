<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { digitsIn, formatIn, formatMl, grouped } from '@core/base/units/display.js';
import type { TaughtVerdict } from '@core/physics/learning/answers.js';
import type { GasPlace } from '@core/physics/learning/gasByStand.js';
import { computed, onMounted, ref } from 'vue';
import { wordsOf } from '../../base/http/api.js';
import { useDates } from '../../base/units/dates.js';
import { useLearned } from './learnedStore.js';

/** Prior and learned volume of every catalogue part that signed-off fills hold, drawn on one scale. */
defineProps<{ isLead?: boolean }>();
const learned = useLearned();
const dates = useDates();
const problem = ref<string | null>(null);
onMounted(() => learned.load().catch((error: unknown) => (problem.value = wordsOf(error))));

const busy = ref(false);
async function judge(id: string, verdict: TaughtVerdict | null): Promise<void> {
  busy.value = true;
  try {
    await learned.judge(id, verdict);
    problem.value = null;
  } catch (error) {
    problem.value = wordsOf(error);
  } finally {
    busy.value = false;
  }
}

const STANDS: Readonly<Record<GasPlace, string>> = {
  flat: 'radiators lying flat',
  'ports-up': 'radiators with ports at the top',
  'ports-aside': 'radiators with ports half-way up',
  'ports-down': 'radiators with ports at the bottom',
  unknown: 'radiators drawn without a box',
  elsewhere: 'everywhere else',
};
const gasWords = computed(() =>
  // the radiators first
  [...learned.gas.filter(({ place }) => place !== 'elsewhere'), ...learned.gas.filter(({ place }) => place === 'elsewhere')].map(
    ({ place, learned: { mean, sd } }) => ({
      place,
      words: say(STANDS[place]),
      figure:
        place === 'elsewhere' ? `${digitsIn('mL', mean)} ± ${formatIn('mL', sd)}` : `${grouped(100 * mean, 1)} ± ${grouped(100 * sd, 1)} %`,
    }),
  ),
);
/** the sheets count as further off than was thought from here */
const WORTH_SAYING = 1.3;

const most = computed(() =>
  Math.max(1, ...learned.items.map(({ prior, learned: now }) => Math.max(prior.volumeMl + prior.sdMl, now.volumeMl + now.sdMl))),
);
const left = (ml: number): string => `${Math.max(0, (100 * ml) / most.value)}%`;
</script>

<template>
  <section class="mt-10">
    <h2>Volumes learned from {{ learned.fills }} signed-off first fills</h2>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <div v-if="learned.asked.length" class="asked">
      <p>
        <strong
          >{{ learned.asked.length === 1 ? 'One fill is' : `${learned.asked.length} fills are` }} too far from all others to learn
          from.</strong
        >
        <span class="quiet"> A jug misread, a part that is not as drawn, liquid lost: look at the record, then say.</span>
      </p>
      <ul class="plain-list">
        <li v-for="fill in learned.asked" :key="fill.id">
          <router-link :to="fill.runId ? `/runs/${fill.runId}/record` : `/systems/${fill.system.id}`">{{ fill.system.name }}</router-link>
          <span class="figures quiet">{{ dates.day(fill.filledOn) }}</span>
          <span class="figures"
            ><b>{{ formatMl(Math.abs(fill.byMl)) }} {{ fill.byMl > 0 ? 'more' : 'less' }}</b> than its parts hold by all others</span
          >
          <span v-if="isLead" class="answers">
            <template v-if="fill.verdict === null">
              <v-btn
                variant="outlined"
                :disabled="busy"
                :aria-label="`It counts: ${fill.system.name}, ${dates.day(fill.filledOn)}`"
                @click="judge(fill.id, 'counts')"
                >It counts</v-btn
              >
              <v-btn
                variant="text"
                :disabled="busy"
                :aria-label="`Leave it out: ${fill.system.name}, ${dates.day(fill.filledOn)}`"
                @click="judge(fill.id, 'left-out')"
                >Leave it out</v-btn
              >
            </template>
            <template v-else
              ><span class="quiet">left out</span>
              <v-btn variant="text" :disabled="busy" @click="judge(fill.id, null)">Ask again</v-btn></template
            >
          </span>
        </li>
      </ul>
    </div>
    <p v-if="!problem && learned.items.length === 0" class="quiet mt-2">
      Nothing yet. Every commissioning of a dry loop that is signed off with its level read narrows the volumes of its parts; the next plan
      begins with them.
    </p>
    <template v-if="!problem && learned.items.length > 0">
      <p class="quiet">
        Open bar: general estimate. Solid: learned, one standard deviation either way. New parts are added with the learned volume.
      </p>
      <ul class="plain-list rows">
        <li v-for="item in learned.items" :key="item.key">
          <span>{{ sayWord(item.label) }}</span>
          <span class="scale" aria-hidden="true">
            <i class="prior" :style="{ left: left(item.prior.volumeMl - item.prior.sdMl), width: left(2 * item.prior.sdMl) }" />
            <i class="now" :style="{ left: left(item.learned.volumeMl - item.learned.sdMl), width: left(2 * item.learned.sdMl) }" />
          </span>
          <span class="figures"
            ><b>{{ digitsIn('mL', item.learned.volumeMl) }} ± {{ formatIn('mL', item.learned.sdMl, item.learned.sdMl < 10 ? 1 : 0) }}</b>
            <span class="quiet"> was {{ digitsIn('mL', item.prior.volumeMl) }} ± {{ digitsIn('mL', item.prior.sdMl) }}</span></span
          >
          <span class="quiet figures">{{ item.fills }} {{ item.fills === 1 ? 'fill' : 'fills' }}</span>
        </li>
      </ul>
      <p v-if="learned.wider >= WORTH_SAYING" class="mt-3">
        The makers’ sheets are further off than was thought (about {{ grouped(learned.wider, 1) }} times), so all of them count for less.
      </p>
      <p class="quiet mt-3">
        Air that stays in a bled loop, which no volume is learned from:
        <span v-for="(each, index) in gasWords" :key="each.place" class="figures"
          >{{ index > 0 ? ', ' : '' }}{{ each.words }} <b>{{ each.figure }}</b></span
        >.
      </p>
    </template>
  </section>
</template>

<style scoped>
.rows {
  margin-top: 8px;
}
.rows li {
  display: grid;
  grid-template-columns: 250px 1fr 260px 70px;
  gap: 18px;
  align-items: center;
  padding: 7px 0;
  border-top: 1px solid var(--line-soft);
}
.asked {
  margin: 8px 0 18px;
  border-left: 5px solid var(--ink);
  padding-left: 12px;
}
.asked p {
  margin: 0;
}
.asked li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
  padding: 6px 0;
}
.answers {
  margin-left: auto;
}
.scale {
  position: relative;
  height: 20px;
}
.scale i {
  position: absolute;
  min-width: 3px;
}
.prior {
  top: 2px;
  bottom: 2px;
  border: 1.5px solid var(--ink-soft);
}
.now {
  top: 6px;
  bottom: 6px;
  background: var(--ink);
}
@media (max-width: 900px) {
  .rows li {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
