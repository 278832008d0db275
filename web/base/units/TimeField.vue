<script setup lang="ts">
import { ref, watch } from 'vue';
import { shownTime, typedTime } from '@core/base/units/typedDay.js';

/** A time of the day, typed as people write one (`9`, `930`, `9:30 pm`); up and down move it by a quarter of an hour. */
const value = defineModel<string>({ required: true });
defineProps<{ label: string; errors?: string[]; density?: 'compact' | 'comfortable' }>();
const text = ref(shownTime(value.value));
const wrong = ref(false);
watch(value, (time) => {
  if (typedTime(text.value) !== time) text.value = shownTime(time);
});

function take(raw: string): void {
  const typed = raw.trim() === '' ? '' : typedTime(raw);
  wrong.value = typed === null;
  if (typed !== null) value.value = typed;
}
function typing(raw: string | null): void {
  text.value = raw ?? '';
  wrong.value = false;
  if (/^\d{1,2}:\d{2}$/.test(text.value)) take(text.value);
}
function leave(): void {
  take(text.value);
  if (!wrong.value) text.value = shownTime(value.value);
}
const QUARTER_MIN = 15;
const DAY_MIN = 1440;
function move(by: number): void {
  leave();
  if (wrong.value) return;
  const [hour, minute] = (value.value || '09:00').split(':').map(Number) as [number, number];
  // to the next whole quarter, as plans count
  const whole = Math[by > 0 ? 'floor' : 'ceil']((60 * hour + minute) / QUARTER_MIN) * QUARTER_MIN;
  const to = (whole + by * QUARTER_MIN + DAY_MIN) % DAY_MIN;
  value.value = `${String(Math.floor(to / 60)).padStart(2, '0')}:${String(to % 60).padStart(2, '0')}`;
  text.value = shownTime(value.value);
}
</script>

<template>
  <v-text-field
    :model-value="text"
    :label="label"
    class="figures"
    autocomplete="off"
    :density="density ?? 'comfortable'"
    :error-messages="wrong ? ['A time, such as 9:30'] : errors"
    @update:model-value="typing"
    @blur="leave"
    @keydown.enter="leave"
    @keydown.up.prevent="move(1)"
    @keydown.down.prevent="move(-1)"
  />
</template>
