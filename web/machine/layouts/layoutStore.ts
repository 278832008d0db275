import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { Layout } from '@core/machine/layouts/schema.js';
import { call, get } from '../../base/http/api.js';

/** Loops that the workshop begins others with. */
export const useLayouts = defineStore('layouts', () => {
  const layouts = ref<Layout[]>([]);
  const stands = (layout: Layout): void =>
    void (layouts.value = [...layouts.value.filter(({ id }) => id !== layout.id), layout].sort((a, b) => a.name.localeCompare(b.name)));

  return {
    layouts,
    load: async (): Promise<void> => void (layouts.value = (await get<{ layouts: Layout[] }>('/layouts')).layouts),
    add: async (body: Omit<Layout, 'id'>, idempotencyKey: string): Promise<Layout> => {
      const made = await call<Layout>('POST', '/layouts', { body, idempotencyKey });
      stands(made);
      return made;
    },
    remove: async ({ id }: Layout): Promise<void> => {
      await call('DELETE', `/layouts/${id}`, {});
      layouts.value = layouts.value.filter((each) => each.id !== id);
    },
    bringBack: async ({ id }: Layout): Promise<void> => stands(await call<Layout>('POST', `/layouts/${id}/back`, {})),
  };
});
