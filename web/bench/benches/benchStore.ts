import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { JobKind } from '@core/workshop/jobs/kinds.js';
import { ApiError, get } from '../../base/http/api.js';
import { latest } from '../../base/http/latest.js';
import { setServerNow } from '../../base/units/now.js';

export interface BenchRun {
  id: string;
  benchId: string | null;
  /** against a simulated bench: nobody's machine */
  practice: boolean;
  /** ms that its clock is set ahead */
  aheadMs: number;
  systemId: string;
  systemName: string;
  ownerName: string;
  loopName: string;
  colour: string | null;
  pouredMl: number;
  /** the fill is done: the loop stands full */
  full: boolean;
  startedAt: string;
  stepTitle: string;
  lead: string;
  stepNumber: number;
  steps: number;
  timers: { id: string; label: string; startedAt: string; seconds: number; finished: boolean }[];
}

/** What the plan puts on a bench next. */
export interface NextSlot {
  benchId: string;
  startsAt: string;
  jobId: string;
  kind: JobKind;
  systemName: string;
  ownerName: string;
  confirmed: boolean;
}

interface BenchesAnswer {
  now: string;
  benches: { id: string; name: string }[];
  runs: BenchRun[];
  next: NextSlot[];
}

/** What stands on which bench: the small answer that every page keeps fresh. */
export const useBenches = defineStore('benches', () => {
  const runs = ref<BenchRun[]>([]);
  const benches = ref<{ id: string; name: string }[]>([]);
  const next = ref<NextSlot[]>([]);
  const loaded = ref(false);
  const problem = ref<string | null>(null);
  const asking = latest();

  async function refresh(): Promise<void> {
    const turn = asking.begin();
    try {
      const answer = await get<BenchesAnswer>('/benches', turn.signal);
      if (!turn.counts) return;
      runs.value = answer.runs;
      benches.value = answer.benches;
      next.value = answer.next;
      loaded.value = true;
      problem.value = null;
      setServerNow(answer.now);
    } catch (error) {
      if (turn.counts) problem.value = error instanceof ApiError ? error.message : 'The benches cannot be shown.';
    }
  }

  return { runs, benches, next, loaded, problem, refresh };
});
