<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { CallMachine, NextVisit } from '@core/workshop/calls/answers.js';
import type { LoopOfSystem } from '@core/workshop/machines/answers.js';
import { computed, onMounted } from 'vue';
import { useDates } from '../../base/units/dates.js';
import { get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { priceOfForm } from '../jobs/jobForm.js';
import { usePriceList } from '../prices/priceStore.js';
import AnswerPlates from './AnswerPlates.vue';
import { comesAnswer, costsAnswer, dueAnswer, readyAnswer } from './callWords.js';

/** The four answers at the head of a machine's page: the same ones that are said on the phone. */
const props = defineProps<{ machine: CallMachine; today: string; loop: Pick<LoopOfSystem, 'id' | 'coolantProductId'> | null }>();
const dates = useDates();
const times = { day: dates.day, slotTime: dates.weekdayAndTime };
const prices = usePriceList();
onMounted(() => void prices.load().catch(() => undefined));
/** what it would come in for next, where nothing was estimated yet */
const loopId = computed(() => (props.machine.state === 'in-service' && !props.machine.job ? (props.loop?.id ?? null) : null));
const { data: next } = usePage((signal) => get<NextVisit>(`/loops/${loopId.value}/next`, signal), loopId);
const usual = computed(() => {
  const { loop } = props;
  if (!next.value || !loop || loopId.value === null) return null;
  const { kind, hours, coolantMl, learnedFrom } = next.value;
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
