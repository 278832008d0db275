import { proxy, wrap, type Remote } from 'comlink';
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue';
import { reading } from '@core/base/units/reading.js';
import type { ReadPart } from '@core/physics/diagnosis/sensors.js';
import type { LogColumns } from '@core/workshop/logs/columns.js';
import type { LogReport } from '@core/workshop/logs/reader.js';
import type { SimulatedMachine } from '@core/workshop/logs/simulatedLogger.js';
import { LogEngine } from './logEngine.js';
import type { LogInWorker } from './logWorker.js';
import type { Looked, LogWay } from './readLogFile.js';

/** Reads logs in a worker, with progress; stopped at any time nothing of it stays. */
export interface LogReading {
  readonly busy: Ref<'looking' | 'reading' | 'writing' | null>;
  /** 0 to 1 */
  readonly progress: Ref<number>;
  look(file: Blob, parts: readonly ReadPart[], known: LogColumns | null): Promise<Looked | null>;
  read(file: Blob, way: LogWay): Promise<LogReport | null>;
  simulate(machine: SimulatedMachine): Promise<Blob | null>;
  stop(): void;
}

/** a worker is handed copies: a reactive object cannot be sent */
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export function useLog(): LogReading {
  const busy: Ref<'looking' | 'reading' | 'writing' | null> = ref(null);
  const progress = ref(0);
  const worker: ShallowRef<Worker | null> = shallowRef(null);
  let turn = 0;

  const stop = (): void => {
    turn += 1;
    worker.value?.terminate();
    worker.value = null;
    busy.value = null;
  };
  /** One piece of work in a worker of its own, or beside the page where there are no workers. @returns null where it was stopped */
  async function work<T>(
    what: 'looking' | 'reading' | 'writing',
    ask: (engine: Remote<LogEngine> | LogEngine) => Promise<T> | T,
  ): Promise<T | null> {
    stop();
    const own = turn;
    busy.value = what;
    progress.value = 0;
    let engine: Remote<LogEngine> | LogEngine = new LogEngine();
    if (typeof Worker !== 'undefined') {
      worker.value = new Worker(new URL('./logWorker.ts', import.meta.url), { type: 'module' });
      const inWorker = wrap<LogInWorker>(worker.value);
      await inWorker.writeFor({ ...reading() });
      engine = inWorker;
    }
    try {
      const answer = await ask(engine);
      return own === turn ? answer : null;
    } finally {
      if (own === turn) stop();
    }
  }
  onScopeDispose(stop);
  const tell = proxy((share: number) => {
    progress.value = share;
  });
  return {
    busy,
    progress,
    look: (file, parts, known) => work('looking', (engine) => engine.look(file, copy(parts), copy(known)) as Promise<Looked>),
    read: (file, way) => work('reading', (engine) => engine.read(file, copy(way), tell) as Promise<LogReport | null>),
    simulate: (machine) => work('writing', (engine) => engine.simulate(copy(machine)) as Promise<Blob>),
    stop,
  };
}
