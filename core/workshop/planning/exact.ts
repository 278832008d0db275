import { earliestOf, lateCost, type PlacedJob, type PlanJob, type PlanProblem } from './problem.js';
import { earliestIn } from './freeTime.js';

/** A step that was given its place: after what, and with whom. */
interface Chosen {
  readonly job: number;
  readonly step: number;
  readonly technician: number | null;
  /** index among the chosen of what must end before: the job's step before, the technician's, the bench's */
  readonly after: readonly number[];
}

export interface Exhausted {
  readonly plan: readonly PlacedJob[] | null;
  readonly weightedLateMinutes: number;
  /** false: the limit was reached first, and a better plan may exist */
  readonly proven: boolean;
}

const EPSILON = 1e-9;
/** nodes between two looks at the clock */
const NODES_PER_LOOK = 400;
/** rounds of pushing starts before an order counts as one that cannot be kept */
const MOST_ROUNDS = 60;

/**
 * Every order of steps on technicians and benches, cut off where it can no longer beat the best. Given the orders, the
 * least starts follow by pushing each step to its constraints until nothing moves; the objective never falls with a
 * later start, so the least ones are the best of that order.
 * @param aim `best`: weighted late minutes to beat; `least`: no plan goes below, so that one which reaches it ends the search
 * @param mostNodes of the search tree, before it gives up
 * @param isOver asked now and then; true ends it
 */
// eslint-disable-next-line max-lines-per-function -- one search tree, walked in place: its parts share the state of the walk
export function exhaust(
  problem: PlanProblem,
  aim: { readonly best: number; readonly least: number },
  mostNodes: number,
  isOver: () => boolean,
): Exhausted {
  const { jobs, technicians, benches } = problem;
  const next = jobs.map(() => 0);
  const benchOf = jobs.map(() => -1);
  const lastOf = jobs.map(() => -1);
  const lastAt = technicians.map(() => -1);
  const lastOn = benches.map(() => -1);
  const heldBy = benches.map(() => -1);
  const chosen: Chosen[] = [];
  let found: PlacedJob[] | null = null;
  let bound = aim.best;
  let nodes = 0;

  /** Least starts of what is chosen, or null where a longest wait or a shift cannot be kept. */
  function leastStarts(): Float64Array | null {
    const starts = new Float64Array(chosen.length);
    chosen.forEach(({ job }, index) => (starts[index] = earliestOf(problem, jobs[job] as PlanJob)));
    const position = new Map(chosen.map(({ job, step }, index) => [job * 1000 + step, index]));
    for (let round = 0, moved = true; moved; round += 1) {
      // each round pushes at least one start to another shift, or past another step
      if (round > MOST_ROUNDS) return null;
      moved = false;
      for (let index = 0; index < chosen.length; index += 1) {
        const { job, step, technician, after } = chosen[index] as Chosen;
        const { durationMs, maxWaitMs } = (jobs[job] as PlanJob).steps[step] as PlanJob['steps'][number];
        let at = starts[index] as number;
        for (const other of after) at = Math.max(at, (starts[other] as number) + durationOf(chosen[other] as Chosen));
        if (technician !== null) {
          const slot = earliestIn(technicians[technician]?.shifts ?? [], [], at, durationMs);
          if (slot === null) return null;
          at = slot;
        }
        if (at > (starts[index] as number) + EPSILON) {
          starts[index] = at;
          moved = true;
        }
        const before = step > 0 ? position.get(job * 1000 + step - 1) : undefined;
        if (before !== undefined && maxWaitMs !== null) {
          const latestEnd = at - maxWaitMs;
          const pushed = latestEnd - durationOf(chosen[before] as Chosen);
          if (pushed > (starts[before] as number) + EPSILON) {
            starts[before] = pushed;
            moved = true;
          }
        }
      }
    }
    return starts;
  }

  const durationOf = ({ job, step }: Chosen): number => ((jobs[job] as PlanJob).steps[step] as PlanJob['steps'][number]).durationMs;
  const restOf = (job: number): number =>
    (jobs[job] as PlanJob).steps.slice(next[job]).reduce((sum, { durationMs }) => sum + durationMs, 0);

  /** Lateness that is certain by now: what is chosen, and the rest of each job right behind it. */
  const certain = (starts: Float64Array): number =>
    jobs.reduce((sum, job, index) => {
      const last = lastOf[index] as number;
      const reached = last < 0 ? earliestOf(problem, job) : (starts[last] as number) + durationOf(chosen[last] as Chosen);
      return sum + lateCost(job, reached + restOf(index));
    }, 0);

  function record(starts: Float64Array): void {
    found = jobs.map((_, job) => ({
      job,
      bench: benchOf[job] as number,
      steps: chosen.flatMap((each, index) => {
        const from = starts[index] as number;
        return each.job === job ? [{ from, to: from + durationOf(each), technician: each.technician }] : [];
      }),
    }));
  }

  /** @returns false once the limit is reached */
  function descend(): boolean {
    nodes += 1;
    if (nodes > mostNodes || (nodes % NODES_PER_LOOK === 0 && isOver())) return false;
    const starts = leastStarts();
    if (!starts) return true;
    const cost = certain(starts);
    if (cost >= bound - EPSILON) return true;
    if (chosen.length === jobs.reduce((sum, { steps }) => sum + steps.length, 0)) {
      bound = cost;
      record(starts);
      return bound > aim.least + EPSILON;
    }
    for (let job = 0; job < jobs.length; job += 1) {
      const step = next[job] as number;
      const own = jobs[job] as PlanJob;
      if (step >= own.steps.length) continue;
      const hands = own.steps[step]?.attended ? technicians.map((_, index) => index) : [null];
      for (const bench of step === 0 ? freeBenches() : [benchOf[job] as number])
        for (const technician of hands) if (!choose(job, step, bench, technician)) return false;
    }
    return true;
  }

  /** Benches without an unfinished job; of those never used, one stands for all. */
  function freeBenches(): number[] {
    const free = benches.flatMap((_, bench) => {
      const holder = heldBy[bench] as number;
      return holder < 0 || (next[holder] as number) >= (jobs[holder] as PlanJob).steps.length ? [bench] : [];
    });
    const unused = free.filter((bench) => (lastOn[bench] as number) < 0);
    return [...free.filter((bench) => (lastOn[bench] as number) >= 0), ...unused.slice(0, 1)];
  }

  function choose(job: number, step: number, bench: number, technician: number | null): boolean {
    const index = chosen.length;
    const kept = { last: lastOf[job] as number, on: lastOn[bench] as number, held: heldBy[bench] as number, at: technician === null ? -1 : (lastAt[technician] as number) }; // prettier-ignore
    const after = [kept.last, kept.at, step === 0 ? kept.on : -1].filter((each) => each >= 0);
    chosen.push({ job, step, technician, after });
    next[job] = step + 1;
    benchOf[job] = bench;
    lastOf[job] = index;
    lastOn[bench] = index;
    heldBy[bench] = job;
    if (technician !== null) lastAt[technician] = index;
    const goesOn = descend();
    chosen.pop();
    next[job] = step;
    lastOf[job] = kept.last;
    lastOn[bench] = kept.on;
    heldBy[bench] = kept.held;
    if (technician !== null) lastAt[technician] = kept.at;
    return goesOn;
  }

  const proven = descend() || bound <= aim.least + EPSILON;
  return { plan: found, weightedLateMinutes: bound, proven };
}
