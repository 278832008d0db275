import { earliestIn, take } from './openings.js';
import { earliestOf, endOf, startOf, type PlacedJob, type PlacedStep, type PlanJob, type PlanProblem, type Span } from './problem.js';

/** ms; less is rounding, not waiting */
const LEAST_MS = 1e-3;

/** What is taken already: each technician's time, and each bench's. Sorted spans. */
export interface Board {
  readonly technicians: Span[][];
  readonly benches: Span[][];
}

export const emptyBoard = ({ technicians, benches }: PlanProblem): Board => ({
  technicians: technicians.map(() => []),
  benches: benches.map(({ taken }) => [...(taken ?? [])]),
});

/** The technician who can begin first; the earlier in the list where several can. */
function firstFree(problem: PlanProblem, board: Board, from: number, durationMs: number): { at: number; technician: number } | null {
  let best: { at: number; technician: number } | null = null;
  for (let technician = 0; technician < problem.technicians.length; technician += 1) {
    const { shifts } = problem.technicians[technician] as { shifts: readonly Span[] };
    const at = earliestIn(shifts, board.technicians[technician] as Span[], from, durationMs);
    if (at !== null && (best === null || at < best.at)) best = { at, technician };
  }
  return best;
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
    const { durationMs, attended, maxWaitMs } = steps[index] as PlanJob['steps'][number];
    const before = placed[index - 1];
    const lowest = Math.max(floors[index] as number, before?.to ?? from);
    const found = attended ? firstFree(problem, board, lowest, durationMs) : { at: lowest, technician: null };
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
  const job = problem.jobs[index] as PlanJob;
  const from = earliestOf(problem, job);
  let best: PlacedJob | null = null;
  let bestGap = Number.NEGATIVE_INFINITY;
  for (let bench = 0; bench < problem.benches.length; bench += 1) {
    const held = board.benches[bench] as Span[];
    let opens = from;
    for (let next = held.findIndex(({ to }) => to > from); ; next += 1) {
      const closes = next < 0 ? undefined : held[next];
      // the bench is free up to there; behind it, the next opening
      if (!closes || closes.from > opens) {
        const steps = placeSteps(problem, board, job, opens);
        const end = steps?.at(-1)?.to;
        if (!steps || end === undefined) break;
        if (!closes || end <= closes.from) {
          const gap = (next < 0 ? held.at(-1) : held[next - 1])?.to ?? Number.NEGATIVE_INFINITY;
          const bestEnd = best ? endOf(best) : Number.POSITIVE_INFINITY;
          // of benches where it ends alike, the one that was held last: longer openings stay whole
          if (end < bestEnd || (end === bestEnd && gap > bestGap)) {
            best = { job: index, bench, steps };
            bestGap = gap;
          }
          break;
        }
      }
      if (!closes) break;
      opens = Math.max(opens, closes.to);
    }
  }
  return best;
}

export function putOnBoard(board: Board, placed: PlacedJob): void {
  for (const { from, to, technician } of placed.steps) if (technician !== null) take(board.technicians[technician] as Span[], { from, to });
  take(board.benches[placed.bench] as Span[], { from: startOf(placed), to: endOf(placed) });
}

/** Jobs in an order of precedence, each as early as it then can (serial schedule generation). null: one fits nowhere. */
export function placeInOrder(problem: PlanProblem, order: readonly number[], board: Board = emptyBoard(problem)): PlacedJob[] | null {
  const placed: PlacedJob[] = [];
  for (const index of order) {
    const job = placeJob(problem, board, index);
    if (!job) return null;
    putOnBoard(board, job);
    placed.push(job);
  }
  return placed;
}
