import { capital, say } from '@core/base/words/say.js';
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

type FieldProblem = ApiError['fields'][number];
const liesAt = ({ path }: FieldProblem, at: string): boolean => path === at || path.startsWith(`${at}.`) || path.startsWith(`${at}[`);
/** Under its own field a message needs no name of it: "owner.name may not be empty" is "May not be empty". */
const underField = ({ path, message }: FieldProblem): string =>
  capital(message.startsWith(`${path} `) ? message.slice(path.length + 1) : message);

export function useSubmit(): Submit {
  /** paths whose fields show their own messages */
  const shown = new Set<string>();
  const isShown = (field: FieldProblem): boolean => [...shown].some((at) => liesAt(field, at));
  const busy = ref(false);
  const error = ref<unknown>(null);
  let key = crypto.randomUUID();
  return {
    busy,
    problem: computed(() => {
      const { value } = error;
      if (value === null) return null;
      if (value instanceof ApiError && value.fields.length > 0 && value.fields.every(isShown))
        return say('Not taken yet: each field says why.');
      return wordsOf(value);
    }),
    stale: computed(() => {
      const { value } = error;
      return value instanceof ApiError && value.code === 'stale' ? { yours: value.details.yours, theirs: value.details.theirs } : null;
    }),
    at: (path) => {
      shown.add(path);
      return error.value instanceof ApiError ? error.value.fields.filter((field) => liesAt(field, path)).map(underField) : [];
    },
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
