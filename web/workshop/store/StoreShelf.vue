<script setup lang="ts">
import type { StoreRow } from '@core/workshop/store/answers.js';
import { formatMl, groupedUpTo } from '@core/base/units/display.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { computed, onMounted, reactive, ref } from 'vue';
import { formatMoney } from '@core/workshop/prices/money.js';
import { PRICE_FOR } from '@core/workshop/prices/rates.js';
import MoneyField from '../prices/MoneyField.vue';
import { usePriceList } from '../prices/priceStore.js';
import { ITEM_KINDS, UNITS, type ItemKind, type StoreUnit } from '@core/workshop/store/schema.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import NumberField from '../../base/units/NumberField.vue';

/** Counted things: how many are left, drawn against the mark at which more is ordered. */
const props = defineProps<{ items: readonly StoreRow[] }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const moving = useSubmit();
const adding = ref(false);
const at = ref<string | null>(null);
const counting = useSubmit();
const pricing = useSubmit();
const counted = ref<number | null>(null);
const price = ref<number | null>(null);
const prices = usePriceList();
onMounted(() => void prices.load().catch(() => undefined));
const move = reactive({ change: null as number | null, reason: 'came in' });
const blank = () => ({
  name: '',
  kind: 'seal' as ItemKind,
  unit: 'pcs' as StoreUnit,
  lot: '',
  count: null as number | null,
  reorderAt: 0 as number | null,
});
const form = reactive(blank());
const kinds = Object.entries(ITEM_KINDS).map(([value, title]) => ({ value, title: sayWord(title) }));
const groups = computed(() =>
  Object.entries(ITEM_KINDS)
    .map(([kind, title]) => ({ kind, title, items: props.items.filter((item) => item.kind === kind) }))
    .filter(({ items }) => items.length > 0),
);

async function add(): Promise<void> {
  if (!(await submit.run((idempotencyKey) => call('POST', '/store/items', { body: { ...form }, idempotencyKey })))) return;
  Object.assign(form, blank());
  adding.value = false;
  emit('changed');
}
async function change(): Promise<void> {
  if (!(await moving.run((idempotencyKey) => call('POST', `/store/items/${at.value}/moves`, { body: { ...move }, idempotencyKey }))))
    return;
  Object.assign(move, { change: null, reason: 'came in' });
  at.value = null;
  emit('changed');
}
function open(item: StoreRow): void {
  at.value = at.value === item.id ? null : item.id;
  for (const each of [moving, counting, pricing]) each.clear();
  counted.value = null;
  price.value = item.priceMinor;
}
async function count(item: StoreRow): Promise<void> {
  const body = { count: counted.value, version: item.version };
  if (!(await counting.run(() => call('PUT', `/store/items/${item.id}/count`, { body })))) return;
  at.value = null;
  emit('changed');
}
async function setPrice(item: StoreRow): Promise<void> {
  const body = { priceMinor: price.value, version: item.version };
  if (!(await pricing.run(() => call('PUT', `/store/items/${item.id}/price`, { body })))) return;
  at.value = null;
  emit('changed');
}
const priceWords = ({ priceMinor, unit }: StoreRow): string =>
  priceMinor === null ? '' : `${formatMoney(priceMinor, prices.currency)} ${say(PRICE_FOR[unit].words)}`;
/** the bar is full at twice the reorder mark */
const share = (item: StoreRow, value: number): string => {
  const full = Math.max(2 * item.reorderAt, item.count, 1);
  return `${Math.max(0, Math.min(100, (100 * value) / full))}%`;
};
</script>

<template>
  <section>
    <header class="spread">
      <h2>Counted things</h2>
      <v-btn variant="outlined" @click="adding = !adding">{{ adding ? 'Close' : 'New thing' }}</v-btn>
    </header>
    <form v-if="adding" class="form" novalidate @submit.prevent="add">
      <v-text-field v-model="form.name" label="Name and size" placeholder="O-ring 11 × 2" :error-messages="submit.at('name')" />
      <v-select v-model="form.kind" :items="kinds" label="Kind" />
      <v-select v-model="form.unit" :items="[...UNITS]" label="Counted in" />
      <v-text-field v-model="form.lot" label="Lot, if it has one" />
      <NumberField v-model="form.count" label="On the shelf" :unit="form.unit" :errors="submit.at('count')" />
      <NumberField v-model="form.reorderAt" label="Reorder at" :unit="form.unit" :errors="submit.at('reorderAt')" />
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <v-btn type="submit" size="large" :loading="submit.busy.value">Onto the shelf</v-btn>
    </form>
    <p v-if="items.length === 0 && !adding" class="quiet">
      Nothing is counted yet. Start with the O-rings: a job that uses one at the bench takes it off here.
    </p>
    <template v-for="group in groups" :key="group.kind">
      <h3>{{ capital(group.title) }}</h3>
      <ul class="plain-list">
        <li v-for="item in group.items" :key="item.id">
          <button type="button" class="item" :aria-expanded="at === item.id" @click="open(item)">
            <span
              >{{ item.name }} <span v-if="item.lot" class="quiet">lot {{ item.lot }}</span>
              <span v-if="item.priceMinor !== null" class="quiet figures">{{ priceWords(item) }}</span></span
            >
            <span class="bar" aria-hidden="true"
              ><i :style="{ width: share(item, item.count) }" /><b v-if="item.reorderAt > 0" :style="{ left: share(item, item.reorderAt) }"
            /></span>
            <span class="figures"
              >{{ item.unit === 'mL' ? formatMl(item.count) : `${groupedUpTo(item.count, 1)} ${item.unit}`
              }}<strong v-if="item.count < 0"> count again</strong><strong v-else-if="item.count < item.reorderAt"> low</strong></span
            >
          </button>
          <div v-if="at === item.id" class="acts">
            <form class="row" novalidate @submit.prevent="change">
              <NumberField v-model="move.change" label="More, or less with a minus" :unit="item.unit" :errors="moving.at('change')" />
              <v-text-field v-model="move.reason" label="Why" :error-messages="moving.at('reason')" />
              <v-btn type="submit" :loading="moving.busy.value">Write it down</v-btn>
            </form>
            <form class="row" novalidate @submit.prevent="count(item)">
              <NumberField v-model="counted" label="Counted again: so many lie there" :unit="item.unit" :errors="counting.at('count')" />
              <v-btn type="submit" variant="outlined" :loading="counting.busy.value">So many</v-btn>
            </form>
            <form class="row" novalidate @submit.prevent="setPrice(item)">
              <MoneyField
                v-model="price"
                :label="`Price, ${PRICE_FOR[item.unit].words}`"
                :currency="prices.currency"
                :errors="pricing.at('priceMinor')"
              />
              <v-btn type="submit" variant="outlined" :loading="pricing.busy.value">Set the price</v-btn>
            </form>
            <p
              v-for="(words, index) in [counting, pricing].map((each) =>
                each.stale.value ? 'Somebody changed it meanwhile; close it and look again.' : each.problem.value,
              )"
              :key="index"
              role="alert"
              class="danger"
            >
              {{ words }}
            </p>
          </div>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 14px 0 2px;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 4px 12px;
  padding-top: 10px;
}
.item {
  display: grid;
  grid-template-columns: 1.3fr 1fr 110px;
  gap: 18px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  text-align: left;
  border-top: 1px solid var(--line-soft);
}
.bar {
  position: relative;
  height: 12px;
  background: var(--well);
}
.bar i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--ink-soft);
}
.bar b {
  position: absolute;
  top: -4px;
  bottom: -4px;
  width: 3px;
  background: var(--ink);
}
.acts {
  display: grid;
  gap: 4px;
  padding: 6px 0 12px;
}
.acts p:empty {
  display: none;
}
.row > * {
  flex: 1;
}
.row > .v-btn {
  flex: 0 0 150px;
}
</style>
