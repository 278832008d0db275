import { conflictWords } from '../../edge/words/plan.js';
import { describe, expect, it } from 'vitest';
import { JOB_KIND_KEYS } from '../job-kinds/kinds.js';
import { arrange } from './arrange.js';
import { canBeDone } from './bound.js';
import { dragJob } from './board.js';
import { KIT_KEYS, SKILL_KEYS } from './capacities.js';
import { planConflicts } from './planConflicts.js';
import { afterLooks, generatePlan } from './generatedPlans.js';
import { jobSteps } from './jobSteps.js';
import { mostHeld } from './kits.js';
import { setAsideImpossible } from './possible.js';
import { endOf, QUARTER_MS, startOf, type PlacedJob, type PlanJob, type PlanProblem, type PlanStep } from './problem.js';
import { buildProblem, type WorkshopBoard } from './workshopPlan.js';
import { often } from '../../../tests/often.js';

const HOUR = 3_600_000;
const work = (hours: number, more: Partial<PlanStep> = {}): PlanStep => ({
  durationMs: hours * HOUR,
  attended: true,
  maxWaitMs: null,
  ...more,
});
const run = (hours: number, more: Partial<PlanStep> = {}): PlanStep => ({
  durationMs: hours * HOUR,
  attended: false,
  maxWaitMs: 0,
  ...more,
});
const job = (id: string, steps: readonly PlanStep[], more: Partial<PlanJob> = {}): PlanJob => ({
  id,
  releaseMs: 0,
  dueMs: 0,
  weight: 1,
  steps,
  ...more,
});
const shop = (jobs: readonly PlanJob[], more: Partial<PlanProblem> = {}): PlanProblem => ({
  nowMs: 0,
  technicians: [
    { id: 'Ada', shifts: [{ from: 0, to: 40 * HOUR }], skills: ['bends'] },
    { id: 'Bo', shifts: [{ from: 0, to: 40 * HOUR }], skills: [] },
  ],
  benches: [{ id: 'a' }, { id: 'b' }],
  jobs,
  ...more,
});
const plan = (problem: PlanProblem): readonly PlacedJob[] => {
  const found = arrange(problem, { isOver: afterLooks(3) });
  if (!found) throw new Error('no plan');
  expect(planConflicts(problem, found.jobs)).toEqual([]);
  return found.jobs;
};

describe('skills, kits and owners’ days', () => {
  it('break no rule, in workshops made by chance', () => {
    let planned = 0;
    let constrained = 0;
    for (let seed = 0; seed < often(500); seed += 1) {
      const size = { jobs: 2 + (seed % 9), benches: 1 + (seed % 4), technicians: 1 + (seed % 3), days: 12, mostSteps: 5 };
      const { problem } = setAsideImpossible(generatePlan(seed, { ...size, scarce: true }));
      const found = arrange(problem, { isOver: afterLooks(2) });
      if (!found) continue;
      planned += 1;
      expect(planConflicts(problem, found.jobs), `seed ${seed}`).toEqual([]);
      expect(found.weightedLateMinutes, `seed ${seed}`).toBeGreaterThanOrEqual(found.lowerBound - 1e-6);
      if (planConflicts({ ...problem, kits: problem.kits?.map((kit) => ({ ...kit, count: 0 })) ?? [] }, found.jobs).length > 0)
        constrained += 1;
    }
    expect(planned).toBeGreaterThan(0.8 * often(500));
    // the constraints were really there
    expect(constrained).toBeGreaterThan(0.6 * often(500));
  });

  it('put the one who can bend at the jobs that ask for it, one after the other', () => {
    const problem = shop([job('x', [work(2, { skills: ['bends'] })]), job('y', [work(2, { skills: ['bends'] })])]);
    const placed = plan(problem);
    expect(placed.map(({ steps }) => steps[0]?.technician)).toEqual([0, 0]);
    expect(Math.max(...placed.map(endOf))).toBe(4 * HOUR);
  });

  it('run one wet test after the other where there is one supply, and together where there are two', () => {
    const jobs = ['x', 'y'].map((id) => job(id, [work(1), run(10, { kits: ['supply'] })]));
    const ends = (count: number): number => Math.max(...plan(shop(jobs, { kits: [{ id: 'supply', count }] })).map(endOf));
    expect(ends(2)).toBe(11 * HOUR);
    expect(ends(1)).toBe(21 * HOUR);
  });

  it('wait for a kit that an agreed appointment holds', () => {
    const kits = [{ id: 'supply', count: 1, taken: [{ from: 0, to: 7 * HOUR }] }];
    const [placed] = plan(shop([job('x', [run(2, { kits: ['supply'] })])], { kits }));
    expect(startOf(placed as PlacedJob)).toBe(7 * HOUR);
  });

  it('keep a job inside the days that its owner can do without it', () => {
    const windows = [{ from: 2 * HOUR, to: 5 * HOUR }, { from: 20 * HOUR, to: 40 * HOUR }]; // prettier-ignore
    const short = plan(shop([job('x', [work(3)], { windows })]))[0] as PlacedJob;
    expect([startOf(short), endOf(short)]).toEqual([2 * HOUR, 5 * HOUR]);
    const long = plan(shop([job('x', [work(3), run(4)], { windows })]))[0] as PlacedJob;
    expect(startOf(long)).toBe(20 * HOUR);
  });

  it('set one impossible job aside with its reason instead of planning nothing', () => {
    const jobs = [
      job('fine', [work(1)]),
      job('away', [work(3)], { windows: [{ from: 0, to: HOUR }] }),
      job('nobody', [work(1, { skills: ['welds'] })]),
      job('no kit', [work(1, { kits: ['rig'] })]),
      job('endless', [work(60)]),
    ];
    const { problem, left, back } = setAsideImpossible(shop(jobs, { kits: [{ id: 'rig', count: 0 }] }));
    expect(left).toEqual([
      { id: 'away', why: 'owner-days' },
      { id: 'nobody', why: 'skill' },
      { id: 'no kit', why: 'kit' },
      { id: 'endless', why: 'hours' },
    ]);
    expect(back(plan(problem)).map(({ job: index }) => jobs[index]?.id)).toEqual(['fine']);
  });

  it('move a job out of the way whose kit was taken by a drag, though it stands on another bench', () => {
    const jobs = ['x', 'y'].map((id) => job(id, [run(4, { kits: ['supply'], maxWaitMs: null })]));
    const problem = shop(jobs, { kits: [{ id: 'supply', count: 1 }] });
    const current: PlacedJob[] = [
      { job: 0, bench: 0, steps: [{ from: 10 * HOUR, to: 14 * HOUR, technician: null }] },
      { job: 1, bench: 1, steps: [{ from: 0, to: 4 * HOUR, technician: null }] },
    ];
    const dragged = dragJob(problem, current, 0, 0, 2 * HOUR);
    expect(planConflicts(problem, dragged?.placed ?? [])).toEqual([]);
    expect(dragged?.moved.map(({ id }) => id).sort()).toEqual(['x', 'y']);
  });

  it('are seen by the checker', () => {
    const problem = shop([job('x', [work(1, { skills: ['bends'], kits: ['supply'] })], { windows: [{ from: 5 * HOUR, to: 9 * HOUR }] })], {
      kits: [{ id: 'supply', count: 0 }],
    });
    const wrong = planConflicts(problem, [{ job: 0, bench: 0, steps: [{ from: 0, to: HOUR, technician: 1 }] }])
      .map((each) => conflictWords(each))
      .join('; ');
    expect(wrong).toMatch(/days that its owner needs it/);
    expect(wrong).toMatch(/lacks bends/);
    expect(wrong).toMatch(/1 of 0 supply are held at once/);
  });

  it('count what overlaps, not what follows', () => {
    const spans = [{ from: 0, to: 2 }, { from: 2, to: 4 }, { from: 1, to: 3 }]; // prettier-ignore
    expect(mostHeld(spans, 0, 4)).toBe(2);
    expect(mostHeld(spans.slice(0, 2), 0, 4)).toBe(1);
    expect(mostHeld(spans, 4, 9)).toBe(0);
  });
});

describe('what a job asks for', () => {
  it('is a supply while only the pump runs, a rig while it soaks, and known skills and kits alone', () => {
    for (const kind of JOB_KIND_KEYS)
      for (const rigid of [false, true])
        for (const step of jobSteps({ kind, rigid, attendedMinutes: 300, wetMinutes: 1440 })) {
          if (step.what === 'wet test') expect(step.kits).toEqual(['pump-supply']);
          if (step.what === 'soak') expect(step.kits).toEqual(['flush-rig']);
          for (const kit of step.kits ?? []) expect(KIT_KEYS).toContain(kit);
          for (const skill of step.skills ?? []) expect(SKILL_KEYS).toContain(skill);
          if (!step.attended) expect(step.skills).toEqual([]);
        }
  });

  it('is a pressure tester in the hours before the pump runs, where joints were opened', () => {
    const steps = jobSteps({ kind: 'part-replacement', rigid: true, attendedMinutes: 300, wetMinutes: 1440 });
    const wet = steps.findIndex(({ what }) => what === 'wet test');
    expect(steps[wet - 1]?.kits).toEqual(['pressure-tester']);
    expect(steps[0]?.skills).toEqual(['rigid-tube']);
  });
});

describe('a workshop’s board', () => {
  const board: WorkshopBoard = {
    now: '2026-03-09T08:00:00Z',
    today: '2026-03-09',
    timeZone: 'UTC',
    benches: [{ id: 'b1', name: 'Window' }],
    people: [
      { id: 'p1', name: 'Ada', skills: null, version: 1 },
      { id: 'p2', name: 'Bo', skills: ['cleaner'], version: 1 },
    ],
    workshopVersion: 1,
    kits: [{ kind: 'pump-supply', count: 1 }],
    shifts: [{ personId: 'p1', weekday: 1, fromMinute: 480, toMinute: 960 }],
    absences: [],
    jobs: [
      {
        id: 'j1',
        kind: 'drain-refill',
        systemName: 'Tower',
        ownerName: 'Ada',
        attendedMinutes: 60,
        learnedFrom: 0,
        wetMinutes: 120,
        rigid: false,
        windows: [{ from: '2026-03-16', to: '2026-03-17' }],
        arrivesOn: null,
        partsOn: null,
        neededBy: null,
        bookedOn: '2026-03-08',
        consented: true,
      },
    ],
    slots: [],
    waiting: [],
    running: [],
  };

  it('hands on who can do what, what is counted, and the owner’s days as whole days', () => {
    const { problem } = buildProblem(board);
    expect(problem.technicians.map(({ skills }) => skills)).toEqual([undefined, ['cleaner']]);
    expect(problem.jobs[0]?.windows).toEqual([{ from: Date.parse('2026-03-16T00:00:00Z'), to: Date.parse('2026-03-18T00:00:00Z') }]);
    expect(canBeDone(problem, 0)).toBe(true);
  });

  it('holds the kit of an agreed slot', () => {
    const steps = jobSteps(board.jobs[0] as WorkshopBoard['jobs'][number]);
    let at = Date.parse('2026-03-16T08:00:00Z');
    const placed = steps.map(({ what, durationMs, attended }) => {
      const from = at;
      at += durationMs;
      return { what, from: new Date(from).toISOString(), to: new Date(at).toISOString(), personId: attended ? 'p1' : null };
    });
    const { problem } = buildProblem({ ...board, slots: [{ jobId: 'j1', benchId: 'b1', steps: placed, confirmed: true, version: 1 }] });
    expect(problem.kits?.[0]?.taken).toHaveLength(1);
  });

  it('is arranged on whole quarter hours, whatever the clock says and whenever what runs ends', () => {
    const more = ['j1', 'j2', 'j3'].map((id, index) => ({
      ...(board.jobs[0] as WorkshopBoard['jobs'][number]),
      id,
      attendedMinutes: 47 + 13 * index,
      wetMinutes: 25,
      windows: [],
    }));
    const running = [{ runId: 'r', benchId: 'b1', systemName: 'Loft', until: '2026-03-09T09:37:12Z', holds: [], isGuess: false }];
    const { problem } = buildProblem({ ...board, now: '2026-03-09T08:07:31Z', jobs: more, running });
    const plan = arrange(problem, { isOver: afterLooks(40) });
    expect(plan?.jobs).toHaveLength(3);
    for (const { steps } of plan?.jobs ?? [])
      for (const { from, to } of steps) expect([from % QUARTER_MS, to % QUARTER_MS]).toEqual([0, 0]);
    expect(Math.min(...(plan?.jobs ?? []).map(startOf))).toBe(Date.parse('2026-03-09T09:45:00Z'));
  });
});
