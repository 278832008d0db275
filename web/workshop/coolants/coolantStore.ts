import type { Product } from '@core/workshop/coolants/answers.js';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { liquidOf, type Liquid } from '@core/machine/liquids/fluids.js';
import { get } from '../../base/http/api.js';
import { rememberAnswer, rememberedAnswer } from '../../base/outbox/deviceStore.js';

/** The workshop's coolants and their open lots. */
export const useCoolants = defineStore('coolants', () => {
  const products = ref<Product[]>([]);
  const find = (id: string | null): Product | null => products.value.find((product) => product.id === id) ?? null;
  return {
    products,
    load: async () => {
      try {
        products.value = (await get<{ products: Product[] }>('/coolants')).products;
        void rememberAnswer('coolants', products.value).catch(() => undefined);
      } catch (error) {
        // away from the network the bench goes on with the shelf as it was last seen
        const known = await rememberedAnswer<Product[]>('coolants').catch(() => null);
        if (!known) throw error;
        products.value = known;
      }
    },
    find,
    /** what a loop filled with it holds; water where nothing is known */
    liquidOf: (id: string | null): Liquid => liquidOf(find(id)),
  };
});
