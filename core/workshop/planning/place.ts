import { earliestIn, firstEndingAfter, take } from './freeTime.js';
import { emptyKits, holdKits, kitsFrom, type HeldKits } from './kits.js';
import {
  earliestOf,
  endOf,
  hasSkills,
  startOf,
  type PlacedJob,
  type PlacedStep,
  type PlanJob,
  type PlanProblem,
  type PlanStep,
  type Span,
  workOf,
} from './problem.js';

/** ms; less is rounding, not waiting */
const LEAST_MS = 1e-3;

/** What is taken already: each technician's time, and each bench's. Sorted spans. */
export interface Board {
  readonly technicians: Span[][];
  readonly benches: Span[][];
  readonly kits: HeldKits;
}

/** a job whose owner gave no days */
const WHENEVER: readonly Span[] = [{ from: Number.NEGATIVE_INFINITY, to: Number.POSITIVE_INFINITY }];

export const emptyBoard = (problem: PlanProblem): Board => ({
  technicians: problem.technicians.map(() => []),
  benches: problem.benches.map(({ taken }) => [...(taken ?? [])]),
  kits: emptyKits(problem),
});

/** The technician who can do it and begin first; the earlier in the list where several can. */
function firstFree(problem: PlanProblem, board: Board, from: number, step: PlanStep): { at: number; technician: number } | null {
  let best: { at: number; technician: number } | null = null;
  for (let technician = 0; technician < problem.technicians.length; technician += 1) {
    const person = problem.technicians[technician] as PlanProblem['technicians'][number];
    if (!hasSkills(person, step)) continue;
    const at = earliestIn(person.shifts, board.technicians[technician] as Span[], from, step.durationMs);
    if (at !== null && (best === null || at < best.at)) best = { at, technician };
  }
  return best;
}

/** A step's earliest start with hands and kits both there. null: never. */
function firstStart(problem: PlanProblem, board: Board, step: PlanStep, from: number): { at: number; technician: number | null } | null {
  for (let lowest = from; ;) {
    const found = step.attended ? firstFree(problem, board, lowest, step) : { at: lowest, technician: null };
    if (!found) return null;
    const withKits = kitsFrom(problem, board.kits, step, found.at);
    if (withKits === null) return null;
    if (withKits <= found.at) return found;
    lowest = withKits;
  }
}

/**
 * The steps one after the other, each as early as it can; where a step would come too late after the one before, that
 * one is moved back and all after it are placed anew. Starts only ever move back, so this ends.
 * @returns null where no technician has the time
 */
function placeSteps(problem: PlanProblem, board: Board, { steps }: PlanJob, from: number): PlacedStep[] | null {
  const floors = steps.map(() => from);
  const placed: PlacedStep[] = [];
  for (let index = 0; index < steps.length;) {
    const step = steps[index] as PlanStep;
    const { durationMs, maxWaitMs } = step;
    const before = placed[index - 1];
    const lowest = Math.max(floors[index] as number, before?.to ?? from);
    const found = firstStart(problem, board, step, lowest);
    if (!found) return null;
    if (before && maxWaitMs !== null && found.at - before.to > maxWaitMs + LEAST_MS) {
      floors[index - 1] = found.at - maxWaitMs - (before.to - before.from);
      placed.length = index - 1;
      index -= 1;
      continue;
    }
    placed.push({ from: found.at, to: found.at + durationMs, technician: found.technician });
    index += 1;
  }
  return placed;
}

/** A job on the bench where it ends first, beside all that is on the board. null: it fits nowhere. */
export function placeJob(problem: PlanProblem, board: Board, index: number): PlacedJob | null {
  const { windows } = problem.jobs[index] as PlanJob;
  for (const window of windows?.length ? windows : WHENEVER) {
    const placed = placeInWindow(problem, board, index, window);
    if (placed) return placed;
  }
  return null;
}

/** A place for a job on one bench. */
interface Gap {
  readonly bench: number;
  readonly steps: PlacedJob['steps'];
  readonly end: number;
  /** when the bench was let go before; minus infinity where it never was held */
  readonly freeSince: number;
}
/** Of benches where it ends alike, the one that was held last: longer gaps stay whole. */
const better = (a: Gap | null, b: Gap): Gap => (a && (a.end < b.end || (a.end === b.end && a.freeSince >= b.freeSince)) ? a : b);

const startsAt = (steps: readonly PlacedStep[]): number => (steps[0] as PlacedStep).from;
const endsAt = (steps: readonly PlacedStep[]): number => (steps[steps.length - 1] as PlacedStep).to;

/** The first gap of one bench behind an instant in which a job ends within a window, and no later than somewhere else. null: there is none. */
function firstGap(problem: PlanProblem, board: Board, job: PlanJob, bench: number, { from, to }: Span, latestEnd: number): Gap | null {
  const held = board.benches[bench] as Span[];
  const work = workOf(job);
  for (let next = firstEndingAfter(held, from); next < held.length; next += 1) {
    const opens = (held[next] as Span).to;
    const closes = held[next + 1]?.from ?? Number.POSITIVE_INFINITY;
    // further on it ends later still
    if (opens + work > latestEnd) return null;
    if (closes < opens + work) continue;
    const steps = placeSteps(problem, board, job, opens);
    // begun later it ends no earlier
    if (!steps || endsAt(steps) > to) return null;
    if (endsAt(steps) <= closes) return { bench, steps, end: endsAt(steps), freeSince: opens };
  }
  return null;
}

function placeInWindow(problem: PlanProblem, board: Board, index: number, { from, to }: Span): PlacedJob | null {
  const job = problem.jobs[index] as PlanJob;
  // as if every bench were free: nowhere it ends sooner
  const steps = placeSteps(problem, board, job, Math.max(earliestOf(problem, job), from));
  if (!steps || endsAt(steps) > to) return null;
  const [start, end] = [startsAt(steps), endsAt(steps)];
  let best: Gap | null = null;
  const others: number[] = [];
  for (let bench = 0; bench < problem.benches.length; bench += 1) {
    const held = board.benches[bench] as Span[];
    const next = firstEndingAfter(held, start);
    const isFree = (held[next]?.from ?? Number.POSITIVE_INFINITY) >= end;
    if (isFree) best = better(best, { bench, steps, end, freeSince: held[next - 1]?.to ?? Number.NEGATIVE_INFINITY });
    else others.push(bench);
  }
  for (const bench of others) {
    const found = firstGap(problem, board, job, bench, { from: start, to }, best?.end ?? Number.POSITIVE_INFINITY);
    if (found) best = better(best, found);
  }
  return best && { job: index, bench: best.bench, steps: best.steps };
}

export function putOnBoard({ jobs }: PlanProblem, board: Board, placed: PlacedJob): void {
  const { steps } = jobs[placed.job] as PlanJob;
  placed.steps.forEach((span, index) => holdKits(board.kits, steps[index] as PlanStep, span));
  for (const { from, to, technician } of placed.steps) if (technician !== null) take(board.technicians[technician] as Span[], { from, to });
  take(board.benches[placed.bench] as Span[], { from: startOf(placed), to: endOf(placed) });
}

/**
 * Jobs in an order of precedence, each as early as it then can (serial schedule generation).
 * @param goesOn asked behind each job; false gives the order up
 * @returns null: one fits nowhere, or it was given up
 */
export function placeInOrder(
  problem: PlanProblem,
  order: readonly number[],
  board: Board = emptyBoard(problem),
  goesOn: (placed: PlacedJob) => boolean = () => true,
): PlacedJob[] | null {
  const placed: PlacedJob[] = [];
  for (const index of order) {
    const job = placeJob(problem, board, index);
    if (!job) return null;
    putOnBoard(problem, board, job);
    placed.push(job);
    if (!goesOn(job)) return null;
  }
  return placed;
}
