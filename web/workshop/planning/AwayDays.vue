<script setup lang="ts">
import { hitBy, type HitJob } from '@core/workshop/planning/absences.js';
import { ABSENCE_WHYS, DAY_PARTS, type AbsenceWhy, type DayPart } from '@core/workshop/planning/shifts.js';
import { withStandIns } from '@core/workshop/planning/standIns.js';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { capital, listed, say } from '@core/base/words/say.js';
import { computed, reactive, ref } from 'vue';
import { call } from '../../base/http/api.js';
import { useDates } from '../../base/units/dates.js';
import { useSession } from '../people/sessionStore.js';
import { changeBoard, type BoardEvents } from './changeBoard.js';
import DayField from '../../base/units/DayField.vue';

/** Who is away when, and which jobs and owners that hits. */
const props = defineProps<{ board: WorkshopBoard }>();
const emit = defineEmits<BoardEvents & { (event: 'choose', jobId: string): void }>();
const dates = useDates();
const session = useSession();
const send = changeBoard(emit as BoardEvents);
const open = ref(false);
const form = reactive({
  personId: props.board.people[0]?.id ?? '',
  fromDay: props.board.today,
  toDay: props.board.today,
  part: 'whole' as DayPart,
  why: 'ill' as AbsenceWhy,
});
/** who would have a job in hand instead, at the same time; null: nobody can */
function standInOf(jobId: string): { names: string; version: number } | null {
  const now = props.board.slots.find((slot) => slot.jobId === jobId);
  const other = withStandIns(props.board, jobId);
  if (!now || !other) return null;
  const ids = new Set(other.steps.filter((step, index) => step.personId !== now.steps[index]?.personId).map(({ personId }) => personId));
  const names = props.board.people.filter(({ id }) => ids.has(id)).map(({ name }) => name);
  return { names: listed(names), version: now.version };
}
const rows = computed(() =>
  props.board.absences
    .filter(({ toDay }) => toDay >= props.board.today)
    .map((absence) => ({
      ...absence,
      name: props.board.people.find(({ id }) => id === absence.personId)?.name ?? 'somebody',
      hit: hitBy(props.board, absence).map((job) => ({ ...job, standIn: standInOf(job.jobId) })),
    })),
);
async function add(): Promise<void> {
  await send(() => call<WorkshopBoard>('POST', '/absences', { body: { ...form, reason: '' }, idempotencyKey: crypto.randomUUID() }));
  open.value = false;
}
const back = (id: string): Promise<void> => send(() => call<WorkshopBoard>('DELETE', `/absences/${id}`));
const handOver = (jobId: string, version: number): Promise<void> =>
  send(() => call<WorkshopBoard>('PUT', `/jobs/${jobId}/slot/hands`, { body: { version } }));
const hitWords = ({ ownerName, from, confirmed }: HitJob): string =>
  `${dates.weekdayAndTime(from)}, ${confirmed ? say('{ownerName} was told', { ownerName }) : ownerName}`;
const choices = (all: Readonly<Record<string, string>>) => Object.entries(all).map(([value, title]) => ({ value, title: capital(title) }));
</script>

<template>
  <section>
    <header class="spread">
      <h2>Away</h2>
      <v-btn v-if="session.may('desk')" variant="outlined" @click="open = !open">{{ open ? 'Close' : 'Somebody is away' }}</v-btn>
    </header>
    <form v-if="open" class="away" novalidate @submit.prevent="add">
      <v-select v-model="form.personId" :items="board.people.map(({ id, name }) => ({ value: id, title: name }))" label="Who" />
      <v-select v-model="form.why" :items="choices(ABSENCE_WHYS)" label="Why" />
      <DayField v-model="form.fromDay" label="From" />
      <DayField v-model="form.toDay" label="To, that day too" />
      <v-select v-model="form.part" :items="choices(DAY_PARTS)" label="Of each" />
      <v-btn type="submit" size="large">Away</v-btn>
    </form>
    <p v-if="rows.length === 0" class="quiet">Nobody is away.</p>
    <ul class="plain-list">
      <li v-for="each in rows" :key="each.id">
        <p>
          <strong>{{ each.name }}</strong> {{ ABSENCE_WHYS[each.why] }}, {{ dates.weekday(each.fromDay)
          }}<template v-if="each.toDay !== each.fromDay"> to {{ dates.weekday(each.toDay) }}</template
          ><template v-if="each.part !== 'whole'">, {{ DAY_PARTS[each.part] }}</template> {{ each.reason }}
          <button
            v-if="session.may('desk')"
            type="button"
            class="link"
            :aria-label="`${each.name} is there after all`"
            @click="back(each.id)"
          >
            is there after all
          </button>
        </p>
        <ul v-if="each.hit.length" class="plain-list hit">
          <li v-for="job in each.hit" :key="job.jobId" :class="{ told: job.confirmed }">
            <button type="button" class="link" @click="emit('choose', job.jobId)">{{ job.systemName }}</button> {{ hitWords(job) }}
            <v-btn
              v-if="job.standIn && session.may('desk')"
              size="small"
              variant="outlined"
              :aria-label="`${job.standIn.names} instead: ${job.systemName}`"
              @click="handOver(job.jobId, job.standIn.version)"
              >{{ job.standIn.names }} instead</v-btn
            >
            <span v-else-if="session.may('desk')" class="quiet">nobody is free then: it moves</span>
          </li>
        </ul>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.away {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  padding-top: 8px;
}
li {
  border-top: 1px solid var(--line-soft);
  padding: 6px 0;
}
p {
  margin: 0;
}
.hit li {
  border-top: 0;
  border-left: 4px solid var(--line);
  padding: 2px 0 2px 12px;
}
.hit .told {
  border-left-color: var(--ink);
}
.link {
  text-decoration: underline;
  min-height: 28px;
}
</style>
