<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { say, sayWord } from '@core/base/words/say.js';
import { reactive, ref } from 'vue';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { call } from '../../base/http/api.js';
import { changeBoard, type BoardEvents } from './changeBoard.js';
import { USUAL_WEEK } from './usualWeek.js';
import TimeField from '../../base/units/TimeField.vue';

/** Each technician's usual week. */
const props = defineProps<{ board: WorkshopBoard }>();
const emit = defineEmits<BoardEvents>();
const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const at = ref<string | null>(null);
const week = reactive<{ on: boolean; from: string; to: string }[]>([]);

const clock = (minute: number): string => `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
const minuteOf = (text: string): number => {
  const [hours = 0, minutes = 0] = text.split(':').map(Number);
  return hours * 60 + minutes;
};
const shiftsOf = (personId: string) => props.board.shifts.filter((shift) => shift.personId === personId);
const hoursWords = (personId: string): string => {
  const own = shiftsOf(personId);
  if (own.length === 0) return say('no hours yet');
  const hours = own.reduce((sum, { fromMinute, toMinute }) => sum + toMinute - fromMinute, 0) / 60;
  return say('{map}, {hours} h a week', {
    map: own.map(({ weekday }) => sayWord(WEEKDAYS[weekday - 1])).join(' '),
    hours: grouped(hours, 1),
  });
};

function open(personId: string): void {
  at.value = at.value === personId ? null : personId;
  const own = shiftsOf(personId);
  week.splice(
    0,
    week.length,
    ...WEEKDAYS.map((_, index) => {
      const shift = own.find(({ weekday }) => weekday === index + 1);
      return { on: shift !== undefined, from: clock(shift?.fromMinute ?? 540), to: clock(shift?.toMinute ?? 1050) };
    }),
  );
}
const send = changeBoard(emit);
type Person = WorkshopBoard['people'][number];
const save = ({ id, version }: Person, shifts: readonly object[]): Promise<void> =>
  send(() => call<WorkshopBoard>('PUT', `/people/${id}/shifts`, { body: { shifts, version } }));
const saveWeek = (person: Person): Promise<void> =>
  save(
    person,
    week.flatMap(({ on, from, to }, index) => (on ? [{ weekday: index + 1, fromMinute: minuteOf(from), toMinute: minuteOf(to) }] : [])),
  );
</script>

<template>
  <section>
    <h2>Hours</h2>
    <ul class="plain-list">
      <li v-for="person in board.people" :key="person.id">
        <button type="button" class="person" :aria-expanded="at === person.id" @click="open(person.id)">
          <strong>{{ person.name }}</strong> <span class="quiet figures">{{ hoursWords(person.id) }}</span>
        </button>
        <div v-if="at === person.id" class="week">
          <div v-for="(day, index) in week" :key="index" class="day">
            <label><input v-model="day.on" type="checkbox" /> {{ WEEKDAYS[index] }}</label>
            <template v-if="day.on"
              ><TimeField v-model="day.from" density="compact" :label="`${WEEKDAYS[index]} from`" />
              <TimeField v-model="day.to" density="compact" :label="`${WEEKDAYS[index]} to`"
            /></template>
          </div>
          <div class="row">
            <v-btn @click="saveWeek(person)">Save the week</v-btn>
            <v-btn variant="outlined" @click="save(person, USUAL_WEEK)">Monday to Friday, 9:00 to 17:30</v-btn>
          </div>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  border-top: 1px solid var(--line-soft);
}
.person {
  min-height: 44px;
  width: 100%;
  text-align: left;
}
p {
  margin: 0;
}
.week {
  display: grid;
  gap: 6px;
  padding: 6px 0 14px;
}
.day {
  display: grid;
  grid-template-columns: 90px 140px 140px;
  gap: 12px;
  align-items: center;
  min-height: 44px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
input[type='checkbox'] {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
</style>
