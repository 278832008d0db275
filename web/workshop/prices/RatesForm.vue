<script setup lang="ts">
import type { Shop } from '@core/workshop/people/answers.js';
import { BOOKED_KIND_KEYS, BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import { CURRENCIES } from '@core/workshop/prices/money.js';
import { CHARGES } from '@core/workshop/prices/rates.js';
import { capital, say } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { whenChanged } from '../../base/look/whenChanged.js';
import { useNotices } from '../../base/shell/notices.js';
import NumberField from '../../base/units/NumberField.vue';
import MoneyField from './MoneyField.vue';
import BillsTable from './BillsTable.vue';

/** What an hour costs, tax and currency: every estimate is reckoned from it. What was told before stands. */
const props = defineProps<{ shop: Shop['workshop']; isLead: boolean; today: string }>();
const emit = defineEmits<{ changed: [shop: Shop] }>();
const submit = useSubmit();
const notices = useNotices();
const copy = () => ({
  ...props.shop.rates,
  hourMinorByKind: { ...props.shop.rates.hourMinorByKind } as Partial<Record<BookedKind, number>>,
});
const form = ref(copy());
whenChanged(
  () => props.shop.rates,
  () => (form.value = copy()),
);
/** kinds with an hour of their own, and one more to choose */
const own = computed(() => BOOKED_KIND_KEYS.filter((kind) => form.value.hourMinorByKind[kind] !== undefined));
const more = computed(() => BOOKED_KIND_KEYS.filter((kind) => form.value.hourMinorByKind[kind] === undefined).map((value) => ({ value, title: say(BOOKED_KINDS[value].label) }))); // prettier-ignore
function setOwn(kind: BookedKind, minor: number | null): void {
  const { [kind]: _, ...rest } = form.value.hourMinorByKind;
  form.value.hourMinorByKind = minor === null ? rest : { ...rest, [kind]: minor };
}
const charges = Object.entries(CHARGES).map(([value, title]) => ({ value, title: capital(title) }));
const currencyNames = new Intl.DisplayNames('en-GB', { type: 'currency' });
const currencies = CURRENCIES.map((value) => ({ value, title: `${value}, ${currencyNames.of(value) ?? value}` }));

async function save(): Promise<void> {
  const saved = await submit.run(() => call<Shop>('PUT', '/workshop/rates', { body: { ...form.value, version: props.shop.version } }));
  if (!saved) return;
  emit('changed', saved);
  notices.say(say('Saved. New estimates follow it; what was told to owners stands.'));
}
</script>

<template>
  <section>
    <h2>Prices</h2>
    <p class="quiet">Prices of parts and coolants stand in the Store. No bookkeeping: bills go out as a table.</p>
    <form class="rates" novalidate @submit.prevent="save">
      <MoneyField
        v-model="form.hourMinor"
        label="An hour of work"
        :currency="form.currency"
        hint="Empty: no prices are reckoned"
        :errors="submit.at('hourMinor')"
      />
      <v-autocomplete
        v-model="form.currency"
        :items="currencies"
        label="Currency"
        :readonly="!isLead"
        :error-messages="submit.at('currency')"
      />
      <NumberField v-model="form.taxPercent as number | null" label="Tax" unit="%" :errors="submit.at('taxPercent')" />
      <v-select
        v-model="form.withTax"
        :items="[
          { value: true, title: 'Prices hold the tax' },
          { value: false, title: 'Tax is added to prices' },
        ]"
        label="Prices here"
        :readonly="!isLead"
      />
      <v-select v-model="form.charge" :items="charges" label="Hours are charged" :readonly="!isLead" />
      <NumberField
        v-model="form.overPercent as number | null"
        label="Ask the owner again above what was agreed by"
        unit="%"
        :errors="submit.at('overPercent')"
      />
      <MoneyField
        v-for="kind in own"
        :key="kind"
        :model-value="form.hourMinorByKind[kind] ?? null"
        :label="`An hour of: ${BOOKED_KINDS[kind].short}`"
        :currency="form.currency"
        hint="Empty: as any other hour"
        @update:model-value="setOwn(kind, $event)"
      />
      <v-select
        v-if="isLead && form.hourMinor !== null"
        :model-value="null"
        :items="more"
        label="Another price for one kind of job"
        @update:model-value="setOwn($event as unknown as BookedKind, form.hourMinor)"
      />
      <p v-if="submit.stale.value" role="alert" class="danger wide">Somebody changed the workshop meanwhile; load the page again.</p>
      <p v-else-if="submit.problem.value" role="alert" class="danger wide">{{ submit.problem.value }}</p>
      <v-btn v-if="isLead" type="submit" class="wide" :loading="submit.busy.value">Save the prices</v-btn>
    </form>
    <BillsTable :today="today" />
  </section>
</template>

<style scoped>
.rates {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  align-items: start;
  padding-top: 8px;
}
.wide {
  grid-column: 1 / -1;
  justify-self: start;
}
@media (max-width: 700px) {
  .rates {
    grid-template-columns: 1fr;
  }
}
</style>
