import type { SystemLine, SystemsAnswer } from '@core/workshop/machines/answers.js';
import { PAGE } from '@core/workshop/machine-list/pages.js';
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { get, wordsOf } from '../../base/http/api.js';
import { latest } from '../../base/http/latest.js';
import { linesPath, type LinesAsked } from './linesPath.js';

export interface Lines {
  readonly lines: ComputedRef<SystemLine[]>;
  readonly first: Readonly<Ref<SystemsAnswer | null>>;
  /** there are more behind those that are here */
  readonly hasMore: ComputedRef<boolean>;
  readonly loading: Ref<boolean>;
  readonly problem: Ref<string | null>;
  more(): Promise<void>;
  load(): Promise<void>;
  /** a first page that came another way */
  take(answer: SystemsAnswer): void;
}

/** Pages of the list of machines, one behind the other. A list that is asked for anew begins again; late answers never win. @param isFirstGiven the first page comes with another answer, by `take` */
export function useLines(asked: () => LinesAsked, isFirstGiven = false): Lines {
  const pages = shallowRef<readonly SystemsAnswer[]>([]);
  const loading = ref(false);
  const problem = ref<string | null>(null);
  const asking = latest();

  async function ask(after: string | null): Promise<void> {
    const turn = asking.begin();
    loading.value = true;
    try {
      const page = await get<SystemsAnswer>(linesPath(asked(), after), turn.signal);
      if (!turn.counts) return;
      pages.value = after === null ? [page] : [...pages.value, page];
      problem.value = null;
    } catch (error) {
      if (turn.counts) problem.value = wordsOf(error);
    } finally {
      if (turn.counts) loading.value = false;
    }
  }

  const after = computed(() => pages.value.at(-1)?.after ?? null);
  if (!isFirstGiven) watch(asked, (now, before) => JSON.stringify(now) !== JSON.stringify(before) && void ask(null), { immediate: true });
  onScopeDispose(() => asking.cancel());
  return {
    lines: computed(() => {
      // a machine that moved while one read on may come twice: it stands where it came first
      const seen = new Set<string>();
      return pages.value.flatMap(({ systems }) => systems.filter(({ id }) => !seen.has(id) && seen.add(id)));
    }),
    first: computed(() => pages.value[0] ?? null),
    hasMore: computed(() => after.value !== null),
    loading,
    problem,
    more: async () => {
      if (after.value !== null && !loading.value) await ask(after.value);
    },
    load: () => ask(null),
    take: (answer) => {
      asking.cancel();
      loading.value = false;
      pages.value = [answer];
    },
  };
}

/** Every page of a list, for a table of it. @param told how many are here, of how many */
export async function allLines(asked: LinesAsked, told: (done: number, of: number) => void, signal: AbortSignal): Promise<SystemLine[]> {
  const lines: SystemLine[] = [];
  let of = 0;
  for (let after: string | null = null, isFirst = true; isFirst || after !== null; isFirst = false) {
    const page: SystemsAnswer = await get<SystemsAnswer>(linesPath(asked, after, PAGE.most), signal);
    of = page.found ?? of;
    lines.push(...page.systems);
    told(lines.length, of);
    after = page.after;
  }
  return lines;
}
