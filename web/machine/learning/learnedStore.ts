import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { CataloguePart } from '@core/machine/catalogue/parts.js';
import type { LearnedItem } from '@core/physics/learning/volumes.js';
import { get } from '../../base/http/api.js';

/** Volumes of catalogue parts as this workshop's own fills tell them. */
export const useLearned = defineStore('learned', () => {
  const items = ref<LearnedItem[]>([]);
  const fills = ref(0);
  const byKey = computed(() => new Map(items.value.map((item) => [item.key, item])));

  async function load(): Promise<void> {
    const answer = await get<{ items: LearnedItem[]; fills: number }>('/learned-volumes');
    items.value = answer.items;
    fills.value = answer.fills;
  }

  const find = (key: string): LearnedItem | null => byKey.value.get(key) ?? null;

  /** The part with the learned volume in place of the general estimate. */
  function withLearned(part: CataloguePart): CataloguePart {
    const item = find(part.key);
    if (!item) return part;
    const volumeMl = Math.round(item.learned.volumeMl);
    return { ...part, volumeMl, fixed: { ...part.fixed, volume_sd_ml: Math.round(item.learned.sdMl * 10) / 10 } };
  }

  return { items, fills, load, find, withLearned };
});
