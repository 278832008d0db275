<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import type { BillsAnswer } from '@core/workshop/prices/answers.js';
import { fromMinor } from '@core/workshop/prices/money.js';
import { lineAmount, lineName } from '@core/edge/words/prices.js';
import { JOB_WORDS } from '@core/workshop/job-kinds/kinds.js';
import { addDays } from '@core/base/units/calendar.js';
import { reactive, ref } from 'vue';
import { downloadTable } from '../../base/files/download.js';
import { get, wordsOf } from '../../base/http/api.js';
import DayField from '../../base/units/DayField.vue';

/** Finished jobs of some days as a table for the bookkeeping: one row a line. */
const props = defineProps<{ today: string }>();
const days = reactive({ from: `${props.today.slice(0, 7)}-01`, to: props.today });
const said = ref<string | null>(null);

async function download(): Promise<void> {
  said.value = null;
  try {
    const { rows } = await get<BillsAnswer>(`/bills?from=${days.from}&to=${days.to}`);
    if (rows.length === 0) {
      said.value = say('No job was finished in these days, or no prices are reckoned.');
      return;
    }
    const table = rows.flatMap(({ bill, ...row }) =>
      bill.lines.map((line) => ({
        finished_on: row.on,
        job: row.jobId,
        owner: row.owner,
        machine: row.system,
        kind: sayWord(JOB_WORDS[row.kind]) ?? row.kind,
        line: lineName(line),
        amount: lineAmount(line),
        sum: line.sumMinor === null ? '' : fromMinor(line.sumMinor, bill.currency),
        job_net: fromMinor(bill.netMinor, bill.currency),
        job_tax: fromMinor(bill.taxMinor, bill.currency),
        job_total: fromMinor(bill.totalMinor, bill.currency),
        tax_percent: bill.taxPercent,
        currency: bill.currency,
      })),
    );
    await downloadTable(table, `bills-${days.from}-to-${days.to}`);
  } catch (error) {
    said.value = wordsOf(error);
  }
}
const shift = (by: number): void => {
  days.from = `${addDays(days.from, by).slice(0, 7)}-01`;
  days.to = by < 0 ? addDays(`${addDays(days.from, 32).slice(0, 7)}-01`, -1) : props.today;
};
</script>

<template>
  <form class="row bills" novalidate @submit.prevent="download">
    <DayField v-model="days.from" label="Finished from" />
    <DayField v-model="days.to" label="to" />
    <v-btn variant="text" @click="shift(-1)">The month before</v-btn>
    <v-btn type="submit" variant="outlined">Bills as a table</v-btn>
    <p v-if="said" role="status">{{ said }}</p>
  </form>
</template>

<style scoped>
.bills {
  padding-top: 14px;
  align-items: center;
}
.bills > .v-input {
  flex: 1 1 140px;
}
</style>
