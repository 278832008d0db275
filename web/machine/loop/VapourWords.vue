<script setup lang="ts">
import { computed } from 'vue';
import { addDays, DAYS_PER_MONTH } from '@core/base/units/calendar.js';
import { formatIn, grouped } from '@core/base/units/display.js';
import { REFERENCE_COOLANT_C } from '@core/machine/liquids/classes.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { TUBE_MATERIALS } from '@core/machine/materials/tubes.js';
import { vapourOf } from '@core/machine/shop-sums/vapour.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import { useDates } from '../../base/units/dates.js';

/** Water through the tubes' walls: how much, until when the reservoir covers it, and what another tube would lose. */
const props = withDefaults(defineProps<{ loop: LoopFile; inside?: InsideNow | null; coolantC?: number | null }>(), {
  inside: null,
  coolantC: null,
});
const dates = useDates();
const meanC = computed(() => props.coolantC ?? REFERENCE_COOLANT_C);
const vapour = computed(() => vapourOf(props.loop, meanC.value, props.inside?.standing?.reservoirMl ?? null));
const isInside = computed(() => props.inside?.standing !== null && props.inside?.standing !== undefined);
/** months beyond which no date is worth a word: a service comes before it */
const MOST_MONTHS = 36;
/** below ten a tenth counts */
const ml = (volume: number): string => formatIn('mL', volume, volume > 0 && volume < 9.95 ? 1 : 0);
const one = (months: number): string => (months >= 10 ? grouped(months, 0) : grouped(months, 1));
const topUpOn = computed(() => {
  const months = vapour.value?.months;
  if (!months || !isInside.value || months.soonest > MOST_MONTHS) return null;
  return addDays(dates.today(), Math.floor(months.soonest * DAYS_PER_MONTH));
});
const most = computed(() => Math.max(1e-9, ...(vapour.value?.others ?? []).map(({ mlPerMonth }) => mlPerMonth)));
const isOwn = (material: string): boolean => props.loop.tubes.some((tube) => tube.material === material);
</script>

<template>
  <section v-if="vapour" class="vapour">
    <h2>Through the walls</h2>
    <p class="mt-1">
      <strong class="figures estimate">{{ ml(vapour.mlPerMonth) }}</strong> a month, {{ ml(vapour.range[0]) }} to {{ ml(vapour.range[1]) }},
      with the coolant at {{ formatIn('°C', meanC) }}.
      <template v-if="vapour.months && vapour.months.soonest <= MOST_MONTHS">
        The low mark is reached in
        <strong class="figures">{{ one(vapour.months.likely) }}</strong> months, {{ one(vapour.months.soonest) }} at the earliest<template
          v-if="!isInside"
        >
          once it stands at its mark</template
        >.
      </template>
      <template v-else-if="vapour.months">A service comes long before the low mark.</template>
      <template v-if="topUpOn">Look at the level by {{ dates.day(topUpOn) }}, and top up with distilled water.</template>
    </p>
    <ul class="plain-list mt-2" aria-label="The same tubes of other walls">
      <li v-for="each in vapour.others" :key="each.material" :class="{ own: isOwn(each.material) }">
        <span>{{ TUBE_MATERIALS[each.material].label }}</span>
        <span class="bar" aria-hidden="true"><i :style="{ width: `${(100 * Math.sqrt(each.mlPerMonth)) / Math.sqrt(most)}%` }" /></span>
        <span class="figures">{{ ml(each.mlPerMonth) }}</span>
      </li>
    </ul>
    <p class="quiet">Bars by their square root. Published walls of one family differ by a factor of two: an estimate.</p>
  </section>
</template>

<style scoped>
.vapour p {
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: 130px 1fr 80px;
  gap: 12px;
  align-items: center;
  min-height: 24px;
}
li .figures {
  text-align: right;
}
.bar i {
  display: block;
  height: 10px;
  border: 1.5px solid var(--ink);
}
.own {
  font-weight: 640;
}
.own .bar i {
  background: var(--ink);
}
</style>
