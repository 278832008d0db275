<script setup lang="ts">
import type { SystemLine } from '@core/workshop/machines/answers.js';
import { reasonWords } from '@core/edge/words/dates.js';
import { computed } from 'vue';
import { ATTENTION_WORDS, isBesideDue, sayDue } from '@core/workshop/due-dates/attention.js';
import { DAYS_PER_MONTH, daysBetween } from '@core/base/units/calendar.js';
import { useDates } from '../../base/units/dates.js';
import { DUE_KINDS, nextWord } from './dueKinds.js';
import { AHEAD_MONTHS, PAST_MONTHS } from './lifeScale.js';

/** One system as the time its coolant has left: the bar drains towards the waterline, and turns to hatching past it. */
const props = defineProps<{ line: SystemLine; today: string }>();
const dates = useDates();

const place = (day: string): number => {
  const months = daysBetween(props.today, day) / DAYS_PER_MONTH;
  return ((Math.max(-PAST_MONTHS, Math.min(AHEAD_MONTHS, months)) + PAST_MONTHS) / (PAST_MONTHS + AHEAD_MONTHS)) * 100;
};
const zero = computed(() => place(props.today));
const service = computed(() => props.line.dues.find(({ kind }) => kind === 'coolant-service') ?? null);
const settling = computed(() => props.line.dues.find(({ kind }) => kind === 'settling-check') ?? null);
/** dates of another kind than the bar's: dust, what was promised */
const beside = computed(() => props.line.dues.filter((due) => isBesideDue(due) || due.kind === 'follow-up'));
const over = computed(() => service.value !== null && service.value.dueOn < props.today);
const bar = computed(() => {
  if (!service.value) return null;
  const at = place(service.value.dueOn);
  return over.value
    ? { left: `${at}%`, right: `${100 - zero.value}%` }
    : { left: `${zero.value}%`, right: `${100 - at}%`, background: props.line.coolant?.colour ?? 'var(--ink-soft)' };
});
const loud = computed(() => ['overdue', 'put-off', 'on-bench', 'waiting'].includes(props.line.attention));
</script>

<template>
  <router-link class="life" :to="`/systems/${line.id}`">
    <span class="who"
      ><strong>{{ line.name }}</strong
      ><span class="quiet owner">{{ line.ownerName }}</span></span
    >
    <span class="quiet phone figures">{{ line.ownerPhone ?? '' }}</span>
    <span class="track" :title="line.nextReason ? reasonWords(line.nextReason) : ''">
      <span class="waterline" :style="{ left: `${zero}%` }" />
      <span v-if="bar" class="bar" :class="{ over }" :style="bar" />
      <span
        v-for="due in beside"
        :key="due.kind"
        class="beside"
        :class="{ late: due.dueOn < today }"
        :style="{ left: `${place(due.dueOn)}%` }"
        :title="DUE_KINDS[due.kind]"
      />
      <span v-if="settling" class="settle" :style="{ left: `${place(settling.dueOn)}%` }" title="settling check" />
    </span>
    <span class="state" :class="{ loud }">{{ ATTENTION_WORDS[line.attention] }}</span>
    <span class="when figures">
      <template v-if="line.nextDueOn"
        ><strong>{{ sayDue(line.nextDueOn, today) }}</strong> {{ nextWord(line) }}
        <span class="quiet">{{ dates.day(line.nextDueOn) }}</span></template
      >
    </span>
  </router-link>
</template>

<style scoped>
.life {
  display: grid;
  grid-template-columns: minmax(200px, 1.3fr) 150px minmax(220px, 2fr) 116px 280px;
  gap: 16px;
  align-items: center;
  min-height: 46px;
  text-decoration: none;
  padding: 0 12px;
  border-top: 1px solid var(--line-soft);
}
.life:hover {
  background: var(--wash);
}
.who {
  display: flex;
  gap: 10px;
  align-items: baseline;
  overflow: hidden;
  white-space: nowrap;
}
.phone {
  white-space: nowrap;
  letter-spacing: -0.02em;
}
.owner {
  overflow: hidden;
  text-overflow: ellipsis;
}
.track {
  position: relative;
  height: 46px;
}
.waterline {
  position: absolute;
  inset-block: -1px 0;
  border-left: 2px solid var(--ink);
}
.bar {
  position: absolute;
  top: 17px;
  height: 12px;
  box-shadow: inset 0 0 0 1px rgb(0 0 0 / 22%);
}
.bar.over {
  background: var(--ink);
  /* over: solid, with a notched end; a hatch is for what is predicted only */
  clip-path: polygon(0 0, 100% 0, calc(100% - 6px) 50%, 100% 100%, 0 100%);
  box-shadow: none;
}
.settle {
  position: absolute;
  top: 10px;
  width: 11px;
  height: 26px;
  border: 2px solid var(--ink);
  border-left: none;
}
.beside {
  position: absolute;
  top: 8px;
  width: 10px;
  height: 10px;
  margin-left: -5px;
  border: 2px solid var(--ink-soft);
  border-radius: 50%;
}
.beside.late {
  background: var(--ink);
  border-color: var(--ink);
}
.state {
  color: var(--ink-soft);
}
.state.loud {
  color: var(--ink);
  font-weight: 640;
}
.when {
  text-align: right;
  white-space: nowrap;
}
@media (max-width: 600px) {
  .when {
    white-space: normal;
  }
  .who {
    white-space: normal;
    flex-wrap: wrap;
    gap: 0 10px;
  }
}
@media (max-width: 1000px) {
  .life {
    grid-template-columns: 1fr auto;
    gap: 2px 12px;
    padding-block: 10px;
  }
  .phone,
  .state {
    display: none;
  }
  .track {
    grid-column: 1 / -1;
    grid-row: 2;
    height: 26px;
  }
  .bar {
    top: 7px;
  }
  .settle {
    top: 0;
  }
}
</style>
