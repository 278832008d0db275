<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { LotRow } from '@core/workshop/store/answers.js';
import { reactive, ref } from 'vue';
import { formatMl, groupedUpTo } from '@core/base/units/display.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useDates } from '../../base/units/dates.js';
import NumberField from '../../base/units/NumberField.vue';
import DayField from '../../base/units/DayField.vue';

/** Coolant by lot: its bottles, the last one as full as it stands on the shelf. */
defineProps<{ lots: readonly LotRow[] }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const dates = useDates();
const at = ref<string | null>(null);
const form = reactive({ stockMl: null as number | null, openedOn: '', keepsUntil: '', samplePlace: '', version: 1 });

function open(lot: LotRow): void {
  at.value = at.value === lot.id ? null : lot.id;
  submit.clear();
  Object.assign(form, {
    stockMl: lot.stockMl,
    openedOn: lot.openedOn ?? '',
    keepsUntil: lot.keepsUntil ?? '',
    samplePlace: lot.samplePlace,
    version: lot.version,
  });
}
async function save(): Promise<void> {
  const body = {
    stockMl: form.stockMl,
    openedOn: form.openedOn || null,
    keepsUntil: form.keepsUntil || null,
    samplePlace: form.samplePlace,
    version: form.version,
  };
  if (!(await submit.run(() => call('PUT', `/coolant-lots/${at.value}`, { body })))) return;
  at.value = null;
  emit('changed');
}
/** bottles that are drawn; above them the figure says it */
const MOST_DRAWN = 6;
/** How full each bottle of a lot is: full ones, then the open one. One dashed half where nobody counts. */
function bottles({ stockMl, bottleMl }: LotRow): number[] {
  if (stockMl === null) return [0.5];
  const whole = Math.floor(stockMl / bottleMl + 1e-9);
  const rest = stockMl / bottleMl - whole;
  const all = [...Array<number>(whole).fill(1), ...(rest > 1e-6 || whole === 0 ? [rest] : [])];
  return all.slice(-MOST_DRAWN);
}
const bottleWords = ({ stockMl, bottleMl }: LotRow): string =>
  stockMl === null
    ? say('not counted')
    : `${formatMl(stockMl)}, ${groupedUpTo(stockMl / bottleMl, 1)} ${stockMl === bottleMl ? say('bottle') : say('bottles')}`;
</script>

<template>
  <section>
    <h2>Coolant lots</h2>
    <p v-if="lots.length === 0" class="quiet">No lot yet. Add a coolant and its lot above; what a fill takes is taken off here.</p>
    <ul class="plain-list lots">
      <li v-for="lot in lots" :key="lot.id" :class="{ wide: at === lot.id }">
        <button type="button" class="lot" :aria-expanded="at === lot.id" @click="open(lot)">
          <span class="bottles" aria-hidden="true"
            ><span v-for="(share, index) in bottles(lot)" :key="index" class="bottle"
              ><i :style="{ height: `${100 * share}%`, background: lot.colour }" :class="{ unknown: lot.stockMl === null }" /></span
          ></span>
          <span>
            <strong>{{ lot.productName }}</strong><br />
            <span class="quiet figures">lot {{ lot.lot }}</span
            ><br />
            <span class="figures">{{ bottleWords(lot) }}</span>
            <span v-if="lot.expired" class="danger"> past its day</span>
            <span v-else-if="lot.keepsUntil" class="quiet"> keeps to {{ dates.day(lot.keepsUntil) }}</span>
            <template v-if="lot.samplePlace"
              ><br /><span class="quiet">sample: {{ lot.samplePlace }}</span></template
            >
          </span>
        </button>
        <form v-if="at === lot.id" class="form" novalidate @submit.prevent="save">
          <NumberField v-model="form.stockMl" label="On the shelf" unit="mL" :errors="submit.at('stockMl')" />
          <DayField v-model="form.openedOn" label="Opened" :errors="submit.at('openedOn')" />
          <DayField v-model="form.keepsUntil" label="Keeps to" :errors="submit.at('keepsUntil')" />
          <v-text-field v-model="form.samplePlace" label="Retained sample stands" placeholder="window shelf, tube 4" />
          <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
          <v-btn type="submit" :loading="submit.busy.value">Save</v-btn>
        </form>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.lots {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(275px, 1fr));
  gap: 14px 20px;
  padding-top: 10px;
}
.wide {
  grid-column: 1 / -1;
}
.lot {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 14px;
  text-align: left;
  align-items: end;
}
.bottles {
  display: flex;
}
.bottle + .bottle {
  margin-left: -14px;
}
.bottle {
  position: relative;
  width: 40px;
  height: 74px;
  border: 2px solid var(--ink);
  border-radius: 12px 12px 3px 3px;
  overflow: hidden;
  background: var(--sheet);
}
.bottle i {
  position: absolute;
  inset: auto 0 0;
  border-top: 2px solid var(--ink);
}
.bottle .unknown {
  height: 50% !important;
  opacity: 0.3;
  border-top-style: dashed;
}
.form {
  display: grid;
  grid-template-columns: repeat(4, 1fr) auto;
  gap: 10px;
  padding-top: 10px;
}
@media (max-width: 800px) {
  .form {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
