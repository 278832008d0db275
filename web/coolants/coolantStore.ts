import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { CoolantProductInput } from '@core/coolants/schema.js';
import { get } from '../http/api.js';

export interface Batch {
  id: string;
  productId: string;
  lot: string;
  openedOn: string | null;
}

export interface Product extends CoolantProductInput {
  id: string;
  batches: Batch[];
}

/** The workshop's coolants and their open lots. */
export const useCoolants = defineStore('coolants', () => {
  const products = ref<Product[]>([]);
  return {
    products,
    load: async () => {
      products.value = (await get<{ products: Product[] }>('/coolants')).products;
    },
    find: (id: string | null): Product | null => products.value.find((product) => product.id === id) ?? null,
  };
});
