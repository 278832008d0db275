import { describe, expect, it } from 'vitest';
import { hitBy } from './absences.js';
import { jobSteps } from './jobSteps.js';
import { withStandIns } from './standIns.js';
import type { BoardJob, BoardSlot, WorkshopBoard } from './workshopPlan.js';

/** Monday, the day on which Ada falls ill */
const TODAY = '2026-03-09';
const WEEK = [1, 2, 3, 4, 5];
const job = (id: string): BoardJob => ({
  id, kind: 'flush-refill', systemName: id, ownerName: 'Owner', attendedMinutes: 120, learnedFrom: 0, wetMinutes: 10, rigid: false, windows: [],
  arrivesOn: null, partsOn: null, neededBy: null, bookedOn: TODAY, consented: true,
}); // prettier-ignore

/** A slot that begins at an hour of Tuesday, all of it in one pair of hands. */
function slotAt(jobId: string, hour: number, personId: string, more: Partial<BoardSlot> = {}): BoardSlot {
  let atMs = Date.parse(`2026-03-10T${String(hour).padStart(2, '0')}:00:00Z`);
  const steps = jobSteps(job(jobId)).map(({ what, durationMs, attended }) => {
    const from = new Date(atMs).toISOString();
    atMs += durationMs;
    return { what, from, to: new Date(atMs).toISOString(), personId: attended ? personId : null };
  });
  return { jobId, benchId: 'b1', steps, confirmed: true, version: 3, ...more };
}
const board = (slots: readonly BoardSlot[], more: Partial<WorkshopBoard> = {}): WorkshopBoard => ({
  now: `${TODAY}T08:00:00Z`,
  today: TODAY,
  timeZone: 'UTC',
  benches: [{ id: 'b1', name: 'Window' }, { id: 'b2', name: 'Long' }], // prettier-ignore
  people: ['ada', 'bo', 'cy'].map((id) => ({ id, name: id, skills: null, version: 1 })),
  workshopVersion: 1,
  kits: [],
  shifts: ['ada', 'bo'].flatMap((personId) => WEEK.map((weekday) => ({ personId, weekday, fromMinute: 540, toMinute: 1020 }))),
  absences: [{ id: 'a1', personId: 'ada', fromDay: '2026-03-10', toDay: '2026-03-12', part: 'whole', why: 'ill', reason: '' }],
  jobs: slots.map(({ jobId }) => job(jobId)),
  slots,
  running: [],
  waiting: [],
  ...more,
});
const handsOf = (slot: BoardSlot | null) => slot && [...new Set(slot.steps.flatMap(({ personId }) => personId ?? []))];

describe('a job of somebody who is away', () => {
  it('goes into other hands at the same time and bench, and is hit no more', () => {
    const now = board([slotAt('one', 9, 'ada')]);
    const other = withStandIns(now, 'one') as BoardSlot;
    expect(handsOf(other)).toEqual(['bo']);
    expect(other.steps.map(({ from, to, what }) => [from, to, what])).toEqual(now.slots[0]?.steps.map(({ from, to, what }) => [from, to, what])); // prettier-ignore
    expect([other.benchId, other.confirmed, other.version]).toEqual(['b1', true, 3]);
    const after = { ...now, slots: [other] };
    expect(hitBy(after, after.absences[0] as never)).toEqual([]);
    expect(withStandIns(after, 'one')).toBeNull();
  });

  it.each<[string, WorkshopBoard]>([
    ['whoever is there has another job in hand', board([slotAt('one', 9, 'ada'), slotAt('two', 10, 'bo', { benchId: 'b2' })])],
    ['nobody else has hours then', board([slotAt('one', 16, 'ada')], { shifts: board([]).shifts.filter(({ personId }) => personId === 'ada') })], // prettier-ignore
    ['nobody else has the skill', board([slotAt('one', 9, 'ada')], { jobs: [{ ...job('one'), rigid: true, kind: 'part-replacement' }], people: [{ id: 'ada', name: 'ada', skills: null, version: 1 }, { id: 'bo', name: 'bo', skills: [], version: 1 }] })], // prettier-ignore
    ['the others are away as well', board([slotAt('one', 9, 'ada')], { absences: ['ada', 'bo'].map((personId) => ({ id: personId, personId, fromDay: TODAY, toDay: '2026-03-20', part: 'whole', why: 'holiday', reason: '' })) })], // prettier-ignore
    ['nobody is away', board([slotAt('one', 9, 'bo')])],
    [
      'its steps are no longer those of its kind',
      board([{ ...slotAt('one', 9, 'ada'), steps: slotAt('one', 9, 'ada').steps.slice(0, 1) }]),
    ],
  ])('stays where %s', (_why, given) => {
    expect(withStandIns(given, 'one')).toBeNull();
  });

  it('goes to one who can do all of it before two who share it, and to two where nobody can', () => {
    const slot = slotAt('one', 9, 'ada');
    const hours = (personId: string, fromMinute: number, toMinute: number) => WEEK.map((weekday) => ({ personId, weekday, fromMinute, toMinute })); // prettier-ignore
    const endOfFirst = Date.parse(slot.steps[0]?.to ?? '') - Date.parse('2026-03-10T00:00:00Z');
    const halves = [...hours('bo', 540, endOfFirst / 60_000), ...hours('cy', endOfFirst / 60_000, 1020)];
    expect(handsOf(withStandIns(board([slot], { shifts: halves }), 'one'))).toEqual(['bo', 'cy']);
    expect(handsOf(withStandIns(board([slot], { shifts: [...halves, ...hours('cy', 480, 1020)] }), 'one'))).toEqual(['cy']);
  });

  it('goes to who has the rest of it already, and only for the hours of the absence', () => {
    const first = slotAt('one', 9, 'ada');
    const attended = first.steps.flatMap(({ personId }, index) => (personId ? [index] : []));
    const last = attended.at(-1) as number;
    const shifts = ['ada', 'bo', 'cy'].flatMap((personId) =>
      WEEK.map((weekday) => ({ personId, weekday, fromMinute: 540, toMinute: 1020 })),
    );
    const shared = { ...first, steps: first.steps.map((step, index) => (index === last ? { ...step, personId: 'cy' } : step)) };
    expect(handsOf(withStandIns(board([shared], { shifts }), 'one'))).toEqual(['cy']);
    const afternoon = board([first], { absences: [{ id: 'a', personId: 'ada', fromDay: '2026-03-10', toDay: '2026-03-10', part: 'afternoon', why: 'course', reason: '' }] }); // prettier-ignore
    expect(withStandIns(afternoon, 'one')).toBeNull();
  });
});
