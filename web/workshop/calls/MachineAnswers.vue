<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { CallMachine, NextVisit } from '@core/workshop/calls/answers.js';
import type { LoopOfSystem } from '@core/workshop/machines/answers.js';
import { computed } from 'vue';
import { useDates } from '../../base/units/dates.js';
import { priceOfForm } from '../jobs/jobForm.js';
import { usePriceList } from '../prices/priceStore.js';
import AnswerPlates from './AnswerPlates.vue';
import { comesAnswer, costsAnswer, dueAnswer, readyAnswer } from './callWords.js';

/** The four answers at the head of a machine's page: the same ones that are said on the phone. */
const props = defineProps<{
  machine: CallMachine;
  today: string;
  loop: Pick<LoopOfSystem, 'id' | 'coolantProductId'> | null;
  /** what it comes in for when its date comes */
  next: NextVisit | null;
}>();
const dates = useDates();
const times = { day: dates.day, slotTime: dates.weekdayAndTime };
const prices = usePriceList();
/** what it would come in for next, where nothing was estimated yet */
const usual = computed(() => {
  const { loop, next, machine } = props;
  // what is booked has its own estimate
  if (!next || !loop || machine.state !== 'in-service' || machine.job) return null;
  const { kind, hours, coolantMl, learnedFrom } = next;
  const form = { hours, coolantMl, partsText: '', priceText: '', parts: [] };
  return { kind, hours, coolantMl, learnedFrom, priced: priceOfForm(prices.list, kind, loop.coolantProductId, form) };
});
/** why it is due stands in its own card below */
const due = computed(() => {
  const own = dueAnswer(props.machine, props.today, times);
  const { due: open } = props.machine;
  const small =
    open &&
    [dates.day(open.dueOn), open.postponed > 0 ? say('put off {postponed}×', { postponed: open.postponed }) : '']
      .filter(Boolean)
      .join(', ');
  return small === null ? own : { ...own, small };
});
const answers = computed(() => [
  due.value,
  comesAnswer(props.machine, null, times),
  readyAnswer(props.machine, null, times),
  costsAnswer(props.machine, usual.value),
]);
</script>

<template>
  <AnswerPlates row :answers="answers" />
</template>
