import { lateCost, type PlanProblem } from './problem.js';
import { BENCHES, inSlots, type SlotJob, type Slots, type SlotStep } from './slots.js';

/** How prices are sought (volume algorithm; Barahona & Anbil 2000). */
const SEEK = {
  /** share of Polyak's step at the beginning */
  step: 0.3,
  /** rounds without a better bound, after which steps get smaller */
  patience: 10,
  shrink: 0.5,
  grow: 1.2,
  mostStep: 1,
  /** share below which it ends */
  leastStep: 0.00001,
  /** share of the newest lying in the mean of all: where jobs may lie in many places at one price, the mean spreads them */
  newest: 0.25,
} as const;

export interface PricedRound {
  /** the best bound so far, weighted late minutes */
  readonly bound: number;
  /** jobs by the starts that these prices give them: an order for the serial schedule */
  readonly order: readonly number[];
}

/**
 * What no plan can beat, by prices: every slot of a bench, of a pair of hands, of a skill and of a kit gets a price, and every job lies where
 * its lateness and what it pays are least, as if it were alone. What all jobs cost so, less what everything that is there would earn, is
 * below every plan, whatever the prices are (Lagrangian relaxation of the time-indexed problem: Fisher 1973; Christofides, Alvarez-Valdes &
 * Tamarit 1987; Möhring, Schulz, Stork & Uetz 2003). Better prices are sought by subgradients.
 * @param lastMs end of some plan of all jobs
 * @param costOf weighted late minutes of the best plan known by now
 */
export function* pricedBounds(problem: PlanProblem, lastMs: number, costOf: () => number): Generator<PricedRound, void, undefined> {
  const slots = inSlots(problem, lastMs);
  const { count, capacities, jobs } = slots;
  const prices = capacities.map(() => new Float64Array(count));
  const bestPrices = capacities.map(() => new Float64Array(count));
  const used = capacities.map(() => new Float64Array(count));
  const meanUsed = capacities.map(() => new Float64Array(count));
  const sums = capacities.map(() => new Float64Array(count + 1));
  const { price: putPrices, lie } = placer(slots);
  let best = Number.NEGATIVE_INFINITY;
  let share: number = SEEK.step;
  let idle = 0;
  for (let round = 0; share > SEEK.leastStep; round += 1) {
    let total = 0;
    prices.forEach((price, resource) => {
      const [sum, capacity] = [sums[resource] as Float64Array, capacities[resource] as Int32Array];
      for (let slot = 0; slot < count; slot += 1) {
        sum[slot + 1] = (sum[slot] as number) + (price[slot] as number);
        total -= (price[slot] as number) * (capacity[slot] as number);
      }
      used[resource]?.fill(0);
    });
    putPrices(sums);
    const starts = jobs.map((_, index) => {
      const { cost, start } = lie(index, sums[BENCHES] as Float64Array, used);
      total += cost;
      return start;
    });
    const newest = round === 0 ? 1 : SEEK.newest;
    meanUsed.forEach((mean, resource) => {
      const now = used[resource] as Float64Array;
      for (let slot = 0; slot < count; slot += 1) mean[slot] = newest * (now[slot] as number) + (1 - newest) * (mean[slot] as number);
    });
    idle += 1;
    if (total > best) {
      share = Math.min(SEEK.mostStep, share * SEEK.grow);
      idle = 0;
      best = total;
      prices.forEach((price, resource) => bestPrices[resource]?.set(price));
    } else if (idle >= SEEK.patience) {
      share *= SEEK.shrink;
      idle = 0;
    }
    yield { bound: best, order: starts.map((_, index) => index).sort((a, b) => (starts[a] as number) - (starts[b] as number)) };
    const gap = costOf() - best;
    if (gap <= 1e-6) return;
    let square = 0;
    const towards = (resource: number, slot: number): number => {
      const over = (meanUsed[resource]?.[slot] as number) - (capacities[resource]?.[slot] as number);
      // what costs nothing cannot get cheaper
      return over < 0 && bestPrices[resource]?.[slot] === 0 ? 0 : over;
    };
    capacities.forEach((_, resource) => {
      for (let slot = 0; slot < count; slot += 1) square += towards(resource, slot) ** 2;
    });
    if (square === 0) return;
    const length = (share * gap) / square;
    prices.forEach((price, resource) => {
      const from = bestPrices[resource] as Float64Array;
      for (let slot = 0; slot < count; slot += 1) price[slot] = Math.max(0, (from[slot] as number) + length * towards(resource, slot));
    });
  }
}

interface Lying {
  /** lateness and what is paid */
  readonly cost: number;
  /** slot */
  readonly start: number;
}

/** Where a job costs least, by the running sums of the prices; what it uses is added to `used`. */
function placer({ jobs, count, demands, originMs, slotMs }: Slots): {
  price: (sums: readonly Float64Array[]) => void;
  lie: (index: number, bench: Float64Array, used: readonly Float64Array[]) => Lying;
} {
  const most = Math.max(1, ...jobs.map(({ steps }) => steps.length));
  // least cost with a step beginning in a slot, and where the step before then begins
  const costs = Array.from({ length: most }, () => new Float64Array(count + 1));
  const froms = Array.from({ length: most }, () => new Int32Array(count + 1));
  const queue = new Int32Array(count + 2);
  // what a demand pays when it begins in a slot
  const paid = demands.map(() => new Float64Array(count + 1));
  const lateAt = (job: SlotJob, endSlot: number): number => lateCost(job, originMs + endSlot * slotMs);

  const price = (sums: readonly Float64Array[]): void =>
    demands.forEach(({ length, holds, may }, index) => {
      const own = paid[index] as Float64Array;
      own.fill(0);
      for (const resource of holds) {
        const sum = sums[resource] as Float64Array;
        for (let slot = 0; slot + length <= count; slot += 1)
          own[slot] = (own[slot] as number) + (sum[slot + length] as number) - (sum[slot] as number);
      }
      for (let slot = 0; slot <= count; slot += 1) if (may?.[slot] === 0 || slot + length > count) own[slot] = Number.POSITIVE_INFINITY;
    });

  /** One step behind another: of all starts of the one before that leave no longer wait, the cheapest (a queue of minima). */
  function follow(k: number, before: SlotStep, step: SlotStep, from: number, to: number): void {
    const [own, whence, previous] = [costs[k] as Float64Array, froms[k] as Int32Array, costs[k - 1] as Float64Array];
    const pays = paid[step.demand] as Float64Array;
    let [head, tail] = [0, 0];
    for (let slot = from; slot <= to; slot += 1) {
      const joins = slot - before.length;
      if (joins >= from) {
        const cost = previous[joins] as number;
        while (tail > head && (previous[queue[tail - 1] as number] as number) >= cost) tail -= 1;
        queue[tail++] = joins;
      }
      if (step.mostGap !== null) while (tail > head && (queue[head] as number) < joins - step.mostGap) head += 1;
      if (tail > head) {
        const least = queue[head] as number;
        own[slot] = (pays[slot] as number) + (previous[least] as number);
        whence[slot] = least;
      } else own[slot] = Number.POSITIVE_INFINITY;
    }
  }

  const lie = (index: number, bench: Float64Array, used: readonly Float64Array[]): Lying => {
    const job = jobs[index] as SlotJob;
    const { steps } = job;
    const [first, last] = [steps[0] as SlotStep, steps[steps.length - 1] as SlotStep];
    let best = Number.POSITIVE_INFINITY;
    let slots: number[] = [];
    for (const window of job.windows) {
      // behind the table nothing is scarce: at least as late as its end
      const beyond = window.to === Number.POSITIVE_INFINITY ? lateAt(job, count) : Number.POSITIVE_INFINITY;
      if (beyond < best) [best, slots] = [beyond, []];
      const to = Math.min(window.to, count);
      const [begins, pays] = [costs[0] as Float64Array, paid[first.demand] as Float64Array];
      for (let slot = window.from; slot <= to; slot += 1) begins[slot] = (pays[slot] as number) - (bench[slot] as number);
      for (let k = 1; k < steps.length; k += 1) follow(k, steps[k - 1] as SlotStep, steps[k] as SlotStep, window.from, to);
      const ends = costs[steps.length - 1] as Float64Array;
      for (let slot = window.from; slot + last.length <= to; slot += 1) {
        const end = slot + last.length;
        const cost = (ends[slot] as number) + (bench[end] as number);
        if (cost >= best) continue;
        const inAll = cost + lateAt(job, end);
        if (inAll >= best) continue;
        best = inAll;
        slots = [slot];
        for (let k = steps.length - 1; k > 0; k -= 1) slots.unshift((froms[k] as Int32Array)[slots[0] as number] as number);
      }
    }
    if (slots.length > 0) add(used[BENCHES] as Float64Array, slots[0] as number, (slots.at(-1) as number) + last.length);
    slots.forEach((slot, k) => {
      const { length, demand } = steps[k] as SlotStep;
      for (const resource of demands[demand]?.holds ?? []) add(used[resource] as Float64Array, slot, slot + length);
    });
    return { cost: best, start: slots[0] ?? count };
  };
  return { price, lie };
}

function add(used: Float64Array, from: number, to: number): void {
  for (let slot = from; slot < to; slot += 1) used[slot] = (used[slot] as number) + 1;
}
