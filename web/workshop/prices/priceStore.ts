import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { DEFAULT_RATES, hourOf, type PriceList } from '@core/workshop/prices/rates.js';
import { get } from '../../base/http/api.js';

/** What this workshop's prices are made from; empty until it was loaded. */
export const usePriceList = defineStore('prices', () => {
  const list = ref<PriceList>({ rates: DEFAULT_RATES, items: [], coolants: [] });
  return {
    list,
    currency: computed(() => list.value.rates.currency),
    /** prices are reckoned here */
    reckons: computed(() => hourOf(list.value.rates, '') !== null || Object.keys(list.value.rates.hourMinorByKind).length > 0),
    load: async (): Promise<void> => {
      list.value = await get<PriceList>('/price-list');
    },
  };
});
