<script setup lang="ts">
import type { SystemLine } from '@core/workshop/machines/answers.js';
import { nextKind } from '../machines/dueKinds.js';
import { reasonWords } from '@core/edge/words/dates.js';
import { computed } from 'vue';
import { daysBetween } from '@core/base/units/calendar.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { useDates } from '../../base/units/dates.js';

/** Overdue and coming services on one axis of days; today is the waterline. */
const props = defineProps<{
  today: string;
  /** what is over, what comes near: the first of each, and how many there are */
  groups: readonly { readonly key: string; readonly lines: readonly SystemLine[]; readonly of: number }[];
}>();
const emit = defineEmits<{ more: [key: string] }>();
const dates = useDates();

const PAST_DAYS = 60;
const AHEAD_DAYS = 45;
const place = (day: string): number => {
  const days = Math.max(-PAST_DAYS, Math.min(AHEAD_DAYS, daysBetween(props.today, day)));
  return ((days + PAST_DAYS) / (PAST_DAYS + AHEAD_DAYS)) * 100;
};
const todayAt = computed(() => place(props.today));
const weeks = [-8, -6, -4, -2, 0, 2, 4, 6].map((week) => ({ week, at: ((week * 7 + PAST_DAYS) / (PAST_DAYS + AHEAD_DAYS)) * 100 }));
const drawn = computed(() =>
  props.groups.map(({ key, lines, of }) => ({
    key,
    left: of - lines.length,
    rows: lines.map((line) => ({
      line,
      kind: nextKind(line),
      at: place(line.nextDueOn ?? props.today),
      over: (line.nextDueOn ?? '') < props.today,
    })),
  })),
);
</script>

<template>
  <div class="runway">
    <div class="axis quiet figures" aria-hidden="true">
      <span v-for="each in weeks" :key="each.week" :style="{ left: `${each.at}%` }">{{
        each.week === 0 ? 'today' : each.week < 0 ? `${-each.week} wk ago` : `${each.week} wk`
      }}</span>
    </div>
    <ul v-for="group in drawn" :key="group.key" class="plain-list">
      <li v-for="{ line, kind, at, over } in group.rows" :key="line.id" class="due">
        <router-link class="due-name" :to="`/systems/${line.id}`"
          ><strong>{{ line.name }}</strong> <span class="quiet">{{ line.ownerName }}</span></router-link
        >
        <div class="track" :title="line.nextReason ? reasonWords(line.nextReason) : ''">
          <span class="waterline" :style="{ left: `${todayAt}%` }" />
          <span
            class="reach"
            :class="{ over }"
            :style="
              over
                ? { left: `${at}%`, right: `${100 - todayAt}%` }
                : { left: `${todayAt}%`, right: `${100 - at}%`, background: line.coolant?.colour }
            "
          />
          <span class="stop" :style="{ left: `${at}%` }" />
        </div>
        <span class="due-words figures"
          ><strong>{{ sayDue(line.nextDueOn ?? today, today) }}</strong>
          <span class="quiet">{{ kind }}, {{ dates.day(line.nextDueOn ?? today) }}</span></span
        >
      </li>
      <li v-if="group.left > 0" class="rest">
        <v-btn variant="text" @click="emit('more', group.key)">{{
          group.key === 'overdue' ? `${group.left} more overdue` : `${group.left} more coming up`
        }}</v-btn>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.runway {
  display: grid;
}
.axis,
.due {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr) 270px;
  gap: 20px;
}
.axis {
  position: relative;
  height: 22px;
  font-size: 0.82rem;
}
.axis {
  display: block;
  margin-left: 260px;
  margin-right: 290px;
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
  white-space: nowrap;
}
.due {
  align-items: center;
  min-height: 40px;
  border-top: 1px solid var(--line-soft);
}
.due-name {
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 40px;
}
.due-name:hover strong {
  text-decoration: underline;
}
.track {
  position: relative;
  height: 40px;
}
.waterline {
  position: absolute;
  top: 0;
  bottom: -1px;
  border-left: 2px solid var(--ink);
}
.reach {
  position: absolute;
  top: 14px;
  height: 12px;
}
.reach.over {
  background: var(--ink);
  /* over: solid, with a notched end; a hatch is for what is predicted only */
  clip-path: polygon(0 0, 100% 0, calc(100% - 6px) 50%, 100% 100%, 0 100%);
}
.stop {
  position: absolute;
  top: 9px;
  height: 22px;
  border-left: 3px solid var(--ink);
}
.due-words {
  white-space: nowrap;
  text-align: right;
  overflow: hidden;
  text-overflow: ellipsis;
}
@media (max-width: 900px) {
  .axis {
    display: none;
  }
  .due {
    grid-template-columns: 1fr auto;
    padding-block: 6px;
    gap: 0 12px;
  }
  .track {
    grid-column: 1 / -1;
    grid-row: 2;
    height: 28px;
  }
  .reach {
    top: 8px;
  }
  .stop {
    top: 3px;
  }
}
.rest {
  border-top: 1px solid var(--line-soft);
  padding-block: 4px;
}
</style>
