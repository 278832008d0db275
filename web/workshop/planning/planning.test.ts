// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import type { PlacedJob } from '@core/workshop/planning/problem.js';
import { jobSteps } from '@core/workshop/planning/jobSteps.js';
import type { BoardJob, BoardSlot, WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { useSession } from '../people/sessionStore.js';
import { useNotices } from '../../base/shell/notices.js';
import { buildProblem } from '@core/workshop/planning/workshopPlan.js';
import AwayDays from './AwayDays.vue';
import MoveTo from './MoveTo.vue';
import PlanBoard from './PlanBoard.vue';
import { planScale } from './planScale.js';
import SkillsAndKits from './SkillsAndKits.vue';
import PlanView from '../../pages/PlanView.vue';

const job = (id: string, more: Partial<BoardJob> = {}): BoardJob => ({
  id,
  kind: 'drain-refill',
  systemName: `Machine ${id}`,
  ownerName: 'Ada Fernwick',
  attendedMinutes: 60,
  learnedFrom: 0,
  wetMinutes: 60,
  rigid: false,
  windows: [],
  arrivesOn: null,
  partsOn: null,
  neededBy: null,
  bookedOn: '2026-03-08',
  consented: true,
  ...more,
});
/** a job's steps one behind the other from an hour of Monday, with the first technician */
function slotOf(of: BoardJob, hour: string, confirmed = false): BoardSlot {
  let at = Date.parse(`2026-03-09T${hour}:00Z`);
  const steps = jobSteps(of).map(({ what, durationMs, attended }) => {
    const from = new Date(at).toISOString();
    at += durationMs;
    return { what, from, to: new Date(at).toISOString(), personId: attended ? 'p1' : null };
  });
  return { jobId: of.id, benchId: 'b1', steps, confirmed, version: 1 };
}
const base: WorkshopBoard = {
  now: '2026-03-09T07:00:00Z',
  today: '2026-03-09',
  timeZone: 'UTC',
  benches: [
    { id: 'b1', name: 'Window' },
    { id: 'b2', name: 'Corner' },
  ],
  people: [{ id: 'p1', name: 'Ilse Darrow', skills: null, version: 1 }],
  workshopVersion: 1,
  kits: [],
  shifts: [1, 2, 3, 4, 5].map((weekday) => ({ personId: 'p1', weekday, fromMinute: 480, toMinute: 1020 })),
  absences: [],
  jobs: [],
  slots: [],
  waiting: [],
  running: [],
};
let board: WorkshopBoard;
let asked: Asked[];
let told: boolean;
beforeEach(() => {
  board = base;
  told = false;
  asked = fakeServer(({ method, path }) => {
    if (path === '/calendars') return { status: 200, body: { feeds: [] } };
    if (method === 'PUT' && /\/slot$/.test(path)) return { status: 200, body: { ...board, told } };
    return { status: 200, body: board };
  });
});
async function open(role: 'lead' | 'technician' = 'lead') {
  const screen = mountScreen(PlanView);
  useSession().$patch({ account: { role, timeZone: 'UTC' } as never });
  await settle();
  return screen;
}
const press = async (screen: Awaited<ReturnType<typeof open>>, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
  await settle();
};
const put = (path: RegExp): Asked | undefined => asked.findLast((each) => each.method === 'PUT' && path.test(each.path));

describe('the plan', () => {
  it('says what is missing before anything can be planned', async () => {
    board = { ...base, shifts: [], jobs: [job('a')] };
    expect(wordsOf(await open())).toContain('Nobody’s hours are known yet');
  });

  it('lists what waits, with its length and whether that is an estimate, and the days its owner can do without it', async () => {
    board = {
      ...base,
      jobs: [job('a', { consented: false }), job('b', { learnedFrom: 4, windows: [{ from: '2026-03-12', to: '2026-03-16' }] })],
    };
    const words = wordsOf(await open());
    expect(words).toMatch(/Machine a drain and refill 1 h .*estimate.*no consent yet/);
    expect(words).toContain('learned from 4 runs');
    expect(words).toContain('its owner can do without it 12 Mar 2026 to 16 Mar 2026');
  });

  it('sets a job aside that fits nowhere, says why, and arranges the others', async () => {
    board = { ...base, jobs: [job('a'), job('b', { windows: [{ from: '2026-03-14', to: '2026-03-15' }] })] };
    const screen = await open();
    expect(wordsOf(screen)).toContain('Machine b fits nowhere: its owner’s days are too short for it.');
    const arrange = screen.findAll('button').find((each) => each.text() === 'Arrange');
    expect(arrange?.attributes('disabled')).toBeUndefined();
  });

  it('names placements that hold no more', async () => {
    const own = job('a');
    board = { ...base, jobs: [own], slots: [slotOf(own, '05:00')] };
    expect(wordsOf(await open())).toContain('One job no longer fits where it was put');
  });

  it('moves a bar by keys, saves it, and takes it back', async () => {
    const own = job('a');
    board = { ...base, jobs: [own], slots: [slotOf(own, '09:00')] };
    const screen = await open();
    const bar = screen.findAll('[tabindex="0"]').find((each) => each.attributes('aria-label')?.startsWith('Machine a'));
    await bar?.trigger('keydown', { key: 'ArrowDown' });
    await settle();
    expect(put(/^\/plan\/slots$/)?.body).toMatchObject({ slots: [{ jobId: 'a', benchId: 'b2', version: 1 }] });
    await press(screen, /^Undo$/);
    expect(put(/^\/plan\/slots$/)?.body).toMatchObject({ slots: [{ jobId: 'a', benchId: 'b1' }] });
  });

  it('takes a job off the board again that had no slot before', async () => {
    const own = job('a');
    board = { ...base, jobs: [own], slots: [] };
    const screen = await open();
    const at = (hour: string): PlacedJob => ({
      job: 0,
      bench: 0,
      steps: slotOf(own, hour).steps.map(({ from, to, personId }) => ({
        from: Date.parse(from),
        to: Date.parse(to),
        technician: personId === null ? null : 0,
      })),
    });
    screen.findComponent(PlanBoard).vm.$emit('drop', { placed: [at('09:00')], moved: [], left: [] });
    await settle();
    expect(put(/^\/plan\/slots$/)?.body).toMatchObject({ slots: [{ jobId: 'a', version: 0 }], off: [] });
    await press(screen, /^Undo$/);
    expect(put(/^\/plan\/slots$/)?.body).toEqual({ slots: [], off: ['a'] });
  });

  it('says whether the owner was written to when a slot is confirmed', async () => {
    const own = job('a');
    board = { ...base, jobs: [own], slots: [slotOf(own, '09:00')] };
    const screen = await open();
    const bar = screen.findAll('[tabindex="0"]').find((each) => each.attributes('aria-label')?.startsWith('Machine a'));
    await bar?.trigger('pointerdown', { pointerId: 1, clientX: 0, clientY: 0 });
    await settle();
    await press(screen, /Confirmed with the owner/);
    expect(put(/^\/jobs\/a\/slot$/)?.body).toEqual({ confirmed: true, version: 1 });
    expect(useNotices().current?.text).toBe('Confirmed; tell Ada Fernwick the day and time.');
    told = true;
    await press(screen, /Confirmed with the owner/);
    expect(useNotices().current?.text).toContain('gets it by e-mail');
  });
});

const fewOf = (isLead = true) => mountScreen(SkillsAndKits, { props: { board, isLead } });

describe('what the workshop has few of', () => {
  it('writes down who cannot do what; whoever can do everything is nobody in particular', async () => {
    const screen = fewOf();
    const box = screen.find('input[aria-label="Ilse Darrow acidic cleaner"]');
    expect((box.element as HTMLInputElement).checked).toBe(true);
    await box.trigger('change');
    await settle();
    expect(put(/^\/people\/p1\/skills$/)?.body).toEqual({ skills: ['rigid-tube', 'electronics'], version: 1 });
    board = { ...base, people: [{ id: 'p1', name: 'Ilse Darrow', skills: ['rigid-tube', 'electronics'], version: 2 }] };
    const again = fewOf();
    await again.find('input[aria-label="Ilse Darrow acidic cleaner"]').trigger('change');
    await settle();
    expect(put(/^\/people\/p1\/skills$/)?.body).toEqual({ skills: null, version: 2 });
  });

  it('counts kits, and leaves out those nobody counts', async () => {
    board = { ...base, kits: [{ kind: 'flush-rig', count: 1 }] };
    const screen = fewOf();
    expect(wordsOf(screen)).toContain('Kits: 1 × flush rig.');
    await press(screen, /count them/);
    await screen.find('form.kits').trigger('submit');
    await settle();
    expect(put(/^\/kits$/)?.body).toEqual({ kits: [{ kind: 'flush-rig', count: 1 }], version: 1 });
  });

  it('is only read by those who do not lead', async () => {
    const screen = fewOf(false);
    expect(screen.find('input[aria-label="Ilse Darrow rigid tube"]').attributes('disabled')).toBeDefined();
    expect(wordsOf(screen)).not.toContain('count them');
  });
});

describe('who is away', () => {
  const away = {
    id: 'a1',
    personId: 'p1',
    fromDay: '2026-03-09',
    toDay: '2026-03-09',
    part: 'whole' as const,
    why: 'ill' as const,
    reason: '',
  };
  it('marks the jobs and owners that it hits, told or not', () => {
    const hit = job('a');
    const screen = mountScreen(AwayDays, {
      props: { board: { ...base, jobs: [hit], slots: [slotOf(hit, '09:00', true)], absences: [away] } },
    });
    expect(wordsOf(screen)).toContain('Ilse Darrow ill, Mon 9 Mar');
    expect(wordsOf(screen)).toContain('Machine a Mon 9 Mar, 09:00, Ada Fernwick was told');
  });

  it('goes into other hands with one touch where they are free, and says so where nobody is', async () => {
    useSession().account = { role: 'lead' } as never;
    const hit = job('a');
    const now: WorkshopBoard = { ...base, jobs: [hit], slots: [slotOf(hit, '09:00', true)], absences: [away] };
    expect(wordsOf(mountScreen(AwayDays, { props: { board: now } }))).toContain('nobody is free then');
    const two: WorkshopBoard = {
      ...now,
      people: [...base.people, { id: 'p2', name: 'Jorrit Vantle', skills: null, version: 1 }],
      shifts: [...base.shifts, ...base.shifts.map((shift) => ({ ...shift, personId: 'p2' }))],
    };
    const calls = fakeServer(() => ({ status: 200, body: two }));
    const screen = mountScreen(AwayDays, { props: { board: two } });
    await screen.find('[aria-label="Jorrit Vantle instead: Machine a"]').trigger('click');
    await settle();
    expect(calls.find(({ method }) => method === 'PUT')).toMatchObject({ path: '/jobs/a/slot/hands', body: { version: 1 } });
    expect(screen.emitted('changed')).toHaveLength(1);
  });

  it('for an afternoon leaves the morning as it is', () => {
    const hit = job('a');
    const morning = { ...base, jobs: [hit], slots: [slotOf(hit, '09:00')], absences: [{ ...away, part: 'afternoon' as const }] };
    expect(wordsOf(mountScreen(AwayDays, { props: { board: morning } }))).not.toContain('Machine a');
  });
});

describe('moving without dragging', () => {
  const mover = (slots: BoardSlot[], jobs: BoardJob[]) => {
    const own = { ...base, jobs, slots };
    return mountScreen(MoveTo, { props: { board: own, built: buildProblem(own), jobId: jobs[0]?.id ?? '' } });
  };
  it('takes the first whole quarter hour that fits from then on', async () => {
    const own = job('a');
    const screen = mover([slotOf(own, '09:00')], [own]);
    await screen.findAll('input')[1]?.setValue('10:07');
    await screen.find('form').trigger('submit');
    const [dragged] = screen.emitted('move')?.[0] as [{ moved: { toMs: number }[] }];
    expect(new Date(dragged.moved[0]?.toMs ?? 0).toISOString()).toBe('2026-03-09T10:15:00.000Z');
  });

  it('says in names why it cannot', async () => {
    const screen = mover([], [job('a', { windows: [{ from: '2026-03-09', to: '2026-03-09' }] })]);
    await screen.findAll('input')[0]?.setValue('2026-03-12');
    await screen.find('form').trigger('submit');
    expect(screen.emitted('move')).toBeUndefined();
    expect(wordsOf(screen)).toContain('Machine a fits nowhere on Window from then on');
  });
});

describe('the axis of the plan', () => {
  const hours = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, fromMinute: 480, toMinute: 1020 }));
  const scale = (count: number, held: number[] = []) => planScale('UTC', '2026-03-12', count, 1000, hours, held);
  it('shows working time: nights and free days are folded', () => {
    const { days, x } = scale(5);
    // Thursday to Wednesday: five days of work, a Saturday and a Sunday between
    expect(days.map(({ isFree }) => isFree)).toEqual([false, false, true, true, false, false, false]);
    const px = (from: string, to: string): number => x(Date.parse(to)) - x(Date.parse(from));
    expect(px('2026-03-12T09:00Z', '2026-03-12T10:00Z')).toBeGreaterThan(15);
    expect(px('2026-03-12T17:00Z', '2026-03-13T08:00Z')).toBeLessThan(12);
  });

  it('opens a free day on which something stands', () => {
    expect(scale(5, [Date.parse('2026-03-14T10:00Z')]).days[2]?.isFree).toBe(false);
  });

  it('finds the instant under a point again, on a quarter of an hour', () => {
    const { x, ms, hours: ticks } = scale(1);
    for (const at of ['2026-03-12T08:00Z', '2026-03-12T10:15Z', '2026-03-12T16:45Z']) expect(ms(x(Date.parse(at)))).toBe(Date.parse(at));
    expect(ticks.map(({ hour }) => hour)).toEqual([8, 9, 10, 11, 12, 13, 14, 15, 16, 17]);
  });
});
