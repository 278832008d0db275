import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrange } from './arrange.js';
import { canBeDone, lowerBound } from './bound.js';
import { afterLooks, generatePlan } from './generatedPlans.js';
import { placeInOrder } from './place.js';
import { setAsideImpossible } from './possible.js';
import { pricedBounds } from './pricedBound.js';
import { endOf, MINUTE_MS, weightedLate, type PlanProblem, type Span } from './problem.js';
import { inSlots } from './slots.js';
import { TriedOrders } from './triedOrders.js';
import { often } from '../../../tests/often.js';

const HOUR = 60 * MINUTE_MS;
const feasible = (problem: PlanProblem): PlanProblem => setAsideImpossible(problem).problem;
const inEveryOrder = (n: number): number[] => Array.from({ length: n }, (_, index) => index);

/** the best bound of some rounds */
function boundOf(problem: PlanProblem, costs: number, lastMs: number, rounds: number): number {
  let bound = 0;
  let round = 0;
  for (const each of pricedBounds(problem, lastMs, () => costs)) {
    bound = each.bound;
    if ((round += 1) >= rounds) break;
  }
  return bound;
}

/** instants and lengths that fit no slot */
const crooked = (problem: PlanProblem, minutes: number): PlanProblem => {
  const later = (ms: number): number => ms + minutes * MINUTE_MS;
  const span = ({ from, to }: Span): Span => ({ from: later(from), to: later(to) });
  return {
    ...problem,
    technicians: problem.technicians.map((each) => ({ ...each, shifts: each.shifts.map(span) })),
    jobs: problem.jobs.map((job, at) => ({
      ...job,
      releaseMs: later(job.releaseMs),
      steps: job.steps.map((step, k) => ({ ...step, durationMs: step.durationMs - ((at + k) % 7) * MINUTE_MS })),
    })),
  };
};

describe('the bound by prices', () => {
  it('is below every plan, whatever is scarce and however crooked its minutes are', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5000 }), fc.integer({ min: 0, max: 14 }), fc.boolean(), (seed, minutes, scarce) => {
        const size = { jobs: 2 + (seed % 5), benches: 1 + (seed % 2), technicians: 1 + (seed % 3 === 0 ? 1 : 0), days: 8, mostSteps: 4 };
        const problem = feasible(crooked(generatePlan(seed, { ...size, scarce }), minutes));
        const placed = placeInOrder(problem, inEveryOrder(problem.jobs.length));
        if (!placed || placed.length === 0) return;
        const first = weightedLate(problem, placed);
        const best = arrange(problem, { isOver: afterLooks(60) });
        const least = Math.min(first, best?.weightedLateMinutes ?? first);
        expect(boundOf(problem, least + 1, Math.max(...placed.map(endOf)), 60)).toBeLessThanOrEqual(least + 1e-6);
      }),
      { numRuns: often(60) },
    );
  });

  it('knows what it costs that one bench waits for the machine that matters', () => {
    // three machines each hold the one bench for ten hours, and all are due after ten
    const job = (n: number): PlanProblem['jobs'][number] => ({
      id: `${n}`,
      releaseMs: n === 3 ? 5 * HOUR : 0,
      dueMs: 10 * HOUR,
      weight: n === 3 ? 5 : 1,
      steps: [{ durationMs: 10 * HOUR, attended: false, maxWaitMs: null }],
    });
    const problem: PlanProblem = { nowMs: 0, technicians: [{ id: 't', shifts: [] }], benches: [{ id: 'a' }], jobs: [1, 2, 3].map(job) };
    // third first: 5 × 5 h, then 15 h and 25 h; any other order costs more
    const optimum = (5 * 5 + 15 + 25) * 60;
    const plan = arrange(problem, { isOver: () => false });
    expect(plan).toMatchObject({ weightedLateMinutes: optimum, optimal: true });
    const priced = boundOf(problem, optimum, 40 * HOUR, 800);
    expect(lowerBound(problem)).toBeLessThan(0.9 * optimum);
    expect(priced).toBeGreaterThan(0.9 * optimum);
  });

  it('comes near the proven best of small workshops, and nearer than counting does', () => {
    let [priced, counted, of] = [0, 0, 0];
    for (let seed = 0; seed < 40; seed += 1) {
      const problem = generatePlan(seed, { jobs: 4, benches: 1 + (seed % 2), technicians: 1, days: 6, mostSteps: 3 });
      if (!problem.jobs.every((_, at) => canBeDone(problem, at))) continue;
      const best = arrange(problem, { isOver: afterLooks(400) });
      if (!best?.optimal || best.weightedLateMinutes === 0) continue;
      of += 1;
      counted += lowerBound(problem) / best.weightedLateMinutes;
      priced += boundOf(problem, best.weightedLateMinutes, Math.max(...best.jobs.map(endOf)), 300) / best.weightedLateMinutes;
    }
    expect(of).toBeGreaterThan(15);
    expect(priced / of).toBeGreaterThan(0.85);
    expect(priced / of).toBeGreaterThan(counted / of + 0.1);
  });
});

describe('a workshop in slots', () => {
  it('takes the coarsest slot that loses nothing', () => {
    const problem = generatePlan(1, { jobs: 4, benches: 2, technicians: 2, days: 5, mostSteps: 3 });
    expect(inSlots(problem, problem.nowMs + 48 * HOUR).slotMs).toBe(15 * MINUTE_MS);
    expect(inSlots(crooked(problem, 7), problem.nowMs + 48 * HOUR).slotMs).toBeLessThanOrEqual(15 * MINUTE_MS);
  });

  it('counts who is there, and which benches are not held', () => {
    const problem: PlanProblem = {
      nowMs: 0,
      technicians: [
        { id: 'a', shifts: [{ from: HOUR, to: 3 * HOUR }] },
        { id: 'b', shifts: [{ from: 2 * HOUR, to: 4 * HOUR }] },
      ],
      benches: [{ id: 'x', taken: [{ from: 0, to: 2 * HOUR }] }, { id: 'y' }],
      jobs: [{ id: 'j', releaseMs: 0, dueMs: HOUR, weight: 1, steps: [{ durationMs: HOUR, attended: true, maxWaitMs: null }] }],
    };
    const { capacities, slotMs } = inSlots(problem, 4 * HOUR);
    expect(slotMs).toBe(HOUR);
    expect(capacities.map((each) => [...each])).toEqual([
      [1, 1, 2, 2, 2],
      [0, 1, 2, 1, 0],
    ]);
  });
});

describe('orders tried from a kept one', () => {
  it('end as they would from the beginning, and are given up only where they are dearer', () => {
    for (let seed = 0; seed < 60; seed += 1) {
      const problem = feasible(
        generatePlan(seed, { jobs: 12, benches: 3, technicians: 2, days: 14, mostSteps: 4, scarce: seed % 2 === 0 }),
      );
      const order = inEveryOrder(problem.jobs.length);
      const placed = placeInOrder(problem, order);
      if (!placed || order.length < 3) continue;
      const orders = new TriedOrders(problem, { order, placed, cost: weightedLate(problem, placed) });
      const from = seed % (order.length - 1);
      const changed = [...order.slice(0, from), ...order.slice(from).toReversed()];
      const whole = placeInOrder(problem, changed);
      const cost = whole && weightedLate(problem, whole);
      const tried = orders.try(changed, from, Number.POSITIVE_INFINITY);
      expect(tried?.placed ?? null, `seed ${seed}`).toEqual(whole);
      if (cost !== null && cost > 0) expect(orders.try(changed, from, cost - 1)).toBeNull();
      if (!tried) continue;
      // and from the one that was kept
      orders.keep(tried);
      expect(orders.try(order, from, Number.POSITIVE_INFINITY)?.placed).toEqual(placed);
    }
  });
});
