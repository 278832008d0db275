import { proxy, wrap } from 'comlink';
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue';
import type { ArrangeProgress } from '@core/workshop/planning/arrange.js';
import { weightedLate, type PlacedJob, type PlanProblem } from '@core/workshop/planning/problem.js';
import { tighten } from '@core/workshop/planning/tighten.js';
import type { PlanEngine } from './planWorker.js';

/** s that the search may take; after that the best is shown */
const SEARCH_MS = 6000;

export interface Proposal {
  readonly placed: readonly PlacedJob[];
  readonly weightedLateMinutes: number;
  /** nothing can be below it */
  readonly lowerBound: number;
}

/** Looks for a better plan in a worker, with progress; stopped at any time it keeps the best so far. */
export function useArrange(): {
  searching: Ref<boolean>;
  progress: ShallowRef<ArrangeProgress | null>;
  proposal: ShallowRef<Proposal | null>;
  /** true where the shifts are too short for all jobs */
  impossible: Ref<boolean>;
  start(problem: PlanProblem): Promise<void>;
  stop(): void;
  forget(): void;
} {
  const searching = ref(false);
  const progress = shallowRef<ArrangeProgress | null>(null);
  const proposal = shallowRef<Proposal | null>(null);
  const impossible = ref(false);
  let worker: Worker | null = null;
  let asked: PlanProblem | null = null;

  const end = (): void => {
    worker?.terminate();
    worker = null;
    searching.value = false;
  };
  async function start(problem: PlanProblem): Promise<void> {
    end();
    searching.value = true;
    impossible.value = false;
    proposal.value = null;
    progress.value = null;
    asked = problem;
    const own = new Worker(new URL('./planWorker.ts', import.meta.url), { type: 'module' });
    worker = own;
    const found = await wrap<PlanEngine>(own).arrange(
      JSON.parse(JSON.stringify(problem)) as PlanProblem,
      SEARCH_MS,
      proxy((now: ArrangeProgress) => {
        progress.value = now;
      }),
    );
    if (worker !== own) return;
    end();
    if (found) proposal.value = { placed: found.jobs, weightedLateMinutes: found.weightedLateMinutes, lowerBound: found.lowerBound };
    else impossible.value = true;
  }
  function stop(): void {
    const best = progress.value;
    end();
    if (!best || !asked) return;
    const placed = tighten(asked, best.placed);
    proposal.value = { placed, weightedLateMinutes: weightedLate(asked, placed), lowerBound: best.lowerBound };
  }
  onScopeDispose(end);
  return {
    searching,
    progress,
    proposal,
    impossible,
    start,
    stop,
    forget: () => {
      proposal.value = null;
      impossible.value = false;
    },
  };
}
