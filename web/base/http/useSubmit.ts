import { computed, ref, type Ref } from 'vue';
import { ApiError, wordsOf } from './api.js';

export interface Submit {
  readonly busy: Ref<boolean>;
  /** words about the last failure, or null */
  readonly problem: Ref<string | null>;
  /** a stale save: both versions, as the server sent them */
  readonly stale: Ref<{ yours: unknown; theirs: unknown } | null>;
  /** messages for one field of the form, by its path in the request */
  at(path: string): string[];
  /** runs the save once; pressing twice does nothing more, and a retry carries the same key */
  run<T>(save: (idempotencyKey: string) => Promise<T>): Promise<T | null>;
  clear(): void;
}

export function useSubmit(): Submit {
  const busy = ref(false);
  const error = ref<unknown>(null);
  let key = crypto.randomUUID();
  return {
    busy,
    problem: computed(() => (error.value === null ? null : wordsOf(error.value))),
    stale: computed(() => {
      const { value } = error;
      return value instanceof ApiError && value.code === 'stale' ? { yours: value.details.yours, theirs: value.details.theirs } : null;
    }),
    at: (path) =>
      error.value instanceof ApiError
        ? error.value.fields.filter((field) => field.path === path || field.path.startsWith(`${path}.`)).map(({ message }) => message)
        : [],
    async run(save) {
      if (busy.value) return null;
      busy.value = true;
      error.value = null;
      try {
        const result = await save(key);
        key = crypto.randomUUID();
        return result;
      } catch (caught) {
        error.value = caught;
        // a refused request was not done: its corrected successor is another one
        if (caught instanceof ApiError && caught.status >= 400 && caught.status < 500 && caught.status !== 401) key = crypto.randomUUID();
        return null;
      } finally {
        busy.value = false;
      }
    },
    clear: () => {
      error.value = null;
    },
  };
}
