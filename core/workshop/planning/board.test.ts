import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrange } from './arrange.js';
import { brokenPlacements, compareBoards, dragJob } from './board.js';
import { planConflicts } from './planConflicts.js';
import { generatePlan } from './generatedPlans.js';
import { jobSteps, learnDuration } from './jobSteps.js';
import { JOB_KIND_KEYS } from '../job-kinds/kinds.js';
import { endOf, MINUTE_MS, QUARTER_MS, startOf, upToQuarter, type PlacedJob, type PlanProblem } from './problem.js';
import { joined, shiftsOf, without } from './shifts.js';
import { PLAN } from './defaults.js';
import { often } from '../../../tests/often.js';

const HOUR = 60 * MINUTE_MS;
const NOON = Date.parse('2026-03-10T08:00:00Z');
const problem = (jobs: number, benches = 2): PlanProblem => ({
  nowMs: NOON,
  technicians: [
    { id: 't', shifts: Array.from({ length: 10 }, (_, day) => ({ from: NOON + day * 24 * HOUR, to: NOON + day * 24 * HOUR + 8 * HOUR })) },
  ],
  benches: Array.from({ length: benches }, (_, n) => ({ id: `b${n}` })),
  jobs: Array.from({ length: jobs }, (_, n) => ({
    id: `j${n}`,
    releaseMs: NOON,
    dueMs: NOON + 30 * HOUR,
    weight: 1,
    steps: [{ durationMs: 3 * HOUR, attended: true, maxWaitMs: null }],
  })),
});
const planned = (given: PlanProblem): readonly PlacedJob[] => arrange(given, { isOver: () => false })?.jobs ?? [];

describe('the board of a workshop', () => {
  it('keeps benches that are held free of jobs, and the checker agrees', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), (seed) => {
        const drawn = generatePlan(seed, { jobs: 5, benches: 2, technicians: 2, days: 6, mostSteps: 3 });
        const taken = [{ from: drawn.nowMs, to: drawn.nowMs + 5 * HOUR }];
        const given = { ...drawn, benches: drawn.benches.map((bench, n) => (n === 0 ? { ...bench, taken } : bench)) };
        let looks = 0;
        const plan = arrange(given, { isOver: () => (looks += 1) > 3 });
        if (plan) expect(planConflicts(given, plan.jobs)).toEqual([]);
      }),
      { numRuns: often(60) },
    );
  });

  it('puts a dragged job where it was dropped, moves who stands in its way, and leaves the rest', () => {
    const given = problem(3);
    const before = planned(given);
    const last = [...before].sort((a, b) => startOf(b) - startOf(a))[0] as PlacedJob;
    const dragged = dragJob(given, before, last.job, 0, NOON);
    expect(dragged).not.toBeNull();
    const own = dragged?.placed.find(({ job }) => job === last.job) as PlacedJob;
    expect([own.bench, startOf(own)]).toEqual([0, NOON]);
    expect(planConflicts(given, dragged?.placed ?? [])).toEqual([]);
    expect(dragged?.moved.some(({ id }) => id === `j${last.job}`)).toBe(true);
  });

  it('calls a job that other hands do a changed one, though its time and bench stay', () => {
    const given = { ...problem(2), technicians: ['ill', 'well'].map((id) => ({ ...problem(1).technicians[0], id, shifts: problem(1).technicians[0]?.shifts ?? [] })) }; // prettier-ignore
    const before = planned(given);
    const after = before.map((each) => (each.job === 0 ? { ...each, steps: each.steps.map((step) => ({ ...step, technician: step.technician === 0 ? 1 : 0 })) } : each)); // prettier-ignore
    expect(compareBoards(given, before, before)).toEqual([]);
    expect(compareBoards(given, before, after)).toMatchObject([{ id: 'j0', hands: true }]);
  });

  it('says which promise breaks before the drop', () => {
    const given = problem(2, 1);
    const before = planned(given);
    const dragged = dragJob(given, before, 0, 0, NOON + 5 * 24 * HOUR);
    expect(dragged?.moved[0]).toMatchObject({ id: 'j0', lateBefore: 0 });
    expect(dragged?.moved[0]?.lateAfter).toBeGreaterThan(60 * 24);
  });

  it('any drag ends in a plan without a broken rule', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 1 }), fc.integer({ min: 0, max: 150 }), (job, bench, hours) => {
        const given = problem(4);
        const dragged = dragJob(given, planned(given), job, bench, NOON + hours * HOUR);
        if (dragged && dragged.left.length === 0) expect(planConflicts(given, dragged.placed)).toEqual([]);
      }),
    );
  });

  it('names placements that no longer hold once a shift is gone', () => {
    const given = problem(1);
    const before = planned(given);
    expect(brokenPlacements(given, before)).toEqual([]);
    const away = { ...given, technicians: [{ id: 't', shifts: [] }] };
    expect(brokenPlacements(away, before)).toHaveLength(1);
    expect(compareBoards(given, before, before)).toEqual([]);
  });
});

describe('a job as steps', () => {
  it('keeps its attended time whole, up to the next quarter hour, in pieces of quarter hours that fit a day', () => {
    for (const kind of JOB_KIND_KEYS)
      for (const attendedMinutes of [20, 90, 480, 720]) {
        const steps = jobSteps({ kind, rigid: false, attendedMinutes, wetMinutes: 1440 });
        const hands = steps.filter(({ attended }) => attended);
        const all = hands.reduce((sum, { durationMs }) => sum + durationMs, 0);
        // what begins, and what closes, takes a quarter hour at least
        expect(all).toBe(Math.max(upToQuarter(attendedMinutes * MINUTE_MS), hands.length * QUARTER_MS));
        expect(steps.every(({ durationMs }) => durationMs % QUARTER_MS === 0)).toBe(true);
        expect(Math.max(...hands.map(({ durationMs }) => durationMs))).toBeLessThanOrEqual(PLAN.longestPieceMinutes * MINUTE_MS + 1);
      }
  });

  it('lets a wet test run through the night without anybody, and never lets a soak wait', () => {
    const steps = jobSteps({ kind: 'strip-clean', rigid: false, attendedMinutes: 480, wetMinutes: 1440 });
    const soak = steps.findIndex(({ what }) => what === 'soak');
    expect(steps[soak]).toMatchObject({ attended: false, maxWaitMs: 0 });
    expect(steps[soak + 1]?.maxWaitMs).toBe(PLAN.soakMostWaitMinutes * MINUTE_MS);
    const plan = planned({ ...problem(1), jobs: [{ id: 'j', releaseMs: NOON, dueMs: NOON, weight: 1, steps }] });
    expect(endOf(plan[0] as PlacedJob) - startOf(plan[0] as PlacedJob)).toBeGreaterThan(24 * HOUR);
  });

  it('learns its length once three such runs are finished, soft and rigid apart', () => {
    const run = (attendedMinutes: number, rigid = false) => ({ kind: 'flush-refill' as const, rigid, attendedMinutes });
    const usual = { estimateMinutes: 120, usualMinutes: 120 };
    expect(learnDuration('flush-refill', false, usual, [run(80), run(90)])).toEqual({ minutes: 120, runs: 0 });
    expect(learnDuration('flush-refill', false, usual, [run(80), run(90), run(300), run(500, true)])).toEqual({ minutes: 90, runs: 3 });
    expect(learnDuration('flush-refill', false, usual, [run(80), run(90), run(100), run(300)])).toEqual({ minutes: 95, runs: 4 });
  });

  it('learns it by what was in them: a larger machine takes as much longer as is usual', () => {
    const build = (attendedMinutes: number, usualMinutes: number) => ({ kind: 'commissioning' as const, rigid: false, attendedMinutes, usualMinutes }); // prettier-ignore
    // each took half as long again as usual, small or large
    const finished = [build(300, 200), build(600, 400), build(900, 600)];
    expect(learnDuration('commissioning', false, { estimateMinutes: 60, usualMinutes: 500 }, finished)).toEqual({ minutes: 750, runs: 3 });
  });

  it('builds by hands first, the pump alone through its night, and hands again', () => {
    const steps = jobSteps({ kind: 'commissioning', rigid: true, attendedMinutes: 600, wetMinutes: 1440 });
    const wet = steps.findIndex(({ what }) => what === 'wet test');
    expect(steps[wet]).toMatchObject({ attended: false, durationMs: 1440 * MINUTE_MS, kits: ['pump-supply'] });
    expect(steps[wet - 1]?.kits).toEqual(['pressure-tester']);
    expect(steps[0]?.skills).toEqual(['electronics', 'rigid-tube']);
    expect(steps.at(-1)?.what).toBe('work');
  });
});

describe('shifts', () => {
  const week = { from: '2026-03-23', count: 14 };
  const shift = { personId: 'p', weekday: 1, fromMinute: 9 * 60, toMinute: 17 * 60 };

  it('follow the clock on the wall through the night of summer time', () => {
    const spans = shiftsOf('p', 'Europe/Lisbon', week, [shift], []);
    // 29 March 2026: clocks go ahead
    expect(spans.map(({ from }) => new Date(from).toISOString())).toEqual(['2026-03-23T09:00:00.000Z', '2026-03-30T08:00:00.000Z']);
  });

  it('leave out absences and what is agreed', () => {
    expect(
      shiftsOf('p', 'Europe/Lisbon', week, [shift], [{ personId: 'p', part: 'whole', fromDay: '2026-03-20', toDay: '2026-03-25' }]),
    ).toHaveLength(1);
    const noon = Date.parse('2026-03-23T12:00:00Z');
    expect(shiftsOf('p', 'Europe/Lisbon', { ...week, count: 1 }, [shift], [], [{ from: noon, to: noon + HOUR }])).toHaveLength(2);
  });

  it('leave out half days', () => {
    const away = { personId: 'p', part: 'afternoon' as const, fromDay: '2026-03-23', toDay: '2026-03-23' };
    const spans = (part: 'morning' | 'afternoon') => shiftsOf('p', 'UTC', { ...week, count: 1 }, [shift], [{ ...away, part }]).map(({ from, to }) => [new Date(from).getUTCHours(), new Date(to).getUTCHours()]); // prettier-ignore
    expect(spans('afternoon')).toEqual([[9, 13]]);
    expect(spans('morning')).toEqual([[13, 17]]);
  });

  it('taking out and joining never invents time', () => {
    const span = fc
      .tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 1, max: 30 }))
      .map(([from, length]) => ({ from, to: from + length }));
    const sum = (spans: readonly { from: number; to: number }[]): number => spans.reduce((so, { from, to }) => so + to - from, 0);
    fc.assert(
      fc.property(fc.array(span, { maxLength: 6 }), fc.array(span, { maxLength: 6 }), (a, b) => {
        const whole = joined(a);
        const taken = joined(b);
        const rest = without(whole, taken);
        expect(sum(rest)).toBeLessThanOrEqual(sum(whole));
        for (const each of rest) expect(taken.some(({ from, to }) => from < each.to && each.from < to)).toBe(false);
        expect(sum(joined([...rest, ...taken]))).toBe(sum(joined([...whole, ...taken])));
      }),
    );
  });
});
