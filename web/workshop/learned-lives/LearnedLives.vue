<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { computed, ref } from 'vue';
import { say } from '@core/base/words/say.js';
import { groupName, LIFE_BY_WORDS, lifeWords } from '@core/edge/words/lives.js';
import type { LivesAnswer, NamedGroup } from '@core/workshop/learned-lives/answers.js';
import { LIFE_GROUPS, type LifeGroupBy } from '@core/workshop/learned-lives/lifeGroups.js';
import { call, get, wordsOf } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import EarlyLots from './EarlyLots.vue';
import SurvivalChart from './SurvivalChart.vue';

/** How long fills last in this workshop: by class, coolant, lot, tube and metals, on one scale of months, the chosen one as a curve. */
defineProps<{ isLead: boolean }>();
const notices = useNotices();
const dates = useDates();
const { data: lives, problem, take } = usePage((signal) => get<LivesAnswer>('/learned-lives', signal));
const by = ref<LifeGroupBy>('product');
const chosen = ref<string | null>(null);
const busy = ref(false);
/** shares of fills that a workshop may let fail before their change */
const RISKS = [0.02, 0.05, 0.1, 0.2] as const;

const shown = computed(() => lives.value?.groups.filter((group) => group.by === by.value) ?? []);
const keyOf = ({ key, coolantClass }: NamedGroup): string => `${coolantClass} ${key}`;
const group = computed(() => shown.value.find((each) => keyOf(each) === chosen.value) ?? shown.value[0] ?? null);
const most = computed(() =>
  Math.max(6, ...shown.value.flatMap(({ oldestMonths, policyMonths, learned }) => [oldestMonths, policyMonths, learned?.months ?? 0])),
);
const left = (months: number): string => `${(100 * Math.min(months, most.value)) / most.value}%`;
const span = (from: number, to: number): { left: string; width: string } => ({
  left: left(from),
  width: `${(100 * (Math.min(to, most.value) - from)) / most.value}%`,
});

async function act(work: () => Promise<LivesAnswer>, words: string): Promise<void> {
  busy.value = true;
  try {
    take(await work());
    notices.say(words);
  } catch (error) {
    notices.say(wordsOf(error));
  } finally {
    busy.value = false;
  }
}
const setRisk = (risk: number): Promise<void> =>
  act(
    () => call<LivesAnswer>('PUT', '/learned-lives/risk', { body: { risk, version: lives.value?.version } }),
    say('Saved. Dates that rest on learned lives moved with it.'),
  );
const anew = (): Promise<void> =>
  act(() => call<LivesAnswer>('POST', '/learned-lives', { body: {} }), say('Worked out anew, and every date with it.'));
</script>

<template>
  <section class="stack">
    <header class="spread">
      <h2>How long it lasts here</h2>
      <p v-if="lives?.at" class="quiet figures">
        worked out {{ dates.day(lives.at) }}, every night
        <v-btn v-if="isLead" variant="text" :loading="busy" @click="anew">Work it out now</v-btn>
      </p>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <template v-if="lives">
      <EarlyLots :lots="lives.early" @changed="take" />
      <p v-if="lives.groups.length === 0" class="empty">
        {{ lives.at === null ? 'Nothing was worked out yet: it is done every night.' : 'No fill is on record yet.' }}
        Each fill is a life: it ends when somebody finds that it fell out, grew, bloomed or corroded, or it was still good when it came out.
        The more fail, the more the date of the next change rests on them and the less on what a class usually lasts.
        <v-btn v-if="isLead && lives.at === null" class="mt-3" :loading="busy" @click="anew">Work it out now</v-btn>
      </p>
      <template v-else>
        <div class="choices">
          <div class="row" role="group" aria-label="Fills put together by">
            <v-btn
              v-for="each in LIFE_GROUPS"
              :key="each"
              :variant="each === by ? 'flat' : 'outlined'"
              :aria-pressed="each === by"
              @click="by = each"
              >{{ say(LIFE_BY_WORDS[each]) }}</v-btn
            >
          </div>
          <div class="row risks" role="group" aria-label="Share that may fail before its change">
            <span class="quiet">may fail before its change</span>
            <v-btn
              v-for="risk in RISKS"
              :key="risk"
              :variant="risk === lives.risk ? 'flat' : 'outlined'"
              :aria-pressed="risk === lives.risk"
              :disabled="busy || !isLead"
              @click="setRisk(risk)"
              >{{ Math.round(100 * risk) }} %</v-btn
            >
          </div>
        </div>
        <div v-if="group" class="says">
          <p class="big-number">{{ group.learned ? grouped(group.learned.months, 1) : '–' }}<small v-if="group.learned"> months</small></p>
          <div>
            <p>
              <strong>{{ groupName(group) }}</strong><template v-if="group.learned"
                >, {{ grouped(group.learned.lowMonths, 1) }} months at the least</template
              >
            </p>
            <p class="quiet">{{ lifeWords(group) }}</p>
          </div>
        </div>
        <SurvivalChart v-if="group" :group="group" :risk="lives.risk" />
        <p v-if="shown.length === 0" class="quiet">No fill tells of this.</p>
        <ul class="plain-list rows">
          <li v-for="each in shown" :key="keyOf(each)">
            <button type="button" :aria-pressed="each === group" @click="chosen = keyOf(each)">
              <span class="name"
                ><i v-if="each.colour" class="liquid" :style="{ background: each.colour }" aria-hidden="true" />{{ groupName(each) }}</span
              >
              <span class="figures quiet">{{ each.failed }} of {{ each.fills }} failed</span>
              <span class="scale" aria-hidden="true">
                <i class="watched" :style="span(0, each.oldestMonths)" />
                <i v-if="each.learned" class="interval" :style="span(each.learned.lowMonths, each.learned.months)" />
                <i class="policy" :style="{ left: left(each.policyMonths) }" />
                <i v-if="each.learned" class="months" :style="{ left: left(each.learned.months) }" />
              </span>
              <span class="figures"
                ><b>{{ each.learned ? `${grouped(each.learned.months, 1)} months` : 'cannot tell yet' }}</b></span
              >
            </button>
          </li>
        </ul>
        <p class="key quiet">
          <span><i class="watched" /> oldest fill watched</span><span><i class="policy" /> by sheet or class</span
          ><span><i class="months" /> learned, with its lower end</span>
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 28px;
  justify-content: space-between;
}
.risks {
  align-items: center;
}
.says {
  display: flex;
  gap: 24px;
  align-items: center;
}
.says p {
  margin: 0;
}
.rows li {
  border-top: 1px solid var(--line-soft);
}
.rows button {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) 110px minmax(140px, 1fr) 124px;
  gap: 16px;
  align-items: center;
  width: 100%;
  min-height: 48px;
  text-align: left;
  padding: 4px 10px;
  border-left: 4px solid transparent;
}
.rows button[aria-pressed='true'] {
  border-left-color: var(--ink);
}
.name {
  overflow-wrap: anywhere;
}
.liquid {
  display: inline-block;
  width: 14px;
  height: 14px;
  margin-right: 10px;
  border: 1px solid var(--line);
  border-radius: 2px;
  vertical-align: -2px;
}
.scale {
  position: relative;
  height: 24px;
}
.scale i {
  position: absolute;
}
.watched {
  top: 10px;
  height: 4px;
  background: var(--line);
}
.interval {
  top: 9px;
  height: 6px;
  background: var(--ink);
  opacity: 0.5;
}
.policy {
  top: 2px;
  height: 20px;
  width: 0;
  border-left: 2px dashed var(--ink-soft);
}
.months {
  top: 4px;
  width: 4px;
  margin-left: -2px;
  height: 16px;
  background: var(--ink);
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
}
.key i {
  position: relative;
  display: inline-block;
  vertical-align: middle;
  margin-right: 8px;
  top: 0;
}
.key .watched {
  width: 26px;
}
.key .policy,
.key .months {
  height: 16px;
}
@media (max-width: 700px) {
  .rows button {
    grid-template-columns: minmax(0, 1fr) 124px;
  }
}
</style>
