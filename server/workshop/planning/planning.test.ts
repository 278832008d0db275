import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { arrange } from '../../../core/workshop/planning/arrange.js';
import { setAsideImpossible } from '../../../core/workshop/planning/possible.js';
import { buildProblem, toSlots, type BoardSlot, type WorkshopBoard } from '../../../core/workshop/planning/workshopPlan.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
const jobs: string[] = [];
const WEEK = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, fromMinute: 540, toMinute: 1020 }));
const board = async (): Promise<WorkshopBoard> => (await desk.get<WorkshopBoard>('/plan')).body;
const slotOf = async (jobId: string): Promise<BoardSlot | undefined> => (await board()).slots.find((slot) => slot.jobId === jobId);
const bare = ({ jobId, benchId, steps, version }: BoardSlot) => ({ jobId, benchId, steps, version });

beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Plan');
  const lot = await lotOf(desk, 'P1');
  for (const name of ['One', 'Two']) {
    jobs.push((await booked(desk, await commissioned(bench, desk, name, lot), 'flush-refill')).id);
  }
});
afterAll(() => bench.close());

describe('the plan', () => {
  it('knows hours, absences and booked jobs, and takes an arranged plan', async () => {
    const first = await board();
    expect(first.jobs.map(({ systemName }) => systemName)).toEqual(['One', 'Two']);
    const person = first.people[0] as { id: string };
    const withHours = (await desk.put<WorkshopBoard>(`/people/${person.id}/shifts`, { shifts: WEEK, version: 1 })).body;
    expect(withHours.shifts).toHaveLength(5);
    const built = buildProblem(withHours);
    const plan = arrange(built.problem, { isOver: () => true });
    const saved = await desk.put<WorkshopBoard>('/plan/slots', { slots: toSlots(withHours, built, plan?.jobs ?? []).map(bare) });
    expect(saved.status).toBe(200);
    expect(saved.body.slots).toHaveLength(2);
  });

  it('refuses a plan that puts two jobs into one pair of hands, names them, and changes nothing', async () => {
    const now = await board();
    const [a, b] = now.slots as [BoardSlot, BoardSlot];
    const crossed = { ...bare(b), steps: a.steps, benchId: a.benchId };
    const refused = errorOf(await desk.put('/plan/slots', { slots: [crossed] }));
    expect(refused.message).toContain('at the same time');
    expect(refused.message).toMatch(/One|Two/);
    expect((await board()).slots).toEqual(now.slots);
  });

  it('is taken back whole: jobs go back to their slots, and those that had none leave the board', async () => {
    const now = await board();
    const [a, b] = now.slots as [BoardSlot, BoardSlot];
    const gone = await desk.put<WorkshopBoard>('/plan/slots', { slots: [], off: [b.jobId] });
    expect(gone.body.slots.map(({ jobId }) => jobId)).toEqual([a.jobId]);
    const back = await desk.put<WorkshopBoard>('/plan/slots', { slots: [{ ...bare(b), version: 0 }], off: [] });
    expect(back.body.slots).toHaveLength(2);
    expect(errorOf(await desk.put('/plan/slots', { slots: [], off: [] })).message).toContain('at least one job');
  });

  it('never moves a confirmed appointment, and a stale hand is told', async () => {
    const now = await board();
    const own = now.slots[0] as BoardSlot;
    const confirmed = await desk.put<WorkshopBoard>(`/jobs/${own.jobId}/slot`, { confirmed: true, version: own.version });
    expect(confirmed.body.slots.find(({ jobId }) => jobId === own.jobId)?.confirmed).toBe(true);
    expect(errorOf(await desk.put('/plan/slots', { slots: [bare(own)] })).code).toBe('stale');
    const fresh = { ...bare(own), version: own.version + 1 };
    expect(errorOf(await desk.put('/plan/slots', { slots: [fresh] })).message).toContain('confirmed with its owner');
    // and the search leaves it out
    expect(buildProblem(confirmed.body).jobs.some(({ id }) => id === own.jobId)).toBe(false);
  });

  it('writes the agreed slot to an owner who likes e-mail, once for each time', async () => {
    const now = await board();
    const own = now.slots.find(({ confirmed }) => !confirmed) as BoardSlot;
    const { id: systemId } = (await desk.get<{ system: { id: string } }>(`/jobs/${own.jobId}`)).body.system;
    const { owner } = (await desk.get<{ owner: { id: string; name: string; version: number } }>(`/systems/${systemId}`)).body;
    const confirm = async (confirmed: boolean, version: number) =>
      (await desk.put<WorkshopBoard & { told: boolean }>(`/jobs/${own.jobId}/slot`, { confirmed, version })).body;
    expect((await confirm(true, own.version)).told).toBe(false);
    await confirm(false, own.version + 1);
    const mail = { name: owner.name, email: 'ada@post.example', phone: null, channel: 'email', note: '', policy: null };
    await desk.put(`/owners/${owner.id}`, { ...mail, version: owner.version });
    expect((await confirm(true, own.version + 2)).told).toBe(true);
    await confirm(false, own.version + 3);
    expect((await confirm(true, own.version + 4)).told).toBe(false);
    await confirm(false, own.version + 5);
    const { messages } = (await desk.get<{ messages: { template: string; subject: string }[] }>('/messages')).body;
    expect(messages.filter(({ template }) => template === 'slot')).toHaveLength(1);
    expect(messages[0]?.subject).toMatch(/your slot is .*202\d/);
  });

  it('refuses somebody without the skill, and more kits than there are; each is the lead’s to say', async () => {
    const { people, workshopVersion } = await board();
    const person = people[0] as WorkshopBoard['people'][number];
    const without = await desk.put<WorkshopBoard>(`/people/${person.id}/skills`, { skills: [], version: person.version });
    expect(without.body.people[0]?.skills).toEqual([]);
    expect(errorOf(await desk.put(`/people/${person.id}/skills`, { skills: ['juggling'], version: 1 })).path).toBe('skills[0]');
    const none = await desk.put<WorkshopBoard>('/kits', { kits: [{ kind: 'flush-rig', count: 0 }], version: workshopVersion });
    const built = buildProblem(none.body);
    expect(setAsideImpossible(built.problem).left.map(({ why }) => why)).toContain('kit');
    const loose = none.body.slots.find(({ confirmed }) => !confirmed) as BoardSlot;
    expect(errorOf(await desk.put('/plan/slots', { slots: [bare(loose)] })).message).toMatch(/1 of 0 flush-rig are held at once/);
    expect((await desk.put('/kits', { kits: [], version: workshopVersion })).status).toBe(409);
    expect((await desk.put('/kits', { kits: [], version: workshopVersion + 1 })).status).toBe(200);
    expect((await desk.put(`/people/${person.id}/skills`, { skills: null, version: person.version })).status).toBe(409);
    expect((await desk.put(`/people/${person.id}/skills`, { skills: null, version: person.version + 1 })).status).toBe(200);
    const hand = await desk.colleague('technician');
    expect((await hand.put('/kits', { kits: [], version: 1 })).status).toBe(403);
  });

  it('shows a technician away as no hours', async () => {
    const now = await board();
    const person = now.people[0] as { id: string };
    const away = await desk.post<WorkshopBoard>('/absences', {
      personId: person.id,
      fromDay: now.today,
      toDay: '2027-12-31',
      reason: 'course',
    });
    expect(buildProblem(away.body).problem.technicians[0]?.shifts).toEqual([]);
    expect(
      errorOf(await desk.post('/absences', { personId: person.id, fromDay: '2026-05-02', toDay: '2026-05-01', reason: '' })).message,
    ).toContain('last day');
    await desk.delete(`/absences/${away.body.absences[0]?.id}`);
  });

  it('puts what somebody who is away had in hand into other hands, at the time that its owner was told', async () => {
    const now = await board();
    const own = now.slots.find(({ confirmed }) => confirmed) as BoardSlot;
    const ill = own.steps.find(({ personId }) => personId !== null)?.personId as string;
    const other = now.people.find(({ id }) => id !== ill) as WorkshopBoard['people'][number];
    const hands = (version: number) => desk.put<WorkshopBoard>(`/jobs/${own.jobId}/slot/hands`, { version });
    expect(errorOf(await hands(own.version)).message).toContain('Nobody is away in it');
    await desk.post('/absences', { personId: ill, fromDay: now.today, toDay: '2027-12-31', why: 'ill', reason: '' });
    // nobody else has hours
    expect((await hands(own.version)).status).toBe(409);
    await desk.put(`/people/${other.id}/shifts`, { shifts: WEEK, version: other.version });
    expect(errorOf(await hands(own.version - 1)).code).toBe('stale');
    const letters = async () => (await desk.get<{ messages: unknown[] }>('/messages')).body.messages.length;
    const before = await letters();
    const after = (await hands(own.version)).body;
    const taken = after.slots.find(({ jobId }) => jobId === own.jobId) as BoardSlot;
    expect(taken).toEqual({ ...own, version: own.version + 1, steps: own.steps.map((step) => (step.personId === null ? step : { ...step, personId: other.id })) }); // prettier-ignore
    expect(await letters()).toBe(before);
    expect((await (await desk.colleague('technician')).put(`/jobs/${own.jobId}/slot/hands`, { version: taken.version })).status).toBe(403);
    expect((await (await bench.workshop('Elsewhere')).put(`/jobs/${own.jobId}/slot/hands`, { version: taken.version })).status).toBe(404);
    for (const { id } of after.absences) await desk.delete(`/absences/${id}`);
  });

  it('goes out as a calendar under a secret address, which a new one ends', async () => {
    const made = await desk.post<{ path: string }>('/calendars', { personId: null });
    const read = async (path: string) => fetch(`${bench.url}${path}`);
    const feed = await (await read(made.body.path)).text();
    expect(feed).toContain('BEGIN:VCALENDAR');
    expect(feed).toContain('One: flush');
    expect(feed).toContain('settling check');
    // one event a job, with the parts it has in its text
    const uids = [...feed.matchAll(/^UID:(.*)$/gmu)].map(([, uid]) => uid);
    expect(new Set(uids).size).toBe(uids.length);
    expect(feed).toMatch(/SEQUENCE:\d+/);
    await desk.post('/calendars', { personId: null });
    expect((await read(made.body.path)).status).toBe(404);
    const hand = await desk.colleague('technician');
    expect((await hand.post('/calendars', { personId: null })).status).toBe(403);
    const again = await desk.post<{ path: string }>('/calendars', { personId: null });
    expect((await desk.delete<{ ended: number }>('/calendars/workshop')).body.ended).toBe(1);
    expect((await read(again.body.path)).status).toBe(404);
  });

  it('arranged now is taken minutes later: hands that begin at once, and a run whose end is only a guess', async () => {
    for (const jobId of jobs) await desk.put(`/jobs/${jobId}/slot`, { confirmed: false, version: (await slotOf(jobId))?.version ?? 0 });
    const before = await board();
    await desk.put('/plan/slots', { slots: [], off: before.slots.map(({ jobId }) => jobId) });
    // Monday morning, in the middle of the shift
    const weekday = new Date(bench.nowMs).getUTCDay();
    bench.nowMs = Math.floor(bench.nowMs / 86_400_000) * 86_400_000 + (((8 - weekday) % 7) + 7) * 86_400_000 + 9.5 * 3_600_000;
    const loop = await desk.loop(await desk.system('Three'));
    const place = before.benches[0]?.id ?? null;
    expect((await desk.run(loop.id, { leak: 'wet-only' }, place)).status).toBe(201);
    const now = await board();
    expect(now.running).toMatchObject([{ benchId: place, isGuess: true }]);
    const built = buildProblem(now);
    const plan = arrange(built.problem, { isOver: () => true });
    bench.wait(8 * 60);
    const taken = await desk.put<WorkshopBoard>('/plan/slots', { slots: toSlots(now, built, plan?.jobs ?? []).map(bare) });
    expect(taken.body.slots).toHaveLength(2);
    // but not one that began while nobody looked
    bench.wait(4 * 86_400);
    const late = await desk.put('/plan/slots', { slots: taken.body.slots.map(bare) });
    expect(errorOf(late).message).toMatch(/(One|Two) step 0 begins before it can/);
  });

  it('is invisible to another workshop', async () => {
    const other = await bench.workshop('Elsewhere');
    expect((await other.get<WorkshopBoard>('/plan')).body).toMatchObject({ jobs: [], slots: [] });
    expect((await other.put(`/jobs/${jobs[0]}/slot`, { confirmed: true, version: 1 })).status).toBe(404);
  });
});
