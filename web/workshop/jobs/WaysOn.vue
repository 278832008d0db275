<script setup lang="ts">
import { daysBetween } from '@core/base/units/calendar.js';
import { formatIn, grouped, groupedUpTo } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { formatMoney } from '@core/workshop/prices/money.js';
import type { PourOption } from '@core/workshop/jobs/pourChoice.js';
import { waysOn, type PartHeld, type WayOn } from '@core/workshop/jobs/waysOn.js';
import { computed } from 'vue';

/** What can become of the loop, in figures: kept, one part out of it, a sealed cooler, air. */
const props = defineProps<{
  file: LoopFile;
  /** of the coolant that it has now */
  now: PourOption | null;
  today: string;
  hourMinor: number | null;
  currency: string;
  held: (PartHeld & { readonly name: string }) | null;
}>();
const NAMES: Readonly<Record<WayOn, string>> = {
  keep: 'kept as a loop',
  'half-way': 'one part out of it',
  sealed: 'a sealed cooler',
  air: 'air alone',
};
const ways = computed(() =>
  waysOn({
    file: props.file,
    serviceDays: props.now ? daysBetween(props.today, props.now.firstDueOn) : null,
    coolantMinor: props.now?.yearMinor ?? null,
    hourMinor: props.hourMinor,
    held: props.held,
  }),
);
const most = computed(() => Math.max(1, ...ways.value.map(({ hoursAYear }) => hoursAYear)));
const hottest = computed(() => Math.max(1, ...ways.value.map(({ overRoomK }) => (overRoomK ? overRoomK.k + 2 * overRoomK.sd : 0))));
const rows = computed(() =>
  ways.value.map(({ way, workHours, hoursAYear, yearMinor, overRoomK }) => ({
    way,
    name: say(NAMES[way]),
    work: workHours === 0 ? say('nothing to do') : say('{hours} h once', { hours: groupedUpTo(workHours, 2) }),
    year:
      yearMinor === null
        ? say('{hours} h a year', { hours: grouped(hoursAYear, 1) })
        : say('{hours} h a year, {money}', { hours: grouped(hoursAYear, 1), money: formatMoney(yearMinor, props.currency) }),
    width: `${(100 * hoursAYear) / most.value}%`,
    heat: overRoomK && {
      words: `${formatIn('K', overRoomK.k)} ± ${formatIn('K', overRoomK.sd)}`,
      measured: overRoomK.measured,
      from: `${(100 * Math.max(0, overRoomK.k - overRoomK.sd)) / hottest.value}%`,
      to: `${100 - (100 * (overRoomK.k + overRoomK.sd)) / hottest.value}%`,
    },
  })),
);
</script>

<template>
  <section aria-label="What can become of it">
    <h3>What can become of it</h3>
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Way</span></th>
          <th scope="col">Once</th>
          <th scope="col">Then</th>
          <th v-if="held" scope="col">{{ held.name }} over the room at {{ Math.round(held.powerW) }} W</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.way">
          <th scope="row">{{ row.name }}</th>
          <td class="figures">{{ row.work }}</td>
          <td>
            <b class="bar" :style="{ width: row.width }" aria-hidden="true" /><span class="figures">{{ row.year }}</span>
          </td>
          <td v-if="held && row.heat">
            <span class="heat" aria-hidden="true"
              ><i :class="{ guess: !row.heat.measured }" :style="{ left: row.heat.from, right: row.heat.to }" /></span
            ><span class="figures">{{ row.heat.words }}<template v-if="!row.heat.measured"> (estimate)</template></span>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="quiet">
      Hours are this machine’s usual ones; coolers and parts come on top. Sealed and air: the middle and spread of what makers state for
      coolers of the usual size; nobody measured this machine with one. Other parts in the loop stay in it, or need their own.
    </p>
  </section>
</template>

<style scoped>
h3 {
  margin: 0 0 4px;
  font-size: 1rem;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 6px 8px 6px 0;
  vertical-align: bottom;
  border-top: 1px solid var(--line-soft);
}
tbody th {
  font-weight: 600;
}
.bar {
  display: block;
  height: 8px;
  background: var(--ink);
  margin-bottom: 2px;
}
.heat {
  position: relative;
  display: block;
  height: 8px;
  border-bottom: 1px solid var(--line-soft);
  margin-bottom: 2px;
}
.heat i {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--ink-soft);
}
.heat i.guess {
  background: repeating-linear-gradient(90deg, var(--ink-soft) 0 3px, transparent 3px 6px);
}
</style>
