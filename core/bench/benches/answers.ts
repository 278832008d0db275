import type { BookedKind } from '../../workshop/job-kinds/kinds.js';
import type { Shares } from '../../physics/contents/shares.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Debrief } from '../practice/debrief.js';
import type { RunEvent } from '../runs/log.js';
import type { WaitsSince } from '../../workshop/jobs/waitFor.js';
import type { Procedure } from '../runs/procedure.js';
import type { LessonKey } from '../course/course.js';
import type { Scenario } from '../simulated-bench/truth.js';

export interface BenchRun {
  id: string;
  benchId: string | null;
  /** what it waits for, off the benches; null: it does not */
  waits: WaitsSince | null;
  /** against a simulated bench: nobody's machine */
  practice: boolean;
  /** ms that its clock is set ahead */
  aheadMs: number;
  systemId: string;
  systemName: string;
  ownerName: string;
  loopName: string;
  colour: string | null;
  /** share of each part that holds liquid, a running pump as it was at this answer; null: full */
  inside: Shares | null;
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
  kind: BookedKind;
  systemName: string;
  ownerName: string;
  confirmed: boolean;
}

/** What stands on which bench. */
export interface BenchesAnswer {
  now: string;
  benches: { id: string; name: string }[];
  runs: BenchRun[];
  next: NextSlot[];
}

/** A run with its log. */
export interface RunAnswer {
  run: {
    id: string;
    procedure: Procedure;
    state: 'active' | 'signed-off' | 'abandoned';
    startedAt: string;
    /** null: practice */
    jobId: string | null;
    loopId: string;
    benchId: string | null;
  };
  /** a run against a simulated bench that hides a fault; null: in earnest */
  practice: { aheadMs: number; scenario: Scenario | null; debrief: Debrief | null; lesson: LessonKey | null } | null;
  benchName: string | null;
  loopName: string;
  systemId: string;
  systemName: string;
  ownerName: string;
  revisionNumber: number;
  file: LoopFile;
  coolantProductId: string | null;
  /** a drawing that a build may go on with, saved as wanted since it has its loop; null: none, or this is no build that goes on */
  wanted: { number: number; reason: string } | null;
  events: RunEvent[];
  now: string;
}

/** The drawing of a loop that stands on a bench: it changes only with the bench. */
export interface LoopOnBench {
  runId: string;
  file: LoopFile;
}
