<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import type { FirstStep, FirstWeekAnswer } from '@core/workshop/first-week/firstWeek.js';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { call, get, wordsOf } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useNotices } from '../../base/shell/notices.js';
import { useBenches } from '../../bench/benches/benchStore.js';
import { STEP_WORDS } from './stepWords.js';

/** An empty workshop is led: what is there, what is still missing, and the next thing to do, done here. Gone once nothing is missing. */
// each step's form comes when it is its turn: a workshop that is all there needs none
const FirstAddress = defineAsyncComponent(() => import('./FirstAddress.vue'));
const FirstBenches = defineAsyncComponent(() => import('./FirstBenches.vue'));
const FirstCoolants = defineAsyncComponent(() => import('./FirstCoolants.vue'));
const FirstHours = defineAsyncComponent(() => import('./FirstHours.vue'));
const FirstPrice = defineAsyncComponent(() => import('./FirstPrice.vue'));
const emit = defineEmits<{ changed: []; /** what it shows is known, or cannot be */ settled: [] }>();
const notices = useNotices();
const benchStore = useBenches();
const { data: week, load, take, settled } = usePage((signal) => get<FirstWeekAnswer>('/first-week', signal));
watch(settled, () => emit('settled'));
const chosen = ref<FirstStep | null>(null);
const missing = computed(() => (week.value?.steps ?? []).filter(({ state }) => state === 'missing').map(({ step }) => step));
const now = computed<FirstStep | null>(() =>
  chosen.value && missing.value.includes(chosen.value) ? chosen.value : (missing.value[0] ?? null),
);

async function done(): Promise<void> {
  chosen.value = null;
  await Promise.all([load(), benchStore.refresh()]);
  emit('changed');
}
async function pass(step: FirstStep): Promise<void> {
  const before = (week.value?.steps ?? []).filter(({ state }) => state === 'passed').map(({ step: each }) => each);
  const put = async (passed: readonly FirstStep[]): Promise<void> =>
    take(await call<FirstWeekAnswer>('PUT', '/first-week', { body: { passed } }));
  try {
    await put([...before, step]);
    notices.say(say('{title}: nothing is needed.', { title: sayWord(STEP_WORDS[step].title) }), () => put(before));
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
async function addSample(): Promise<void> {
  try {
    take(await call<FirstWeekAnswer>('POST', '/first-week/sample', { body: {} }));
    notices.say(say('The sample stands among your machines.'));
    emit('changed');
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
async function dropSample(importId: string): Promise<void> {
  try {
    const { kept } = await call<{ kept: string[] }>('POST', `/imports/${importId}/undo`, { body: {} });
    notices.say(kept.length === 0 ? say('The sample is gone.') : say('A run was led on the sample: it stays, and can be retired.'));
    await done();
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
</script>

<template>
  <section v-if="week && now" class="first-week" aria-label="The first week">
    <header>
      <p class="big-number">
        {{ week.steps.length - missing.length }} <small>of {{ week.steps.length }} there: your first week</small>
      </p>
      <ol class="plain-list">
        <li v-for="{ step, state } in week.steps" :key="step" :class="state">
          <button v-if="state === 'missing'" type="button" :aria-current="now === step ? 'step' : undefined" @click="chosen = step">
            {{ STEP_WORDS[step].title }}
          </button>
          <span v-else>✓ {{ STEP_WORDS[step].title }}</span>
        </li>
      </ol>
    </header>
    <div class="now">
      <h2>{{ STEP_WORDS[now].title }}</h2>
      <p>{{ STEP_WORDS[now].why }}</p>
      <FirstBenches v-if="now === 'benches'" @done="done" />
      <p v-else-if="now === 'people'"><v-btn size="large" to="/workshop/people">Enter the people</v-btn></p>
      <FirstHours v-else-if="now === 'hours'" @done="done" />
      <FirstCoolants v-else-if="now === 'coolants'" @done="done" />
      <div v-else-if="now === 'machines'" class="row">
        <v-btn size="large" to="/systems/import">Bring a table in</v-btn>
        <v-btn size="large" to="/systems/new">Enter the first machine</v-btn>
        <v-btn v-if="!week.sample" size="large" variant="outlined" @click="addSample">Try a sample</v-btn>
      </div>
      <FirstAddress v-else-if="now === 'address'" @done="done" />
      <FirstPrice v-else @done="done" />
      <p class="last">
        <button type="button" class="link" @click="pass(now)">{{ STEP_WORDS[now].pass }}</button>
        <template v-if="week.sample">
          <router-link :to="`/systems/${week.sample.systemId}`">The sample tower</router-link>
          <button type="button" class="link" @click="dropSample(week.sample.importId)">take the sample away</button>
        </template>
      </p>
    </div>
  </section>
</template>

<style scoped>
.first-week {
  display: grid;
  grid-template-columns: minmax(230px, 300px) minmax(0, 1fr);
  gap: 36px;
  border-top: 4px solid var(--ink);
  border-bottom: 1px solid var(--line);
  padding: 14px 0 18px;
  margin: 12px 0 26px;
}
.first-week .big-number {
  margin: 0 0 8px;
}
.first-week .big-number small {
  display: block;
  line-height: 1.25;
}
li {
  min-height: 40px;
  display: flex;
  align-items: center;
}
li button {
  min-height: 40px;
  width: 100%;
  text-align: left;
  padding-left: 12px;
  border-left: 4px solid var(--line);
}
li [aria-current='step'] {
  border-left-color: var(--ink);
  font-weight: 680;
}
li.done,
li.passed {
  color: var(--ink-soft);
  padding-left: 16px;
  min-height: 30px;
}
.now {
  display: grid;
  gap: 10px;
  align-content: start;
  max-width: 760px;
}
.now p {
  margin: 0;
}
.last {
  display: flex;
  gap: 22px;
  flex-wrap: wrap;
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
@media (max-width: 800px) {
  .first-week {
    grid-template-columns: 1fr;
    gap: 14px;
  }
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: 0 8px;
  }
  li button {
    padding-right: 12px;
  }
}
</style>
