import { describe, expect, it } from 'vitest';
import { CALC_COMMANDS } from '../../edge/calc/commands.js';
import { calcPlan } from '../../edge/calc/planning.js';
import { arrange } from './arrange.js';
import { lowerBound } from './bound.js';
import { planConflicts } from './planConflicts.js';
import { afterLooks, generatePlan } from './generatedPlans.js';
import { cheapestMatching } from './matching.js';
import { setAsideImpossible } from './possible.js';
import { placeInOrder } from './place.js';
import { endOf, startOf, type PlanProblem } from './problem.js';
import { tighten } from './tighten.js';
import { often } from '../../../tests/often.js';

/** jobs that fit into the shifts when they are alone; the others make no problem of planning */
const feasible = (problem: PlanProblem): PlanProblem => setAsideImpossible(problem).problem;

describe('a plan', () => {
  it('breaks no rule, in workshops made by chance', () => {
    let planned = 0;
    for (let seed = 0; seed < often(500); seed += 1) {
      const problem = feasible(
        generatePlan(seed, { jobs: 2 + (seed % 9), benches: 1 + (seed % 4), technicians: 1 + (seed % 3), days: 10, mostSteps: 5 }),
      );
      const plan = arrange(problem, { isOver: afterLooks(2) });
      if (!plan) continue;
      planned += 1;
      expect(planConflicts(problem, plan.jobs), `seed ${seed}`).toEqual([]);
      expect(plan.weightedLateMinutes, `seed ${seed}`).toBeGreaterThanOrEqual(plan.lowerBound - 1e-6);
    }
    expect(planned).toBeGreaterThan(0.9 * often(500));
  });

  it('of sixty jobs, four benches and three technicians is whole, and says how far from the best it can be at most', () => {
    const problem = feasible(generatePlan(1, { jobs: 60, benches: 4, technicians: 3, days: 60, mostSteps: 5 }));
    const plan = arrange(problem, { isOver: afterLooks(1) });
    expect(planConflicts(problem, plan?.jobs ?? [])).toEqual([]);
    expect(plan?.lowerBound).toBeLessThanOrEqual(plan?.weightedLateMinutes ?? 0);
  });

  it('gets better the longer it is searched, and says how it goes', () => {
    const problem = feasible(generatePlan(5, { jobs: 30, benches: 3, technicians: 2, days: 40, mostSteps: 4 }));
    const seen: number[] = [];
    const quick = arrange(problem, { isOver: afterLooks(1) });
    const long = arrange(problem, { isOver: afterLooks(60), onProgress: ({ weightedLateMinutes }) => seen.push(weightedLateMinutes) });
    expect(long?.weightedLateMinutes).toBeLessThanOrEqual(quick?.weightedLateMinutes ?? 0);
    expect([...seen].sort((a, b) => b - a)).toEqual(seen);
  });

  it('takes a machine from its owner only when work begins: nothing ends later, nothing starts earlier', () => {
    for (let seed = 0; seed < 40; seed += 1) {
      const problem = feasible(generatePlan(seed, { jobs: 6, benches: 2, technicians: 2, days: 14, mostSteps: 5 }));
      const plan = placeInOrder(problem, problem.jobs.map((_, index) => index)); // prettier-ignore
      if (!plan) continue;
      const tight = tighten(problem, plan);
      expect(planConflicts(problem, tight), `seed ${seed}`).toEqual([]);
      for (const before of plan) {
        const after = tight.find(({ job }) => job === before.job);
        if (!after) throw new Error('a job was lost');
        expect(endOf(after)).toBe(endOf(before));
        expect(startOf(after)).toBeGreaterThanOrEqual(startOf(before));
      }
    }
  });
});

describe('the checker', () => {
  it('sees what breaks a rule', () => {
    const problem = feasible(generatePlan(3, { jobs: 4, benches: 1, technicians: 1, days: 14, mostSteps: 3 }));
    const plan = arrange(problem, { isOver: afterLooks(1) })?.jobs ?? [];
    expect(planConflicts(problem, plan)).toEqual([]);
    expect(planConflicts(problem, plan.slice(1))).toContainEqual({ why: 'not-planned', count: 1 });
    const moved = plan.map((each, index) => (index === 0 ? { ...each, steps: each.steps.map((step) => ({ ...step, from: step.from + 6e7, to: step.to + 6e7 })) } : each)); // prettier-ignore
    expect(planConflicts(problem, moved)).not.toEqual([]);
  });
});

describe('the bound', () => {
  it('is the cheapest assignment', () => {
    expect(cheapestMatching([[4, 1, 3], [2, 0, 5], [3, 2, 2]])).toBe(5); // prettier-ignore
    expect(cheapestMatching([[7]])).toBe(7);
    expect(cheapestMatching([])).toBe(0);
  });

  it('counts work that cannot be done in time by any order', () => {
    const hour = 3_600_000;
    const problem: PlanProblem = {
      nowMs: 0,
      technicians: [{ id: 't', shifts: [{ from: 0, to: 8 * hour }] }],
      benches: [{ id: 'a' }, { id: 'b' }],
      jobs: [1, 2].map((n) => ({
        id: `${n}`,
        releaseMs: 0,
        dueMs: 2 * hour,
        weight: n,
        steps: [{ durationMs: 2 * hour, attended: true, maxWaitMs: null }],
      })),
    };
    expect(lowerBound(problem)).toBe(120);
    expect(arrange(problem, { isOver: afterLooks(1) })).toMatchObject({ weightedLateMinutes: 120, optimal: true });
  });
});

describe('calc plan', () => {
  const at = (hour: string): string => `2026-03-09T${hour}:00Z`;
  const document = {
    now: at('08:00'),
    technicians: [{ id: 'Ada', shifts: [{ from: at('08:00'), to: at('12:00') }, { from: '2026-03-10T08:00:00Z', to: '2026-03-10T16:00:00Z' }] }], // prettier-ignore
    benches: [{ id: 'window' }],
    jobs: [
      {
        id: 'flush',
        release: at('08:00'),
        due: '2026-03-10T12:00:00Z',
        weight: 1,
        steps: [
          { minutes: 60, attended: true },
          { minutes: 1200, attended: false },
          { minutes: 60, attended: true, max_wait_minutes: 60 },
        ],
      },
    ],
    seconds: 0.2,
  };
  const plan = (more: object = {}) => calcPlan({ ...document, ...more }) as { jobs: { bench: string; steps: { start: string; end: string; technician?: string }[]; late_minutes: number }[]; weighted_late_minutes: number; lower_bound: number }; // prettier-ignore

  it('lets a soak run through the night and ends it in time, with somebody there', () => {
    const { jobs, weighted_late_minutes, lower_bound } = plan();
    const [first, soak, last] = jobs[0]?.steps ?? [];
    expect(first?.technician).toBe('Ada');
    expect(soak).not.toHaveProperty('technician');
    expect(Date.parse(last?.start ?? '') - Date.parse(soak?.end ?? '')).toBeLessThanOrEqual(3_600_000);
    expect(last?.start.slice(0, 10)).toBe('2026-03-10');
    expect([weighted_late_minutes, lower_bound]).toEqual([0, 0]);
  });

  it('counts minutes late', () => {
    const late = plan({ jobs: document.jobs.map((job) => ({ ...job, due: at('10:00'), weight: 2 })) });
    expect(late.weighted_late_minutes).toBe(2 * (late.jobs[0]?.late_minutes ?? 0));
    expect(late.lower_bound).toBe(late.weighted_late_minutes);
  });

  it.each([
    [
      'a shift that ends before it begins',
      { technicians: [{ id: 'a', shifts: [{ from: at('12:00'), to: at('08:00') }] }] },
      'technicians[0].shifts[0].to',
    ],
    ['a step longer than any shift', { jobs: [{ ...document.jobs[0], steps: [{ minutes: 600, attended: true }] }] }, 'jobs[0].steps'],
    ['no bench', { benches: [] }, 'benches'],
    ['two jobs of one name', { jobs: [document.jobs[0], document.jobs[0]] }, 'jobs[1]'],
    [
      'more work than shifts',
      { jobs: [1, 2, 3, 4].map((n) => ({ ...document.jobs[0], id: `${n}`, steps: [{ minutes: 235, attended: true }] })) },
      'technicians',
    ],
  ])('refuses %s, and says where', (_, more, path) => {
    expect(() => plan(more)).toThrow(expect.objectContaining({ path }) as Error);
  });

  it('is listed', () => expect(CALC_COMMANDS.plan?.summary).toMatch(/jobs on benches/));
});
