<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref, shallowRef } from 'vue';
import { BOOKED_KINDS } from '@core/workshop/job-kinds/kinds.js';
import { compareBoards, brokenPlacements, type Dragged, type MovedJob } from '@core/workshop/planning/board.js';
import { buildProblem, toSlots, type BoardSlot, type WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import type { PlacedJob } from '@core/workshop/planning/problem.js';
import { waitsForWords } from '@core/edge/words/waiting.js';
import { daysBetween } from '@core/base/units/calendar.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { formatSpan, grouped } from '@core/base/units/display.js';
import { ApiError, call, get, wordsOf } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { HINDRANCE_WORDS, setAsideImpossible } from '@core/workshop/planning/possible.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { useNotices } from '../base/shell/notices.js';
import { useDates } from '../base/units/dates.js';
import SlotOffers from '../workshop/calls/SlotOffers.vue';
import AwayDays from '../workshop/planning/AwayDays.vue';
import MoveTo from '../workshop/planning/MoveTo.vue';
import PlanBoard from '../workshop/planning/PlanBoard.vue';
import PlanChanges from '../workshop/planning/PlanChanges.vue';
import { useArrange } from '../workshop/planning/useArrange.js';

/** Who stands at what, when: the backlog, the benches and the hands of the coming days. */
const { data: board, problem, load, take } = usePage((signal) => get<WorkshopBoard>('/plan', signal));
const chosen = ref<string | null>(null);
const dragged = shallowRef<Dragged | null>(null);
const days = ref(10);
/** slots as they were before the last change, and jobs that had none: undo puts them back */
const before = shallowRef<{ readonly slots: readonly BoardSlot[]; readonly none: readonly string[] } | null>(null);
const search = useArrange();
const session = useSession();
const notices = useNotices();

const built = computed(() => (board.value ? buildProblem(board.value) : null));
/** jobs that fit nowhere, whatever else is planned: they keep nobody else off the board */
const possible = computed(() => (built.value ? setAsideImpossible(built.value.problem) : null));
const leftOut = computed(() => (board.value?.shifts.length ? (possible.value?.left ?? []) : []));
const broken = computed(() => (built.value ? brokenPlacements(built.value.problem, built.value.current) : []));
const proposed = computed(() => {
  const own = search.proposal.value;
  return own && possible.value ? possible.value.back(own.placed) : null;
});
const shown = computed<readonly PlacedJob[]>(() => dragged.value?.placed ?? proposed.value ?? built.value?.current ?? []);
const moved = computed<readonly MovedJob[]>(() => {
  if (dragged.value) return dragged.value.moved;
  const own = built.value;
  return own && proposed.value ? compareBoards(own.problem, own.current, proposed.value) : [];
});
const backlog = computed(() => {
  const own = built.value;
  if (!own) return [];
  const placed = new Set([
    ...own.current.map(({ job }) => own.jobs[job]?.id),
    ...(board.value?.slots.filter(({ confirmed }) => confirmed).map(({ jobId }) => jobId) ?? []),
  ]);
  return own.jobs.filter(({ id }) => !placed.has(id));
});
const job = computed(() => board.value?.jobs.find(({ id }) => id === chosen.value) ?? null);
const slot = computed(() => board.value?.slots.find(({ jobId }) => jobId === chosen.value) ?? null);

async function save(placed: readonly PlacedJob[]): Promise<void> {
  const own = built.value;
  const now = board.value;
  if (!own || !now) return;
  const ids = new Set(compareBoards(own.problem, own.current, placed).map(({ id }) => id));
  const slots = toSlots(now, own, placed).filter(({ jobId }) => ids.has(jobId));
  const old = now.slots.filter(({ jobId }) => ids.has(jobId));
  await send(slots, [], { slots: old, none: [...ids].filter((id) => !old.some(({ jobId }) => jobId === id)) });
}
async function send(slots: readonly BoardSlot[], off: readonly string[], old: typeof before.value): Promise<void> {
  if (slots.length + off.length === 0) return;
  try {
    const body = { slots: slots.map(({ jobId, benchId, steps, version }) => ({ jobId, benchId, steps, version })), off };
    take(await call<WorkshopBoard>('PUT', '/plan/slots', { body }));
    before.value = old;
    problem.value = null;
  } catch (error) {
    problem.value = wordsOf(error);
    if (error instanceof ApiError && error.code === 'stale') await load();
  } finally {
    dragged.value = null;
    search.forget();
  }
}
/** jobs that had a slot go back to it; those that had none leave the board again */
async function undo(): Promise<void> {
  const old = before.value;
  const now = board.value;
  if (!old || !now) return;
  before.value = null;
  await send(
    old.slots.map((each) => ({ ...each, version: now.slots.find(({ jobId }) => jobId === each.jobId)?.version ?? 0 })),
    old.none,
    null,
  );
}
async function confirm(confirmed: boolean): Promise<void> {
  try {
    const { told, ...now } = await call<WorkshopBoard & { told: boolean }>('PUT', `/jobs/${chosen.value}/slot`, {
      body: { confirmed, version: slot.value?.version },
    });
    take(now);
    const owner = job.value?.ownerName ?? say('its owner');
    if (confirmed)
      notices.say(
        told
          ? say('Confirmed; {owner} gets it by e-mail within a minute.', { owner })
          : say('Confirmed; tell {owner} the day and time.', { owner }),
      );
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
/** a job of the waiting list that gets its place by hand */
const placing = ref<string | null>(null);
async function placed(): Promise<void> {
  placing.value = null;
  await load();
}
async function clear(): Promise<void> {
  try {
    take(await call<WorkshopBoard>('DELETE', `/jobs/${chosen.value}/slot`));
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
const dates = useDates();
const windowWords = ({ from, to }: { from: string; to: string }): string =>
  say('{day} to {day2}', { day: dates.day(from), day2: dates.day(to) });
const marginWords = (partsOn: string, from: string): string => {
  const days = daysBetween(partsOn, from.slice(0, 10));
  return days <= 0
    ? say('the day it begins: no margin')
    : days === 1
      ? say('a day before it begins')
      : say('{days} days before it begins', { days });
};
const lateDays = (minutes: number): string =>
  minutes <= 0 ? say('nothing late') : say('{minutes} weighted days late', { minutes: grouped(minutes / 1440, 1) });
</script>

<template>
  <main class="page">
    <header class="spread">
      <h1>Plan</h1>
      <div v-if="built" class="row no-print">
        <v-select v-model="days" :items="[1, 5, 10, 20]" label="Days" density="compact" hide-details class="days" />
        <v-btn v-if="before" variant="outlined" @click="undo">Undo</v-btn>
        <v-btn v-if="search.searching.value" size="large" @click="search.stop">Stop, keep the best</v-btn>
        <v-btn v-else size="large" :disabled="!possible?.problem.jobs.length" @click="possible && search.start(possible.problem)"
          >Arrange</v-btn
        >
      </div>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }} <button type="button" class="link" @click="load">Look again</button></p>
    <p v-if="search.searching.value" role="status">
      <template v-if="search.progress.value"
        >{{ search.progress.value.tried }} orders tried, best so far: {{ lateDays(search.progress.value.weightedLateMinutes) }}</template
      ><template v-else>Looking for an order …</template>
    </p>
    <p v-if="search.impossible.value" role="status">
      Hours are too short for every job: add hours, or move a promise. Nothing was changed.
    </p>
    <template v-if="board && built">
      <p v-if="board.shifts.length === 0" class="empty">
        Nobody’s hours are known yet, so nothing can be planned. Give each technician a
        <router-link to="/workshop/hours">usual week</router-link>.
      </p>
      <p v-if="broken.length" role="status" class="loose">
        {{ broken.length === 1 ? 'One job no longer fits where it was put' : `${broken.length} jobs no longer fit where they were put` }}:
        hours, their length or the day changed. Arrange, or move them.
      </p>
      <ul v-if="leftOut.length" class="plain-list loose" aria-label="Jobs that fit nowhere">
        <li v-for="each in leftOut" :key="each.id">
          <strong>{{ board.jobs.find(({ id }) => id === each.id)?.systemName }}</strong> fits nowhere: {{ HINDRANCE_WORDS[each.why] }}.
        </li>
      </ul>
      <PlanBoard
        :board="board"
        :built="built"
        :shown="shown"
        :days="days"
        :chosen="chosen"
        @choose="chosen = $event"
        @preview="dragged = $event"
        @drop="save($event.placed)"
        @refused="problem = $event"
      />
      <PlanChanges
        v-if="moved.length"
        :board="board"
        :moved="moved"
        :left="dragged?.left ?? []"
        :proposal="dragged ? null : search.proposal.value"
        @take="proposed && save(proposed)"
        @leave="search.forget()"
      />
      <p v-else-if="search.proposal.value" role="status">
        Nothing would change: this order is as good as any found ({{ lateDays(search.proposal.value.weightedLateMinutes) }}, it cannot be
        below {{ lateDays(search.proposal.value.lowerBound) }}). <button type="button" class="link" @click="search.forget()">Good</button>
      </p>
      <div class="columns">
        <section>
          <template v-if="board.waiting.length">
            <h2>Waiting, off the benches</h2>
            <ul class="plain-list waits">
              <li v-for="each in board.waiting" :key="each.runId">
                <router-link :to="`/runs/${each.runId}`"
                  ><strong>{{ each.systemName }}</strong></router-link
                >
                {{ waitsForWords(each.waits) }}
                <span class="quiet"
                  ><strong v-if="each.waits.until <= board.today">Look again: </strong>{{ dates.day(each.waits.until) }} ({{
                    sayDue(each.waits.until, board.today)
                  }}), then it needs a bench; it lies: {{ each.waits.lies }}</span
                >
              </li>
            </ul>
          </template>
          <h2>Waiting list</h2>
          <p v-if="backlog.length === 0" class="quiet">
            Every booked job stands on the board. New ones come from “Take it in” on a machine’s page.
          </p>
          <ul class="plain-list">
            <li v-for="each in backlog" :key="each.id">
              <router-link :to="`/jobs/${each.id}`"
                ><strong>{{ each.systemName }}</strong></router-link
              >
              {{ BOOKED_KINDS[each.kind].short }}
              <span class="quiet figures"
                >{{ formatSpan(each.attendedMinutes * 60) }} with hands<template v-if="each.learnedFrom"
                  >, learned from {{ each.learnedFrom }} runs</template
                ><template v-else>, <em class="estimate">estimate</em></template
                ><template v-if="each.neededBy">; needed {{ sayDue(each.neededBy, board.today) }}</template
                ><template v-if="each.windows.length">; its owner can do without it {{ each.windows.map(windowWords).join(', ') }}</template
                ><template v-if="!each.consented">; no consent yet</template></span
              >
              <button
                v-if="session.may('desk')"
                type="button"
                class="link"
                :aria-expanded="placing === each.id"
                @click="placing = placing === each.id ? null : each.id"
              >
                {{ placing === each.id ? 'close' : 'put it on the board' }}
              </button>
              <SlotOffers v-if="placing === each.id" :job-id="each.id" :owner-name="each.ownerName" @kept="placed" />
            </li>
          </ul>
          <article v-if="job" class="chosen">
            <h2>
              <router-link :to="`/jobs/${job.id}`">{{ job.systemName }}</router-link>, {{ BOOKED_KINDS[job.kind].short }}
            </h2>
            <p class="quiet">
              {{ job.ownerName }}<template v-if="job.neededBy"> · needed {{ sayDue(job.neededBy, board.today) }}</template>
            </p>
            <div v-if="slot" class="row">
              <v-btn v-if="!slot.confirmed" @click="confirm(true)">Confirmed with the owner</v-btn>
              <v-btn v-else variant="outlined" @click="confirm(false)">Take the confirmation back</v-btn>
              <v-btn v-if="!slot.confirmed" variant="text" @click="clear">Off the board</v-btn>
            </div>
            <p v-if="job.partsOn" class="figures">
              Parts {{ dates.weekday(job.partsOn)
              }}<template v-if="slot">, {{ marginWords(job.partsOn, slot.steps[0]?.from ?? '') }}</template>
            </p>
            <MoveTo
              v-if="built && !slot?.confirmed && session.may('desk')"
              :board="board"
              :built="built"
              :job-id="job.id"
              @move="save($event.placed)"
            />
            <p class="quiet">
              {{
                slot?.confirmed
                  ? 'Told to its owner: take the confirmation back, move it, confirm it again; the letter says that it moved.'
                  : 'Arrow keys move the chosen bar by a quarter of an hour; with shift by a day.'
              }}
            </p>
          </article>
        </section>
        <div class="stack">
          <AwayDays :board="board" @changed="take" @problem="problem = $event" @choose="chosen = $event" />
          <p class="quiet">
            Hours, skills, kits and calendar addresses stand under <router-link to="/workshop/hours">Workshop</router-link>.
          </p>
        </div>
      </div>
    </template>
  </main>
</template>

<style scoped>
.days {
  width: 110px;
}
.empty,
.loose {
  border-left: 5px solid var(--ink);
  padding: 6px 0 6px 14px;
}
.link {
  text-decoration: underline;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 44px;
  margin-top: 20px;
}
li {
  border-top: 1px solid var(--line-soft);
  padding: 8px 0;
}
li .quiet {
  display: block;
}
.waits {
  margin-bottom: 22px;
}
.chosen {
  margin-top: 16px;
  border-left: 4px solid var(--ink);
  padding-left: 14px;
  display: grid;
  gap: 8px;
}
.chosen p {
  margin: 0;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
