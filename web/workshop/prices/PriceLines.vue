<script setup lang="ts">
import type { Priced } from '@core/workshop/prices/priced.js';
import { formatMoney } from '@core/workshop/prices/money.js';
import { lineAmount, lineEach, lineName, taxWords, totalWords } from '@core/edge/words/prices.js';

/** An estimate or a bill line by line; each line's share of the sum is drawn under its name. */
const props = defineProps<{ priced: Priced; title: string }>();
const share = (sumMinor: number | null): string => {
  const all = props.priced.lines.reduce((sum, line) => sum + (line.sumMinor ?? 0), 0);
  return all === 0 ? '0' : `${(100 * (sumMinor ?? 0)) / all}%`;
};
</script>

<template>
  <table class="price-lines figures">
    <caption>
      {{
        title
      }}
    </caption>
    <tbody>
      <tr v-for="(line, index) in priced.lines" :key="index">
        <th scope="row">
          {{ lineName(line) }}
          <i aria-hidden="true" :style="{ width: share(line.sumMinor) }" />
        </th>
        <td>{{ lineAmount(line) }}</td>
        <td class="each">{{ lineEach(line, priced.currency) }}</td>
        <td class="sum">{{ line.sumMinor === null ? '–' : formatMoney(line.sumMinor, priced.currency) }}</td>
      </tr>
    </tbody>
    <tfoot>
      <tr>
        <th scope="row" colspan="2">In all</th>
        <td class="each">{{ taxWords(priced) }}</td>
        <td class="sum">
          <strong>{{ totalWords(priced) }}</strong>
        </td>
      </tr>
    </tfoot>
  </table>
</template>

<style scoped>
.price-lines {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 600;
  padding-bottom: 2px;
}
th {
  font-weight: 400;
  text-align: left;
}
th,
td {
  padding: 6px 10px 4px 0;
  border-top: 1px solid var(--line-soft);
  vertical-align: top;
}
i {
  display: block;
  height: 4px;
  margin-top: 3px;
  background: var(--ink-soft);
}
.each {
  color: var(--ink-soft);
}
.sum {
  text-align: right;
  padding-right: 0;
  white-space: nowrap;
}
tfoot th,
tfoot td {
  border-top: 2px solid var(--ink);
}
tfoot strong {
  font-size: 1.25rem;
}
</style>
