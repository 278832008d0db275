import { medianOf } from '../../base/statistics/median.js';
import { BOOKED_KINDS, type BookedKind } from '../job-kinds/kinds.js';
import { kitsFor, skillsFor } from './capacities.js';
import { AFTER_SOAK_SHARE, PLAN, SHARES } from './defaults.js';
import { MINUTE_MS, QUARTER_MS, upToQuarter, type PlanStep } from './problem.js';

/** A step of a job on the board, with what it is. */
export interface NamedStep extends PlanStep {
  readonly what: 'work' | 'soak' | 'wet test';
}

export interface JobTimes {
  readonly kind: BookedKind;
  /** runs that are cut and bent, not pushed on */
  readonly rigid: boolean;
  /** min with somebody at it, in all */
  readonly attendedMinutes: number;
  /** min that only the pump runs */
  readonly wetMinutes: number;
}

const QUARTER_MINUTES = QUARTER_MS / MINUTE_MS;

/** Attended work, in quarter hours, in pieces that fit into a day; the first may wait as long as the step before allows. */
function work(lasts: number, maxWaitMinutes: number | null): NamedStep[] {
  const pieces = Math.ceil((lasts * QUARTER_MINUTES) / PLAN.longestPieceMinutes - 1e-9);
  const until = (piece: number): number => Math.round((piece * lasts) / pieces);
  return Array.from({ length: pieces }, (_, index) => ({
    what: 'work' as const,
    durationMs: (until(index + 1) - until(index)) * QUARTER_MS,
    attended: true,
    maxWaitMs: index > 0 ? PLAN.pieceWaitMinutes * MINUTE_MS : maxWaitMinutes === null ? null : maxWaitMinutes * MINUTE_MS,
  }));
}

const alone = (what: NamedStep['what'], minutes: number): NamedStep => ({
  what,
  durationMs: upToQuarter(minutes * MINUTE_MS),
  attended: false,
  // it begins when the hands leave
  maxWaitMs: 0,
});

/**
 * A job as steps: hands, then a soak that holds the bench but nobody, hands again before the cleaner eats into the part,
 * a wet test that runs through the night, and the hands that measure and close.
 */
export function jobSteps(times: JobTimes): NamedStep[] {
  const steps = bareSteps(times);
  const wetAt = steps.findIndex(({ what }) => what === 'wet test');
  return steps.map((step, index) => ({
    ...step,
    skills: step.attended ? skillsFor(times.kind, times.rigid) : [],
    kits: kitsFor(times.kind, step.what, wetAt < 0 ? false : index === wetAt - 1),
  }));
}

function bareSteps({ kind, attendedMinutes, wetMinutes }: JobTimes): NamedStep[] {
  const { first, soak, wet } = SHARES[kind];
  const afterSoak = soak ? AFTER_SOAK_SHARE : 0;
  // whole quarter hours in all, shared out: what each part is rounded by is not added up
  const all = Math.ceil(attendedMinutes / QUARTER_MINUTES - 1e-9);
  const closes = first + afterSoak < 1 - 1e-9;
  // every part takes one at least, and leaves one to each that follows
  const part = (share: number, left: number): number => Math.max(1, Math.min(Math.round(share * all), left));
  const before = part(first, all - (soak ? 1 : 0) - (closes ? 1 : 0));
  const between = soak ? part(afterSoak, all - before - (closes ? 1 : 0)) : 0;
  const after = closes ? Math.max(1, all - before - between) : 0;
  return [
    ...work(before, null),
    ...(soak ? [alone('soak', PLAN.soakMinutes), ...work(between, PLAN.soakMostWaitMinutes)] : []),
    ...(wet && wetMinutes > 0 ? [alone('wet test', wetMinutes)] : []),
    ...work(after, null),
  ];
}

/** Attended minutes of a finished run of one kind. */
export interface FinishedRun {
  readonly kind: BookedKind;
  readonly rigid: boolean;
  readonly attendedMinutes: number;
  /** what is usual with what was in that machine; missing: its loop was not kept, and counts as a usual one */
  readonly usualMinutes?: number;
}

export interface LearnedDuration {
  readonly minutes: number;
  /** runs it was learned from; 0: an estimate */
  readonly runs: number;
}

/** How long a job is thought to take, and what is usual with as many runs, blocks and radiators. */
export interface ThoughtOf {
  readonly estimateMinutes: number;
  readonly usualMinutes: number;
}

/**
 * The middle of what such jobs took here over what is usual with what was in them, once there are enough; before that the estimate. Twice
 * the radiators take longer, whoever works.
 */
export function learnDuration(
  kind: BookedKind,
  rigid: boolean,
  { estimateMinutes, usualMinutes }: ThoughtOf,
  finished: readonly FinishedRun[],
): LearnedDuration {
  const own = finished
    .filter((run) => run.kind === kind && run.rigid === rigid)
    .map((run) => run.attendedMinutes / (run.usualMinutes ?? BOOKED_KINDS[kind].hours[rigid ? 'rigid' : 'soft'] * 60))
    .sort((a, b) => a - b);
  if (own.length < PLAN.leastRuns) return { minutes: estimateMinutes, runs: 0 };
  return { minutes: Math.round(medianOf(own) * usualMinutes), runs: own.length };
}
