<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Product } from '@core/workshop/coolants/answers.js';
import { reactive, ref } from 'vue';
import { COOLANT_CLASSES, COOLANT_CLASS_KEYS, type CoolantClass } from '@core/machine/liquids/classes.js';
import { liquidOf, liquidWords } from '@core/machine/liquids/fluids.js';
import { METAL_KEYS, METAL_WORDS, type Metal } from '@core/machine/materials/metals.js';
import { formatMl } from '@core/base/units/display.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import NumberField from '../../base/units/NumberField.vue';
import LimitChange from './LimitChange.vue';
import FileList from '../files/FileList.vue';
import { formatMoney } from '@core/workshop/prices/money.js';
import MoneyField from '../prices/MoneyField.vue';
import { usePriceList } from '../prices/priceStore.js';
import { useCoolants } from './coolantStore.js';

/** The bottles on the shelf: each in its liquid's colour, with its class, life and lots. */
const emit = defineEmits<{ changed: [] }>();
const coolants = useCoolants();
const submit = useSubmit();
const lotSubmit = useSubmit();
const adding = ref(false);
const lotFor = ref<string | null>(null);
const limitFor = ref<string | null>(null);
const priceFor = ref<string | null>(null);
const price = ref<number | null>(null);
const pricing = useSubmit();
const prices = usePriceList();
function openPrice({ id, priceMinor }: Product): void {
  pricing.clear();
  priceFor.value = priceFor.value === id ? null : id;
  price.value = priceMinor;
}
async function setPrice({ id, version }: Product): Promise<void> {
  if (!(await pricing.run(() => call('PUT', `/coolants/${id}/price`, { body: { priceMinor: price.value, version } })))) return;
  priceFor.value = null;
  await coolants.load();
}
/** what its sheet says of metals; none chosen: it names none */
const metalsOf = ref<string | null>(null);
const metals = ref<Metal[]>([]);
const suiting = useSubmit();
const METALS = METAL_KEYS.map((value) => ({ value, title: say(METAL_WORDS[value]) }));
function openMetals({ id, metals: now }: Product): void {
  suiting.clear();
  metalsOf.value = metalsOf.value === id ? null : id;
  metals.value = [...(now ?? [])];
}
async function setMetals({ id, version }: Product): Promise<void> {
  const chosen = metals.value.length > 0 ? metals.value : null;
  if (!(await suiting.run(() => call('PUT', `/coolants/${id}/metals`, { body: { metals: chosen, version } })))) return;
  metalsOf.value = null;
  await coolants.load();
}
/** the coolant whose sheets are open */
const papersOf = ref<string | null>(null);
const lot = ref('');

const blank = () => ({
  name: '',
  coolantClass: 'clear' as CoolantClass,
  colour: '#7fb8c9',
  form: 'ready-mix' as 'ready-mix' | 'concentrate',
  percent: null as number | null,
  bottleMl: 1000 as number | null,
  sheetLifeMonths: null as number | null,
  sheetLifeHours: null as number | null,
  glycol: null as 'ethylene' | 'propylene' | null,
  glycolPercent: null as number | null,
});
const form = reactive(blank());
const GLYCOLS = [
  { value: null, title: 'none, or not on its sheet' },
  { value: 'ethylene', title: 'ethylene glycol' },
  { value: 'propylene', title: 'propylene glycol' },
];
const classes = COOLANT_CLASS_KEYS.map((value) => ({ value, title: say(COOLANT_CLASSES[value].label) }));

function lifeWords(product: Product): string {
  const sheet = [
    ...(product.sheetLifeMonths === null ? [] : [say('{sheetLifeMonths} months', { sheetLifeMonths: product.sheetLifeMonths })]),
    ...(product.sheetLifeHours === null ? [] : [say('{sheetLifeHours} running hours', { sheetLifeHours: product.sheetLifeHours })]),
  ];
  if (sheet.length > 0) return say('{join} by its sheet', { join: sheet.join(' or ') });
  const base = COOLANT_CLASSES[product.coolantClass];
  return base.baseLifeRunningHours === null
    ? say('{baseLifeMonths} months for its class', { baseLifeMonths: base.baseLifeMonths })
    : say('{baseLifeRunningHours} running hours for its class', { baseLifeRunningHours: base.baseLifeRunningHours });
}

async function add(): Promise<void> {
  const { percent, glycolPercent, ...rest } = form;
  const made = await submit.run((idempotencyKey) =>
    call<Product>('POST', '/coolants', {
      body: {
        ...rest,
        targetFraction: form.form === 'concentrate' && percent !== null ? percent / 100 : null,
        glycolFraction: form.glycol !== null && glycolPercent !== null ? glycolPercent / 100 : null,
      },
      idempotencyKey,
    }),
  );
  if (!made) return;
  adding.value = false;
  Object.assign(form, blank());
  await coolants.load();
}

async function addLot(productId: string): Promise<void> {
  const made = await lotSubmit.run((idempotencyKey) =>
    call('POST', '/coolant-lots', { body: { productId, lot: lot.value.trim(), openedOn: null }, idempotencyKey }),
  );
  if (!made) return;
  lotFor.value = null;
  lot.value = '';
  await coolants.load();
  emit('changed');
}
</script>

<template>
  <section>
    <header class="spread">
      <h2>Coolants</h2>
      <router-link to="/workshop/lives">How long they last here</router-link>
      <v-btn variant="outlined" @click="adding = !adding">{{ adding ? 'Close' : 'New coolant' }}</v-btn>
    </header>
    <form v-if="adding" class="form mt-3" novalidate @submit.prevent="add">
      <v-text-field v-model="form.name" label="Name on the bottle" :error-messages="submit.at('name')" />
      <v-select v-model="form.coolantClass" :items="classes" label="Class" />
      <v-select v-model="form.form" :items="['ready-mix', 'concentrate']" label="Comes as" />
      <NumberField
        v-if="form.form === 'concentrate'"
        v-model="form.percent"
        label="Share in the loop"
        unit="%"
        :errors="submit.at('targetFraction')"
      />
      <NumberField v-model="form.bottleMl" label="Bottle" unit="mL" :errors="submit.at('bottleMl')" />
      <NumberField v-model="form.sheetLifeMonths" label="Life by its sheet, if any" unit="months" :errors="submit.at('sheetLifeMonths')" />
      <NumberField v-model="form.sheetLifeHours" label="Or running hours by its sheet" unit="h" :errors="submit.at('sheetLifeHours')" />
      <v-select v-model="form.glycol" :items="GLYCOLS" label="Holds glycol" />
      <NumberField
        v-if="form.glycol !== null"
        v-model="form.glycolPercent"
        label="Glycol in the loop, by mass"
        unit="%"
        :errors="submit.at('glycolFraction')"
      />
      <label class="colour">Colour of the liquid <input v-model="form.colour" type="color" /></label>
      <v-btn type="submit" size="large" :loading="submit.busy.value">Add to the shelf</v-btn>
      <p v-if="submit.problem.value" role="alert" class="danger wide">{{ submit.problem.value }}</p>
    </form>
    <ul class="plain-list shelf">
      <li v-for="product in coolants.products" :key="product.id" :class="{ wide: limitFor === product.id }">
        <span class="bottle" :style="{ background: product.colour }" />
        <div>
          <strong>{{ product.name }}</strong>
          <p class="quiet figures">
            {{ COOLANT_CLASSES[product.coolantClass].label }} ·
            {{ product.form === 'concentrate' ? `concentrate, ${Math.round((product.targetFraction ?? 0) * 100)} %` : 'ready-mix' }} ·
            {{ formatMl(product.bottleMl) }} · {{ lifeWords(product)
            }}<template v-if="product.glycol"> · {{ liquidWords(liquidOf(product)) }}</template>
          </p>
          <p class="figures">
            Lots: {{ product.lots.map((each) => each.lot).join(', ') || 'none' }}
            <button
              type="button"
              class="link"
              :aria-label="`add a lot: ${product.name}`"
              @click="lotFor = lotFor === product.id ? null : product.id"
            >
              add a lot</button
            >,
            <button
              type="button"
              class="link"
              :aria-label="`its limit changed: ${product.name}`"
              @click="limitFor = limitFor === product.id ? null : product.id"
            >
              its limit changed</button
            >,
            <button type="button" class="link" :aria-expanded="priceFor === product.id" @click="openPrice(product)">
              {{ product.priceMinor === null ? 'its price' : `${formatMoney(product.priceMinor, prices.currency)} a litre`
              }}<span class="visually-hidden">: {{ product.name }}</span></button
            >,
            <button
              type="button"
              class="link"
              :aria-label="`its metals: ${product.name}`"
              :aria-expanded="metalsOf === product.id"
              @click="openMetals(product)"
            >
              {{ product.metals === null ? 'its metals' : product.metals.map((each) => say(METAL_WORDS[each])).join(', ') }}</button>,
            <button
              type="button"
              class="link"
              :aria-label="`its files: ${product.name}`"
              :aria-expanded="papersOf === product.id"
              @click="papersOf = papersOf === product.id ? null : product.id"
            >
              its files
            </button>
          </p>
          <form v-if="priceFor === product.id" class="row" novalidate @submit.prevent="setPrice(product)">
            <MoneyField v-model="price" label="A litre of the bottle" :currency="prices.currency" :errors="pricing.at('priceMinor')" />
            <v-btn type="submit" :loading="pricing.busy.value">Set the price</v-btn>
            <p v-if="pricing.problem.value" role="alert" class="danger">{{ pricing.problem.value }}</p>
          </form>
          <form v-if="metalsOf === product.id" class="row" novalidate @submit.prevent="setMetals(product)">
            <v-select
              v-model="metals"
              :items="METALS"
              label="Metals that its sheet suits"
              multiple
              chips
              :error-messages="suiting.at('metals')"
            />
            <v-btn type="submit" :loading="suiting.busy.value">Set the metals</v-btn>
            <p v-if="suiting.problem.value" role="alert" class="danger">{{ suiting.problem.value }}</p>
          </form>
          <LimitChange v-if="limitFor === product.id" :product="product" @changed="coolants.load()" />
          <FileList v-if="papersOf === product.id" owner="coolants" :owner-id="product.id" usual="safety-sheet" />
          <form v-if="lotFor === product.id" class="row" @submit.prevent="addLot(product.id)">
            <v-text-field v-model="lot" label="Lot on the bottle" autofocus :error-messages="lotSubmit.problem.value ?? []" /><v-btn
              type="submit"
              :loading="lotSubmit.busy.value"
              >Add</v-btn
            >
          </form>
        </div>
      </li>
    </ul>
    <p v-if="coolants.products.length === 0" class="quiet mt-2">
      No coolant yet. Add the first bottle: its class and life decide when a fill is due.
    </p>
  </section>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.colour {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 48px;
}
.colour input {
  width: 64px;
  height: 44px;
}
.shelf {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 28px;
  margin-top: 12px;
}
.shelf li {
  display: grid;
  grid-template-columns: 26px 1fr;
  gap: 16px;
  padding: 10px 0;
  border-top: 1px solid var(--line-soft);
}
.shelf p {
  margin: 0;
}
.bottle {
  border: 2px solid var(--ink);
  border-radius: 9px 9px 3px 3px;
  min-height: 58px;
  align-self: start;
}
.link {
  text-decoration: underline;
}
@media (max-width: 900px) {
  .shelf,
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
