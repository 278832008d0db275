<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue';
import { addDays, addMonths, daysBetween, weekdayOf } from '@core/base/units/calendar.js';
import { formatDay, monthName, weekdayNames } from '@core/base/units/dates.js';
import { reading } from '@core/base/units/reading.js';

/** One month of days to touch. The keys move over it, a page at a time by months. */
const props = defineProps<{ day: string; today: string; min?: string; max?: string }>();
const emit = defineEmits<{ pick: [day: string] }>();
const grid = ref<HTMLElement | null>(null);
const at = ref(props.day || props.today);
const days = computed(() => {
  const first = `${at.value.slice(0, 8)}01`;
  const begins = addDays(first, -((weekdayOf(first) - reading().weekBegins + 7) % 7));
  const last = addDays(addMonths(first, 1), -1);
  const rows = Math.ceil((daysBetween(begins, last) + 1) / 7);
  return Array.from({ length: 7 * rows }, (_, index) => addDays(begins, index));
});
const isOut = (day: string): boolean => (props.min ? day < props.min : false) || (props.max ? day > props.max : false);

async function go(to: string): Promise<void> {
  at.value = to;
  await nextTick();
  grid.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus();
}
const STEPS: Readonly<Record<string, (day: string) => string>> = {
  ArrowLeft: (day) => addDays(day, -1),
  ArrowRight: (day) => addDays(day, 1),
  ArrowUp: (day) => addDays(day, -7),
  ArrowDown: (day) => addDays(day, 7),
  PageUp: (day) => addMonths(day, -1),
  PageDown: (day) => addMonths(day, 1),
};
function key(event: KeyboardEvent): void {
  const step = STEPS[event.key];
  if (!step) return;
  event.preventDefault();
  void go(step(at.value));
}
onMounted(() => void go(at.value));
</script>

<template>
  <div class="month">
    <header>
      <button type="button" aria-label="The month before" @click="at = addMonths(at, -1)">‹</button>
      <strong aria-live="polite">{{ monthName(at) }}</strong>
      <button type="button" aria-label="The next month" @click="at = addMonths(at, 1)">›</button>
    </header>
    <div ref="grid" class="grid" role="group" :aria-label="monthName(at)" @keydown="key">
      <span v-for="name in weekdayNames()" :key="name" class="name" aria-hidden="true">{{ name }}</span>
      <button
        v-for="each in days"
        :key="each"
        type="button"
        class="figures"
        :class="{ elsewhere: each.slice(0, 7) !== at.slice(0, 7), today: each === today }"
        :aria-pressed="each === day"
        :aria-label="formatDay(each)"
        :tabindex="each === at ? 0 : -1"
        :disabled="isOut(each)"
        @click="emit('pick', each)"
      >
        {{ Number(each.slice(8)) }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.month {
  padding: 8px;
  width: 340px;
  background: var(--sheet);
  border: 2px solid var(--ink);
  border-radius: 3px;
}
header {
  display: grid;
  grid-template-columns: 48px 1fr 48px;
  align-items: center;
  text-align: center;
}
header button {
  min-height: 44px;
  font-size: 1.5rem;
}
.grid {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
}
.name {
  text-align: center;
  color: var(--ink-soft);
  font-size: 0.875rem;
}
.grid button {
  min-height: 44px;
  border-radius: 3px;
}
.grid button:disabled {
  color: var(--line);
  cursor: default;
}
.elsewhere {
  color: var(--ink-soft);
}
.today {
  box-shadow: inset 0 -3px var(--ink);
}
.grid [aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}
</style>
