import { exhaust } from './exact.js';
import { lowerBound } from './bound.js';
import { placeInOrder } from './place.js';
import { pricedBounds } from './pricedBound.js';
import { tighten } from './tighten.js';
import { TriedOrders, type Ordered } from './triedOrders.js';
import {
  endOf,
  earliestOf,
  isPlain,
  lateCost,
  weightedLate,
  workOf,
  type PlacedJob,
  type Plan,
  type PlanJob,
  type PlanProblem,
} from './problem.js';
import { seededRandom } from '../../base/random/random.js';

/** How hard the search tries. */
export const ARRANGE = {
  /** nodes of the exact search: a few jobs are proven in a blink, dozens are not tried */
  exactNodes: 300_000,
  /** steps in all, above which orders are too many to go through */
  exactSteps: 16,
  /** orders that are tried before the exact search, so that it begins with something good */
  beforeExact: 400,
  /** what a worse order may cost more at the start of the search and at its end, as shares of the best plan's cost */
  startShare: 0.02,
  coldShare: 0.0002,
  cooling: 0.9985,
  /** share of moves that bring a late job forward */
  lateMoves: 0.25,
  /** how much sooner than far a job is put near: the power of what chance says of the way */
  nearer: 2,
  /** share that swaps two jobs */
  swaps: 0.3,
  /** orders for each round of prices */
  perPrice: 100,
  /** rounds that may say nothing new, and what those orders become by each further one, at most */
  patience: 20,
  pauseGrows: 1.2,
  mostPerPrice: 1000,
  /** orders by chance where no rule's order fits into the shifts */
  chanceOrders: 200,
  /** orders between two looks at the clock, at progress and at a wish to stop */
  perLook: 8,
} as const;

export interface ArrangeProgress {
  readonly tried: number;
  readonly weightedLateMinutes: number;
  /** no plan is below it, as far as is known by now */
  readonly lowerBound: number;
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
 * Stages: several orders by rules · local search over the order (simulated annealing), with orders by prices between · on
 * small problems every order there is · early steps moved as late as the ends allow.
 * @returns null where the shifts are too short for all jobs
 */
export function arrange(problem: PlanProblem, { isOver, onProgress }: ArrangeOptions): Arranged | null {
  const least = lowerBound(problem);
  if (least === Number.POSITIVE_INFINITY) return null;
  const first = bestByRules(problem) ?? anyOrder(problem);
  const found = isSmall(problem)
    ? searchSmall(problem, first, least, { isOver, onProgress })
    : first && searchOrders(problem, first, least, Number.POSITIVE_INFINITY, { isOver, onProgress });
  if (!found) return null;
  const { best, bound } = found;
  const proven = best.cost <= bound + 1e-9;
  const jobs = tighten(problem, best.placed);
  return {
    jobs,
    weightedLateMinutes: weightedLate(problem, jobs),
    lowerBound: Math.min(bound, best.cost),
    optimal: proven,
  };
}

/** The exact search knows nothing of benches that are held, of skills, kits and owners' days. */
const isSmall = (problem: PlanProblem): boolean =>
  isPlain(problem) &&
  problem.benches.every(({ taken }) => !taken?.length) &&
  problem.jobs.reduce((sum, { steps }) => sum + steps.length, 0) <= ARRANGE.exactSteps;

/** Some orders, then every order there is; where those are too many, orders by chance again. */
function searchSmall(problem: PlanProblem, first: Ordered | null, least: number, options: ArrangeOptions): Searched | null {
  const some = first && searchOrders(problem, first, least, ARRANGE.beforeExact, options);
  if (some && some.best.cost <= some.bound + 1e-9) return some;
  const [best, bound] = [some?.best.cost ?? Number.POSITIVE_INFINITY, some?.bound ?? least];
  const all = exhaust(problem, { best, least: bound }, ARRANGE.exactNodes, options.isOver);
  const exact: Ordered | null = all.plan && { order: [], placed: [...all.plan], cost: all.weightedLateMinutes };
  const known = exact ?? some?.best;
  if (!known) return null;
  if (all.proven || !some || options.isOver()) return { best: known, bound: all.proven ? known.cost : bound };
  const more = searchOrders(problem, some.best, bound, Number.POSITIVE_INFINITY, options);
  return known.cost < more.best.cost ? { best: known, bound: more.bound } : more;
}

function tryOrder(problem: PlanProblem, order: readonly number[]): Ordered | null {
  const placed = placeInOrder(problem, order);
  return placed && { order, placed, cost: weightedLate(problem, placed) };
}

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
    order = order.map((job) => ({ job, at: random.next() })).sort((a, b) => a.at - b.at).map(({ job }) => job); // prettier-ignore
  }
  return null;
}

interface Searched {
  readonly best: Ordered;
  readonly bound: number;
}

/**
 * Simulated annealing over orders, which the prices of the bound give a start now and then: one job is put elsewhere, or two are swapped;
 * worse orders are kept now and then, less and less, and from the best one it begins warm again.
 * @param most orders that it tries
 */
function searchOrders(problem: PlanProblem, first: Ordered, least: number, most: number, { isOver, onProgress }: ArrangeOptions): Searched {
  const n = problem.jobs.length;
  const random = seededRandom(n * 7919 + 17);
  const orders = new TriedOrders(problem, first);
  let [best, bound] = [first, least];
  let warmth: number = ARRANGE.startShare;
  const prices = pricedBounds(problem, lastEnd(first), () => best.cost);
  const better = (candidate: Ordered): boolean =>
    candidate.cost < best.cost || (candidate.cost === best.cost && lastEnd(candidate) < lastEnd(best));
  // where prices have nothing new to say they are asked less often
  let [priceAt, pause, idle] = [0, ARRANGE.perPrice as number, 0];
  for (let tried = 0; n > 1 && tried < most && best.cost > bound + 1e-9; tried += 1) {
    if (tried % ARRANGE.perLook === 0) {
      if (isOver()) break;
      onProgress?.({ tried, weightedLateMinutes: best.cost, lowerBound: Math.min(bound, best.cost), placed: best.placed });
    }
    if (tried === priceAt) {
      const priced = prices.next().value;
      idle = priced && priced.bound > bound ? 0 : idle + 1;
      pause = idle < ARRANGE.patience ? ARRANGE.perPrice : Math.min(ARRANGE.mostPerPrice, pause * ARRANGE.pauseGrows);
      priceAt += Math.round(pause);
      if (priced) {
        bound = Math.max(bound, priced.bound);
        const candidate = tryOrder(problem, priced.order);
        if (candidate && candidate.cost < orders.current.cost) orders.keep(candidate);
        if (candidate && better(candidate)) best = candidate;
      }
    }
    const { order, from } = neighbour(problem, orders.current, random.next);
    // what chance would still keep: dearer orders are given up as soon as they are
    const dearest = orders.current.cost - warmth * best.cost * Math.log(Math.max(1e-12, random.next()));
    const candidate = orders.try(order, from, dearest + 1e-9);
    if (candidate) orders.keep(candidate);
    if (candidate && better(candidate)) best = candidate;
    warmth *= ARRANGE.cooling;
    if (warmth < ARRANGE.coldShare) {
      warmth = ARRANGE.startShare;
      orders.keep(best);
    }
  }
  return { best, bound };
}

const lastEnd = ({ placed }: Ordered): number => placed.reduce((last, each) => Math.max(last, endOf(each)), 0);

/** An order beside another, and the first place in which they differ. */
function neighbour(problem: PlanProblem, { order, placed }: Ordered, next: () => number): { order: number[]; from: number } {
  const changed = [...order];
  const last = order.length - 1;
  const how = next();
  const late = how < ARRANGE.lateMoves ? lateAt(problem, placed, next) : null;
  const a = late ?? Math.floor(next() * order.length);
  // far from where it is, most of what changes is of no use
  const way = 1 + Math.floor(last * next() ** ARRANGE.nearer);
  const b = late === null ? Math.min(last, Math.max(0, next() < 0.5 ? a - way : a + way)) : Math.floor(next() * a);
  if (how > 1 - ARRANGE.swaps) [changed[a], changed[b]] = [changed[b] as number, changed[a] as number];
  else changed.splice(b, 0, changed.splice(a, 1)[0] as number);
  return { order: changed, from: Math.min(a, b) };
}

/** Place of a late job, one that costs more the sooner. null: none is late, or it stands in front already. */
function lateAt({ jobs }: PlanProblem, placed: readonly PlacedJob[], next: () => number): number | null {
  const costs = placed.map((each) => lateCost(jobs[each.job] as PlanJob, endOf(each)));
  let left = next() * costs.reduce((sum, cost) => sum + cost, 0);
  const at = costs.findIndex((cost) => (left -= cost) < 0);
  return at > 0 ? at : null;
}
