import { say } from '@core/base/words/say.js';
import type { BenchRun, BenchesAnswer, NextSlot } from '@core/bench/benches/answers.js';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { ApiError, get } from '../../base/http/api.js';
import { latest } from '../../base/http/latest.js';
import { setServerNow } from '../../base/units/now.js';

/** ms; questions within it are one */
const TOGETHER_MS = 15;

/** What stands on which bench: the small answer that every page keeps fresh. */
export const useBenches = defineStore('benches', () => {
  const runs = ref<BenchRun[]>([]);
  const benches = ref<{ id: string; name: string }[]>([]);
  const next = ref<NextSlot[]>([]);
  const loaded = ref(false);
  const problem = ref<string | null>(null);
  const asking = latest();

  /** the question of this moment: what mounts together asks together */
  let asked: { readonly atMs: number; readonly answered: Promise<void> } | null = null;
  function refresh(): Promise<void> {
    const atMs = performance.now();
    if (asked === null || atMs - asked.atMs > TOGETHER_MS) asked = { atMs, answered: ask() };
    return asked.answered;
  }

  async function ask(): Promise<void> {
    const turn = asking.begin();
    const askedAt = performance.now();
    try {
      const answer = await get<BenchesAnswer>('/benches', turn.signal);
      if (!turn.counts) return;
      runs.value = answer.runs;
      benches.value = answer.benches;
      next.value = answer.next;
      loaded.value = true;
      problem.value = null;
      setServerNow(answer.now, askedAt);
    } catch (error) {
      if (turn.counts) problem.value = error instanceof ApiError ? error.message : say('The benches cannot be shown.');
    }
  }

  return { runs, benches, next, loaded, problem, refresh };
});
