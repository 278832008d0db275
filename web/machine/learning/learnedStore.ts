import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { CataloguePart } from '@core/machine/catalogue/parts.js';
import type { AskedFill, LearnedAnswer, TaughtVerdict } from '@core/physics/learning/answers.js';
import type { LearnedGas, LearnedItem } from '@core/physics/learning/catalogueVolumes.js';
import { call, get } from '../../base/http/api.js';

/** Volumes of catalogue parts as this workshop's own fills tell them. */
export const useLearned = defineStore('learned', () => {
  const items = ref<LearnedItem[]>([]);
  const fills = ref(0);
  const gas = ref<LearnedGas[]>([]);
  const asked = ref<AskedFill[]>([]);
  const wider = ref(1);
  const byKey = computed(() => new Map(items.value.map((item) => [item.key, item])));

  async function load(): Promise<void> {
    take(await get<LearnedAnswer>('/learned-volumes'));
  }

  function take(answer: LearnedAnswer): void {
    items.value = answer.items;
    fills.value = answer.fills;
    gas.value = answer.gas;
    asked.value = answer.surprising;
    wider.value = answer.wider;
  }

  /** What the lead says of a fill that surprises; null takes it back. */
  const judge = async (id: string, verdict: TaughtVerdict | null): Promise<void> =>
    take(await call<LearnedAnswer>('PUT', `/fills/${id}/verdict`, { body: { verdict } }));

  const find = (key: string): LearnedItem | null => byKey.value.get(key) ?? null;

  /** The part with the learned volume in place of the general estimate. */
  function withLearned(part: CataloguePart): CataloguePart {
    const item = find(part.key);
    if (!item) return part;
    const volumeMl = Math.round(item.learned.volumeMl);
    return { ...part, volumeMl, fixed: { ...part.fixed, volume_sd_ml: Math.round(item.learned.sdMl * 10) / 10 } };
  }

  return { items, fills, gas, asked, wider, load, judge, find, withLearned };
});
