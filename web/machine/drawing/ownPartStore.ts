import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { ownKey, pickable, type OwnPart, type OwnPartInput } from '@core/machine/catalogue/ownParts.js';
import type { CataloguePart } from '@core/machine/catalogue/parts.js';
import { call, get } from '../../base/http/api.js';

/** Parts that the workshop keeps beside the general ones. */
export const useOwnParts = defineStore('own-parts', () => {
  const parts = ref<OwnPart[]>([]);
  let asked = false;
  const sorted = (all: OwnPart[]): OwnPart[] => [...all].sort((a, b) => a.label.localeCompare(b.label));
  const stands = (part: OwnPart): OwnPart => {
    parts.value = sorted([...parts.value.filter(({ id }) => id !== part.id), part]);
    return part;
  };

  /** asked for once; one that failed is asked again */
  async function load(): Promise<void> {
    if (asked) return;
    asked = true;
    try {
      parts.value = (await get<{ parts: OwnPart[] }>('/own-parts')).parts;
    } catch (error) {
      asked = false;
      throw error;
    }
  }

  const picks = computed(() => parts.value.flatMap((own): { own: OwnPart; part: CataloguePart }[] => {
    const part = pickable(own);
    return part ? [{ own, part }] : [];
  })); // prettier-ignore

  return {
    parts,
    picks,
    load,
    find: (key: string): OwnPart | null => parts.value.find(({ id }) => ownKey(id) === key) ?? null,
    add: async (body: OwnPartInput, idempotencyKey: string) => stands(await call<OwnPart>('POST', '/own-parts', { body, idempotencyKey })),
    edit: async ({ id, version }: Pick<OwnPart, 'id' | 'version'>, input: OwnPartInput) =>
      stands(await call<OwnPart>('PUT', `/own-parts/${id}`, { body: { ...input, version } })),
    bringBack: async (id: string) => stands(await call<OwnPart>('POST', `/own-parts/${id}/back`, {})),
    remove: async (id: string) => {
      await call('DELETE', `/own-parts/${id}`, {});
      parts.value = parts.value.filter((each) => each.id !== id);
    },
  };
});
