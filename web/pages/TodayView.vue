<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { TodayAnswer } from '@core/workshop/machines/answers.js';
import { computed, onMounted, onScopeDispose, reactive, watch } from 'vue';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { usePush } from '../base/push/usePush.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { useDates } from '../base/units/dates.js';
import { useBenches } from '../bench/benches/benchStore.js';
import WaitingShelf from '../bench/waiting/WaitingShelf.vue';
import BenchPlinth from '../bench/benches/BenchPlinth.vue';
import FirstWeek from '../workshop/first-week/FirstWeek.vue';
import DoorList from '../workshop/today/DoorList.vue';
import { useLines } from '../workshop/machine-list/useLines.js';
import OwnersToday from '../workshop/owner-door/OwnersToday.vue';
import DueRunway from '../workshop/today/DueRunway.vue';

const benches = useBenches();
const session = useSession();
const dates = useDates();
onMounted(() => void benches.refresh());

const standing = computed(() => [
  ...benches.benches.map((bench) => ({ ...bench, runs: benches.runs.filter(({ benchId }) => benchId === bench.id) })),
  // tables for practice are there while somebody practises
  ...benches.runs.filter(({ practice }) => practice).map((run) => ({ id: run.id, name: say('Practice table'), runs: [run] })),
  ...benches.runs
    .filter(({ benchId, waits }) => benchId === null && !waits)
    .map((run) => ({ id: run.id, name: say('No bench'), runs: [run] })),
]);
const dues = usePage((signal) => get<TodayAnswer>('/today', signal));
/** drawings of what stands on the benches; asked for once for each set of runs */
const drawn = usePage(
  (signal) => get<{ loops: { runId: string; file: LoopFile }[] }>('/benches/loops', signal),
  () => benches.runs.map(({ id }) => id).join() || null,
);
const fileOf = (runId: string): LoopFile | null => drawn.data.value?.loops.find((each) => each.runId === runId)?.file ?? null;
/** ms; a stream that has just begun may have missed what came before it: asked again once the first answer is on screen */
const AFTER_RESYNC_MS = 1500;
let later: number | undefined;
// dates that moved while one looks show at once
function loadLater(): void {
  window.clearTimeout(later);
  later = window.setTimeout(() => void dues.load(), AFTER_RESYNC_MS);
}
usePush({ dates: () => void dues.load(), resync: loadLater });
onScopeDispose(() => window.clearTimeout(later));
const answer = computed(() => dues.data.value);
/** more of what is over, and of what comes near, behind the first pages */
const overdue = useLines(() => ({ attention: 'overdue' }), true);
const coming = useLines(() => ({ coming: true }), true);
watch(answer, (now) => {
  if (!now) return;
  overdue.take(now.overdue);
  coming.take(now.coming);
});
const groups = computed(() => [
  { key: 'overdue', lines: overdue.lines.value, of: answer.value?.overdue.found ?? 0 },
  { key: 'coming', lines: coming.lines.value, of: answer.value?.coming.found ?? 0 },
]);
const isEmpty = computed(() => groups.value.every(({ lines }) => lines.length === 0));
const problem = computed(() => benches.problem ?? dues.problem.value);
/** what lies above the benches and is not known yet: nothing moves under a finger that is on its way to one */
const awaited = reactive({ week: session.account?.role === 'lead', owners: true });
const known = computed(() => dues.settled.value && (benches.loaded || benches.problem !== null));
/** ms that it is waited for once the rest is there */
const LONGEST_MS = 1500;
let patience: number | undefined;
watch(known, () => (patience = window.setTimeout(() => Object.assign(awaited, { week: false, owners: false }), LONGEST_MS)));
onScopeDispose(() => window.clearTimeout(patience));
const stands = computed(() => known.value && !awaited.week && !awaited.owners);
function again(): void {
  void benches.refresh();
  void dues.load();
}
</script>

<template>
  <main class="page">
    <header class="spread">
      <h1>{{ session.account?.workshopName }}</h1>
      <p class="quiet">{{ answer ? dates.day(answer.today) : '' }}</p>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }} <v-btn size="small" @click="again">Try again</v-btn></p>

    <FirstWeek v-if="session.account?.role === 'lead'" @changed="again" @settled="awaited.week = false" />

    <OwnersToday @changed="dues.load()" @settled="awaited.owners = false" />

    <section v-if="stands" class="benches" aria-label="Benches">
      <template v-for="bench in standing" :key="bench.id">
        <BenchPlinth v-for="run in bench.runs" :key="run.id" :name="bench.name" :run="run" :file="fileOf(run.id)" />
        <BenchPlinth
          v-if="bench.runs.length === 0"
          :name="bench.name"
          :run="null"
          :file="null"
          :next="benches.next.find(({ benchId }) => benchId === bench.id) ?? null"
        />
      </template>
    </section>

    <WaitingShelf v-if="stands && answer" :runs="benches.runs" :today="answer.today" :file-of="fileOf" />

    <DoorList v-if="stands && answer" :coming-in="answer.comingIn" :ready="answer.ready" :today="answer.today" @changed="dues.load()" />

    <section v-if="stands && answer" class="dues">
      <header class="spread">
        <h2>{{ answer.overdue.found ?? 0 }} overdue, {{ answer.coming.found ?? 0 }} coming up</h2>
        <p v-if="answer.dusty > 0" class="quiet">{{ answer.dusty }} only to dust: done beside other work, so it never counts as overdue</p>
        <router-link to="/systems">All {{ answer.count }} machines</router-link>
      </header>
      <DueRunway v-if="!isEmpty" :today="answer.today" :groups="groups" @more="(key) => (key === 'overdue' ? overdue : coming).more()" />
      <p v-else-if="answer.count === 0" class="first">
        No machines yet. <router-link to="/systems/new">Enter the first machine</router-link>: its owner, then its loop. The fill plan, the
        leak test and the next service date follow from there.
      </p>
      <p v-else class="quiet">Nothing falls due in the next six weeks.</p>
    </section>
  </main>
</template>

<style scoped>
.benches {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 0;
  margin: 14px 0 36px;
  align-items: stretch;
}
.dues {
  margin-top: 22px;
}
.dues h2 {
  margin-bottom: 8px;
}
.first {
  font-size: 1.15rem;
  max-width: 60ch;
}
</style>
