<script setup lang="ts">
import { computed, ref } from 'vue';
import { addDays } from '@core/base/units/calendar.js';
import { formatDay } from '@core/base/units/dates.js';
import { reading } from '@core/base/units/reading.js';
import { typedDay } from '@core/base/units/typedDay.js';
import { useDates } from './dates.js';
import MonthSheet from './MonthSheet.vue';
import { useTypedField } from './typedField.js';

/**
 * A day, typed as people write one (`9.3.`, `+10`, `tomorrow`) or touched in a month; shown as its reader writes days. The keys up and down move
 * it by a day.
 */
const value = defineModel<string>({ required: true });
const props = defineProps<{ label: string; min?: string; max?: string; errors?: string[]; hint?: string; hideDetails?: boolean }>();
const dates = useDates();
const open = ref(false);
const WORDS = new Map([['today', 0], ['tomorrow', 1], ['yesterday', -1]]); // prettier-ignore
const WHOLE = /^\d{4}-\d{2}-\d{2}$|^\d{1,2}[./]\d{1,2}[./]\d{4}$/;
const { text, wrong, typing, leave, set } = useTypedField(value, {
  parse: (typed) => typedDay(typed, dates.today(), WORDS),
  show: formatDay,
  isWhole: (typed) => WHOLE.test(typed),
});

function move(days: number): void {
  if (!leave()) return;
  const to = value.value === '' ? dates.today() : addDays(value.value, days);
  pick(props.min && to < props.min ? props.min : props.max && to > props.max ? props.max : to);
}
function pick(day: string): void {
  set(day);
  open.value = false;
}
const example = computed(() => (reading().date === 'month-first' ? '3/9/2027' : '9.3.2027'));
</script>

<template>
  <v-text-field
    :model-value="text"
    :label="label"
    class="day-field figures"
    autocomplete="off"
    inputmode="text"
    :hint="hint"
    :persistent-hint="Boolean(hint)"
    :hide-details="hideDetails || 'auto'"
    :error-messages="wrong ? [`A day, such as ${example} or +10`] : errors"
    @update:model-value="typing"
    @blur="leave"
    @keydown.enter="leave"
    @keydown.up.prevent="move(1)"
    @keydown.down.prevent="move(-1)"
    @keydown.page-up.prevent="move(7)"
    @keydown.page-down.prevent="move(-7)"
  >
    <template #append-inner>
      <v-menu v-model="open" :close-on-content-click="false" location="bottom end">
        <template #activator="{ props: menu }">
          <button type="button" v-bind="menu" class="months" :aria-label="`${label}: choose in a month`">
            <svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true"><path d="M3 5h18v16H3zM3 10h18M8 2v5M16 2v5" /></svg>
          </button>
        </template>
        <MonthSheet :day="value" :today="dates.today()" :min="min" :max="max" @pick="pick" />
      </v-menu>
    </template>
  </v-text-field>
</template>

<style scoped>
.months {
  width: 44px;
  height: 44px;
  margin-right: -8px;
  display: grid;
  place-items: center;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
