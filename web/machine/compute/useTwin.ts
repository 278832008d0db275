import { wrap, type Remote } from 'comlink';
import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { reading, type Reading } from '@core/base/units/reading.js';
import { TwinEngine } from './twinEngine.js';
import type { TwinInWorker } from './twinWorker.js';

/** The twin in a worker, or beside the page where there are no workers. */
export interface Twin {
  readonly engine: Remote<TwinEngine> | TwinEngine;
  /** counts up with every loop loaded; 0 before the first */
  readonly loaded: Ref<number>;
  /** why the twin cannot compute, or null */
  readonly problem: Ref<string | null>;
}

/** @param liquid what the loop holds; water until it is chosen */
export function useTwin(loop: () => LoopFile | null, liquid: () => Liquid = () => WATER): Twin {
  const loaded = ref(0);
  const problem = ref<string | null>(null);
  let worker: Worker | null = null;
  let engine: Remote<TwinEngine> | TwinEngine;
  let writeFor = async (_way: Reading): Promise<void> => undefined;
  if (typeof Worker === 'undefined') engine = new TwinEngine();
  else {
    worker = new Worker(new URL('./twinWorker.ts', import.meta.url), { type: 'module' });
    const own = wrap<TwinInWorker>(worker);
    engine = own;
    writeFor = (way) => own.writeFor(way);
  }
  watch(
    [loop, liquid, reading] as const,
    async ([file, holds, way]) => {
      if (!file) return;
      await writeFor({ ...way });
      // a worker is handed a copy: a reactive object cannot be sent
      problem.value = await engine.load(JSON.parse(JSON.stringify(file)) as LoopFile, { ...holds });
      if (problem.value === null) loaded.value += 1;
    },
    { immediate: true },
  );
  onScopeDispose(() => worker?.terminate());
  return { engine, loaded, problem };
}

/**
 * Asks again whenever what it depends on changes. While an answer is on its way further changes only leave a note, so
 * that a drag never queues up work; the last state always gets its answer.
 */
export function useAnswer<Asked, Answer>(
  asked: () => Asked | null,
  ask: (state: Asked) => Promise<Answer> | Answer,
): ShallowRef<Answer | null> {
  const answer = shallowRef<Answer | null>(null);
  let busy = false;
  let again = false;
  async function run(): Promise<void> {
    if (busy) {
      again = true;
      return;
    }
    busy = true;
    try {
      do {
        again = false;
        const state = asked();
        answer.value = state === null ? null : await ask(state);
      } while (again);
    } finally {
      busy = false;
    }
  }
  watch(asked, () => void run(), { immediate: true, deep: true });
  return answer;
}

/** `useAnswer` of a twin: asks once its loop is loaded, and again with every other loop. `asked` may have nothing to ask. */
export function useTwinAnswer<Asked extends object, Answer>(
  twin: Twin,
  asked: () => Asked | null,
  ask: (state: Asked) => Promise<Answer> | Answer,
): ShallowRef<Answer | null> {
  return useAnswer(
    () => {
      const state = twin.loaded.value > 0 ? asked() : null;
      return state && { state, loaded: twin.loaded.value };
    },
    ({ state }) => ask(state),
  );
}
