import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { JobKind } from '@core/jobs/kinds.js';
import type { LoopFile } from '@core/loops/loopFile.js';
import { ApiError, get } from '../http/api.js';
import { setServerNow } from '../units/now.js';
import type { SystemLine } from '../systems/types.js';

export interface BenchRun {
  id: string;
  benchId: string | null;
  /** against a simulated bench: nobody's machine */
  practice: boolean;
  /** ms that its clock is set ahead */
  aheadMs: number;
  systemId: string;
  systemName: string;
  customerName: string;
  loopName: string;
  colour: string | null;
  file: LoopFile;
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
  customerName: string;
  confirmed: boolean;
}

interface TodayAnswer {
  today: string;
  now: string;
  benches: { id: string; name: string }[];
  runs: BenchRun[];
  /** missing from a server that was not restarted yet */
  next?: NextSlot[];
  overdue: SystemLine[];
  coming: SystemLine[];
  count: number;
}

/** What stands on which bench, and what is due: shared by the Today screen and the bench edge. */
export const useBenches = defineStore('benches', () => {
  const runs = ref<BenchRun[]>([]);
  const benches = ref<{ id: string; name: string }[]>([]);
  const next = ref<NextSlot[]>([]);
  const overdue = ref<SystemLine[]>([]);
  const coming = ref<SystemLine[]>([]);
  const today = ref('');
  const count = ref(0);
  const loaded = ref(false);
  const problem = ref<string | null>(null);

  async function refresh(): Promise<void> {
    try {
      const answer = await get<TodayAnswer>('/today');
      runs.value = answer.runs;
      benches.value = answer.benches;
      next.value = answer.next ?? [];
      overdue.value = answer.overdue;
      coming.value = answer.coming;
      today.value = answer.today;
      count.value = answer.count;
      loaded.value = true;
      problem.value = null;
      setServerNow(answer.now);
    } catch (error) {
      problem.value = error instanceof ApiError ? error.message : 'Today cannot be shown.';
    }
  }

  return { runs, benches, next, overdue, coming, today, count, loaded, problem, refresh };
});
