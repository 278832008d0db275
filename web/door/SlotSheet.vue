<script setup lang="ts">
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import type { NotDays, Said } from '@core/workshop/owner-door/said.js';
import { formatWeekday, formatWeekdayTime } from '@core/base/units/dates.js';
import { ref } from 'vue';

/** Slots that the workshop offers, the one that is agreed, and days that do not suit. */
const props = defineProps<{
  slots: DoorPage['slots'];
  hasJob: boolean;
  timeZone: string;
  today: string;
  busy: boolean;
  tell: (said: Said) => Promise<boolean>;
}>();
const not = ref<NotDays[]>([]);
const from = ref('');
const to = ref('');
const wrong = ref(false);
function add(): void {
  const last = to.value || from.value;
  wrong.value = from.value === '' || last < from.value;
  if (wrong.value) return;
  not.value.push({ from: from.value, to: last });
  from.value = to.value = '';
}
async function send(): Promise<void> {
  if (from.value) add();
  if (wrong.value || not.value.length === 0) return;
  if (await props.tell({ kind: 'days', not: not.value, text: '' })) not.value = [];
}
const daysOf = ({ from: first, to: last }: NotDays): string =>
  first === last ? formatWeekday(first) : `${formatWeekday(first)} – ${formatWeekday(last)}`;
</script>

<template>
  <section
    v-if="slots.agreed || slots.offered.length || hasJob"
    class="sheet"
    :class="{ asked: slots.offered.length > 0 && !slots.chosen }"
    aria-labelledby="slots"
  >
    <h2 id="slots">When</h2>
    <template v-if="slots.agreed">
      <p class="stamp">Bring it {{ formatWeekdayTime(slots.agreed.from, timeZone) }}</p>
      <p class="note">Its power cable comes along. Save what must not be lost. Call if that does not suit you any more.</p>
    </template>
    <template v-else-if="slots.offered.length">
      <ul class="offers">
        <li v-for="offer in slots.offered" :key="offer.from">
          <button
            type="button"
            class="offer"
            :aria-pressed="slots.chosen === offer.from"
            :disabled="busy"
            @click="tell({ kind: 'slot', from: offer.from })"
          >
            <strong>{{ formatWeekdayTime(offer.from, timeZone) }}</strong>
            <small>ready by plan {{ formatWeekdayTime(offer.to, timeZone) }}</small>
          </button>
        </li>
      </ul>
      <p v-if="slots.chosen" class="note">Chosen; the workshop confirms it. You may still choose another one.</p>
    </template>
    <p v-else class="note">No slot is offered yet. Tell the workshop which days do not suit you.</p>
    <details v-if="!slots.agreed">
      <summary>Days that do not suit me</summary>
      <ul v-if="not.length">
        <li v-for="(each, index) in not" :key="index">
          {{ daysOf(each) }} <button type="button" class="plain" @click="not.splice(index, 1)">Take away</button>
        </li>
      </ul>
      <div class="pair">
        <label>From <input v-model="from" type="date" :min="today" /></label>
        <label>To <input v-model="to" type="date" :min="from || today" /></label>
      </div>
      <p v-if="wrong" role="alert" class="problem">Say the first day; the last one is not before it.</p>
      <button type="button" class="plain" @click="add">One more</button>
      <button type="button" class="act" :disabled="busy" @click="send">Tell the workshop</button>
    </details>
  </section>
</template>
