import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef, type WatchSource } from 'vue';
import { ApiError, wordsOf } from './api.js';
import { latest } from './latest.js';

export interface Page<T> {
  /** null before the first answer */
  readonly data: Readonly<ShallowRef<T | null>>;
  readonly problem: Ref<string | null>;
  /** there is nothing at this address */
  readonly missing: Ref<boolean>;
  readonly loading: Ref<boolean>;
  /** what was asked first is known, or cannot be */
  readonly settled: ComputedRef<boolean>;
  load(): Promise<void>;
  /** an answer that came another way, such as that of a save */
  take(answer: T): void;
}

/**
 * The one way to load what a page shows. It asks again when what the question depends on changes, cancels the question
 * before, and never lets a late answer win.
 * @param on what the question depends on; null in it: there is nothing to ask yet
 */
export function usePage<T>(ask: (signal: AbortSignal) => Promise<T>, on?: WatchSource<unknown>): Page<T> {
  const data = shallowRef<T | null>(null);
  const problem = ref<string | null>(null);
  const missing = ref(false);
  const loading = ref(false);
  const asking = latest();

  async function load(): Promise<void> {
    const turn = asking.begin();
    loading.value = true;
    try {
      const answer = await ask(turn.signal);
      if (!turn.counts) return;
      data.value = answer;
      problem.value = null;
      missing.value = false;
    } catch (error) {
      if (!turn.counts) return;
      missing.value = error instanceof ApiError && error.status === 404;
      problem.value = wordsOf(error);
    } finally {
      if (turn.counts) loading.value = false;
    }
  }

  if (on) watch(on, (value) => value !== null && void load(), { immediate: true });
  else void load();
  onScopeDispose(() => asking.cancel());
  return {
    data,
    problem,
    missing,
    loading,
    settled: computed(() => data.value !== null || problem.value !== null),
    load,
    take: (answer) => {
      // what a save answers is newer than what was asked before it
      asking.cancel();
      loading.value = false;
      data.value = answer;
      problem.value = null;
      missing.value = false;
    },
  };
}
