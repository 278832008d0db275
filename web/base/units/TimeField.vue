<script setup lang="ts">
import { shownTime, typedTime } from '@core/base/units/typedDay.js';
import { useTypedField } from './typedField.js';

/** A time of the day, typed as people write one (`9`, `930`, `9:30 pm`); up and down move it by a quarter of an hour. */
const value = defineModel<string>({ required: true });
defineProps<{ label: string; errors?: string[]; density?: 'compact' | 'comfortable' }>();
const { text, wrong, typing, leave, set } = useTypedField(value, {
  parse: typedTime,
  show: shownTime,
  isWhole: (typed) => /^\d{1,2}:\d{2}$/.test(typed),
});
const QUARTER_MIN = 15;
const DAY_MIN = 1440;
function move(by: number): void {
  if (!leave()) return;
  const [hour, minute] = (value.value || '09:00').split(':').map(Number) as [number, number];
  // to the next whole quarter, as plans count
  const whole = Math[by > 0 ? 'floor' : 'ceil']((60 * hour + minute) / QUARTER_MIN) * QUARTER_MIN;
  const to = (whole + by * QUARTER_MIN + DAY_MIN) % DAY_MIN;
  set(`${String(Math.floor(to / 60)).padStart(2, '0')}:${String(to % 60).padStart(2, '0')}`);
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
