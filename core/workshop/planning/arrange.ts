import { exhaust } from './exact.js';
import { lowerBound } from './bound.js';
import { placeInOrder } from './place.js';
import { tighten } from './tighten.js';
import { endOf, earliestOf, isPlain, weightedLate, type PlacedJob, type Plan, type PlanJob, type PlanProblem } from './problem.js';
import { seededRandom } from '../../base/random/random.js';

/** How hard the search tries. */
export const ARRANGE = {
  /** nodes of the exact search: a few jobs are proven in a blink, dozens are not tried */
  exactNodes: 60_000,
  /** steps in all, above which orders are too many to go through */
  exactSteps: 9,
  /** temperature at the start of the search, as a share of the first plan's cost */
  startShare: 0.05,
  /** orders by chance where no rule's order fits into the shifts */
  chanceOrders: 200,
  /** orders between two looks at the clock, at progress and at a wish to stop */
  perLook: 8,
} as const;

export interface ArrangeProgress {
  readonly tried: number;
  readonly weightedLateMinutes: number;
  /** the best plan so far: whoever stops the search keeps it */
  readonly placed: readonly PlacedJob[];
}

export interface ArrangeOptions {
  /** true: enough time was spent, or somebody wants it to stop */
  readonly isOver: () => boolean;
  readonly onProgress?: (progress: ArrangeProgress) => void;
}

export interface Arranged extends Plan {
  readonly lowerBound: number;
  /** nothing better exists */
  readonly optimal: boolean;
}

/**
 * Plans all jobs: least weighted lateness first, then machines away from their owners as briefly as that allows.
 * Stages: several orders by rules · local search over the order (simulated annealing with moves and swaps) · on small
 * problems every order there is · early steps moved as late as the ends allow.
 * @returns null where the shifts are too short for all jobs
 */
export function arrange(problem: PlanProblem, { isOver, onProgress }: ArrangeOptions): Arranged | null {
  const bound = lowerBound(problem);
  if (bound === Number.POSITIVE_INFINITY) return null;
  const first = bestByRules(problem) ?? anyOrder(problem);
  let best = first && searchOrders(problem, first, bound, isOver, onProgress);
  let proven = best !== null && best.cost <= bound + 1e-9;
  const steps = problem.jobs.reduce((sum, job) => sum + job.steps.length, 0);
  // the exact search knows nothing of benches that are held, of skills, kits and owners' days
  const free = isPlain(problem) && problem.benches.every(({ taken }) => !taken?.length);
  if (!proven && free && steps <= ARRANGE.exactSteps) {
    const all = exhaust(problem, best?.cost ?? Number.POSITIVE_INFINITY, ARRANGE.exactNodes, isOver);
    if (all.plan) best = { order: [], placed: [...all.plan], cost: all.weightedLateMinutes };
    proven = all.proven;
  }
  if (!best) return null;
  const jobs = tighten(problem, best.placed);
  return {
    jobs,
    weightedLateMinutes: weightedLate(problem, jobs),
    lowerBound: proven ? best.cost : Math.min(bound, best.cost),
    optimal: proven,
  };
}

interface Ordered {
  /** of precedence; empty where the plan came from the exact search */
  readonly order: readonly number[];
  readonly placed: PlacedJob[];
  readonly cost: number;
}

function tryOrder(problem: PlanProblem, order: readonly number[]): Ordered | null {
  const placed = placeInOrder(problem, order);
  return placed && { order, placed, cost: weightedLate(problem, placed) };
}

const workOf = ({ steps }: PlanJob): number => steps.reduce((sum, { durationMs }) => sum + durationMs, 0);

/** Rules that practice and literature know: earliest due date, least slack, weight over work, first come. */
const RULES: readonly ((job: PlanJob, problem: PlanProblem) => number)[] = [
  ({ dueMs }) => dueMs,
  (job, problem) => job.dueMs - earliestOf(problem, job) - workOf(job),
  (job) => workOf(job) / Math.max(1e-9, job.weight),
  (job) => (job.dueMs - job.releaseMs) / Math.max(1e-9, job.weight),
  ({ releaseMs }) => releaseMs,
];

function bestByRules(problem: PlanProblem): Ordered | null {
  const orders = RULES.map((rule) => {
    const keys = problem.jobs.map((job) => rule(job, problem));
    return problem.jobs.map((_, index) => index).sort((a, b) => (keys[a] as number) - (keys[b] as number));
  });
  return orders
    .map((order) => tryOrder(problem, order))
    .reduce<Ordered | null>((best, each) => (each && (!best || each.cost < best.cost) ? each : best), null);
}

/** Shifts that are nearly too short can be missed by every rule: some orders by chance. */
function anyOrder(problem: PlanProblem): Ordered | null {
  const random = seededRandom(problem.jobs.length);
  let order = problem.jobs.map((_, index) => index);
  for (let tried = 0; tried < ARRANGE.chanceOrders; tried += 1) {
    const found = tryOrder(problem, order);
    if (found) return found;
    for (let moves = 0; moves < order.length; moves += 1) order = neighbour(order, random.next);
  }
  return null;
}

/** Takes one job out of the order and puts it elsewhere, or swaps two; worse orders are kept now and then, less and less. */
function searchOrders(
  problem: PlanProblem,
  first: Ordered,
  bound: number,
  isOver: () => boolean,
  onProgress: ArrangeOptions['onProgress'],
): Ordered {
  const n = problem.jobs.length;
  const random = seededRandom(n * 7919 + 17);
  let [best, current] = [first, first];
  let temperature = ARRANGE.startShare * first.cost;
  for (let tried = 0; n > 1 && best.cost > bound + 1e-9; tried += 1) {
    if (tried % ARRANGE.perLook === 0) {
      if (isOver()) break;
      onProgress?.({ tried, weightedLateMinutes: best.cost, placed: best.placed });
      // a handful of jobs has few orders: the exact search does the rest
      if (n <= 4 && tried > 400) break;
    }
    const candidate = tryOrder(problem, neighbour(current.order, random.next));
    if (!candidate) continue;
    const worse = candidate.cost - current.cost;
    if (worse <= 0 || random.next() < Math.exp(-worse / Math.max(1e-9, temperature))) current = candidate;
    if (candidate.cost < best.cost || (candidate.cost === best.cost && lastEnd(candidate) < lastEnd(best))) best = candidate;
    temperature *= 0.999;
  }
  return best;
}

const lastEnd = ({ placed }: Ordered): number => placed.reduce((last, each) => Math.max(last, endOf(each)), 0);

function neighbour(order: readonly number[], next: () => number): number[] {
  const changed = [...order];
  const [a, b] = [Math.floor(next() * order.length), Math.floor(next() * order.length)];
  if (next() < 0.5) [changed[a], changed[b]] = [changed[b] as number, changed[a] as number];
  else changed.splice(b, 0, changed.splice(a, 1)[0] as number);
  return changed;
}
