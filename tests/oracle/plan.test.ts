import { describe, expect, it } from 'vitest';
import { arrange } from '../../core/workshop/planning/arrange.js';
import { canBeDone } from '../../core/workshop/planning/bound.js';
import { planConflicts } from '../../core/workshop/planning/planConflicts.js';
import { afterLooks, generatePlan } from '../../core/workshop/planning/generatedPlans.js';
import { optimumByMip } from './planMip.js';

describe('small workshops, against an independent solver', () => {
  it.each(Array.from({ length: 24 }, (_, seed) => seed))('seed %i: as good as the mixed-integer program', async (seed) => {
    const problem = generatePlan(seed, {
      jobs: 3,
      benches: 1 + (seed % 2),
      technicians: 1 + (seed % 3 === 0 ? 1 : 0),
      days: 4,
      mostSteps: 3,
    });
    if (!problem.jobs.every((_, index) => canBeDone(problem, index))) return;
    const [ours, optimum] = [arrange(problem, { isOver: afterLooks(100) }), await optimumByMip(problem)];
    if (optimum === null) return expect(ours).toBeNull();
    expect(planConflicts(problem, ours?.jobs ?? [])).toEqual([]);
    expect(ours?.weightedLateMinutes).toBeCloseTo(optimum, 3);
    expect(ours?.lowerBound).toBeLessThanOrEqual(optimum + 1e-3);
  });
});
