import { cheapestMatching } from './matching.js';
import { emptyBoard, placeJob } from './place.js';
import { endOf, lateCost, workOf, type PlanProblem } from './problem.js';

const ascending = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);
/** running sums: the k smallest together */
function sums(values: readonly number[]): number[] {
  let total = 0;
  return ascending(values).map((value) => (total += value));
}

/** Instant at which so much attended work can be done at the earliest, all technicians together. Infinity: never. */
function workDoneBy({ nowMs, technicians }: PlanProblem): (workMs: number) => number {
  const edges = technicians
    .flatMap(({ shifts }) =>
      shifts.flatMap(({ from, to }) => [
        { at: Math.max(nowMs, from), hands: 1 },
        { at: Math.max(nowMs, to), hands: -1 },
      ]),
    ) // prettier-ignore
    .sort((a, b) => a.at - b.at);
  return (workMs) => {
    if (workMs <= 0) return nowMs;
    let done = 0;
    let hands = 0;
    let at = nowMs;
    for (const edge of edges) {
      const gained = hands * (edge.at - at);
      if (done + gained >= workMs) return at + (workMs - done) / hands;
      done += gained;
      at = edge.at;
      hands += edge.hands;
    }
    return Number.POSITIVE_INFINITY;
  };
}

/**
 * What no plan can beat, in weighted late minutes. A job ends no sooner than if it were alone; the k-th job to end, ends
 * no sooner than the k smallest jobs' bench time fits on all benches, and their attended time into all shifts. Each job
 * takes one place in that order at the cost of its lateness there: the cheapest assignment of places bounds every plan.
 * Infinity: the shifts are too short for all of it.
 */
export function lowerBound(problem: PlanProblem): number {
  const { jobs, benches, nowMs } = problem;
  if (jobs.length === 0) return 0;
  const alone = jobs.map((_, index) => {
    const placed = placeJob(problem, emptyBoard(problem), index);
    return placed ? endOf(placed) : Number.POSITIVE_INFINITY;
  });
  const benchSums = sums(jobs.map(workOf));
  const handSums = sums(jobs.map(({ steps }) => steps.reduce((sum, step) => sum + (step.attended ? step.durationMs : 0), 0)));
  const doneBy = workDoneBy(problem);
  const kth = jobs.map((_, k) => Math.max(nowMs + (benchSums[k] as number) / Math.max(1, benches.length), doneBy(handSums[k] as number)));
  // more attended work than all shifts together
  if (![...kth, ...alone].every(Number.isFinite)) return Number.POSITIVE_INFINITY;
  const cost = jobs.map((job, index) => kth.map((at) => lateCost(job, Math.max(at, alone[index] as number))));
  return cheapestMatching(cost);
}

/** Whether a job could ever be done with these shifts, all by itself. */
export const canBeDone = (problem: PlanProblem, index: number): boolean => placeJob(problem, emptyBoard(problem), index) !== null;
