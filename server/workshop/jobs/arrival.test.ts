import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_READING } from '../../../core/base/units/reading.js';
import type { OffersAnswer } from '../../../core/workshop/calls/answers.js';
import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import type { TodayAnswer } from '../../../core/workshop/machines/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';

interface Letter {
  template: string;
  subject: string;
  body: string;
}

let bench: TestBench;
let lead: Visitor;
let tower: { systemId: string; loopId: string };
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Arrivals');
  await lead.post('/benches', { name: 'Long bench' });
  const { people } = (await lead.get<{ people: { id: string; version: number }[] }>('/plan')).body;
  const shifts = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, fromMinute: 0, toMinute: 1440 }));
  await lead.put(`/people/${people[0]?.id}/shifts`, { shifts, version: people[0]?.version });
  tower = await commissioned(bench, lead, 'Tower', await lotOf(lead, 'C1'));
  const { owner } = (await lead.get<{ owner: { id: string; name: string; version: number } }>(`/systems/${tower.systemId}`)).body;
  await lead.put(`/owners/${owner.id}`, { name: owner.name, email: 'ada@post.example', phone: null, channel: 'email', note: '', policy: null, version: owner.version }); // prettier-ignore
});
afterAll(() => bench.close());

const book = async (more: object = {}): Promise<JobPage> =>
  (
    await lead.post<JobPage>(`/systems/${tower.systemId}/jobs`, {
      loopId: tower.loopId,
      kind: 'drain-refill',
      partId: null,
      intake: { symptom: '', condition: '', signs: [], dataSafe: 'unknown', signsIn: '', flowLph: null },
      estimate: { hours: 1, partsText: '', coolantMl: 0, priceText: '' },
      neededBy: null,
      note: '',
      ...more,
    })
  ).body;
const read = async (id: string): Promise<JobPage> => (await lead.get<JobPage>(`/jobs/${id}`)).body;
const arrival = async (id: string, what: string, on: string | null) => lead.put<JobPage>(`/jobs/${id}/arrival`, { what, on, version: (await read(id)).version }); // prettier-ignore
const today = async (): Promise<TodayAnswer> => (await lead.get<TodayAnswer>('/today')).body;
const letters = async (): Promise<Letter[]> => (await lead.get<{ messages: Letter[] }>('/messages')).body.messages;
async function kept(id: string, index: number): Promise<void> {
  const { offers } = (await lead.get<OffersAnswer>(`/jobs/${id}/offers`)).body;
  const { benchId, steps } = offers[index] as OffersAnswer['offers'][number];
  const plan = await lead.put<{ slots: { jobId: string; version: number }[] }>('/plan/slots', {
    slots: [{ jobId: id, benchId, steps, version: 0 }],
    off: [],
  });
  const version = plan.body.slots.find(({ jobId }) => jobId === id)?.version;
  expect((await lead.put(`/jobs/${id}/slot`, { confirmed: true, version })).status).toBe(200);
}

describe('who comes and who goes', () => {
  it('taken in is the day it came, not the day it was booked', async () => {
    const later = await book();
    expect([later.broughtOn, later.where]).toEqual([null, 'awaited']);
    const { today: day } = later;
    expect((await book({ here: true })).broughtOn).toBe(day);
    const came = await arrival(later.id, 'brought', day);
    expect(came.body).toMatchObject({ broughtOn: day, where: 'here' });
    expect(errorOf(await arrival(later.id, 'not-come', day)).message).toContain('was brought already');
    expect((await arrival(later.id, 'brought', null)).body.where).toBe('awaited');
  });

  it('stands at the door today; who does not come frees the place, and can be taken back', async () => {
    const job = await book();
    await kept(job.id, 0);
    expect((await today()).comingIn.map(({ jobId }) => jobId)).toContain(job.id);
    const missed = await arrival(job.id, 'not-come', job.today);
    expect(missed.body).toMatchObject({ where: 'missed', appointment: null });
    expect((await today()).comingIn.map(({ jobId }) => jobId)).not.toContain(job.id);
    expect((await arrival(job.id, 'not-come', null)).body.where).toBe('awaited');
  });

  it('is fetched only when it is done, and nothing lies in the future', async () => {
    const job = await book();
    expect(errorOf(await arrival(job.id, 'fetched', job.today)).message).toContain('not done yet');
    expect(errorOf(await arrival(job.id, 'brought', '2099-01-01')).path).toBe('on');
    await lead.post(`/jobs/${job.id}/cancel`, { reason: 'only asked' });
    expect((await arrival(job.id, 'brought', job.today)).status).toBe(409);
  });
});

describe('letters about a slot', () => {
  it('are written the workshop’s way, whatever way whoever sends them reads', async () => {
    const { version } = (await lead.get<{ workshop: { version: number } }>('/workshop')).body.workshop;
    expect((await lead.put('/workshop/reading', { ...USUAL_READING, clock: '12', version })).status).toBe(200);
    await lead.put('/own-reading', { clock: '24', language: 'de' });
    bench.wait(60);
    const job = await book();
    await kept(job.id, 0);
    expect((await letters())[0]?.body).toMatch(/^Dear[^]* at \d{1,2}:\d\d[\s\u202f][ap]m/);
    await lead.put('/own-reading', {});
    await lead.put('/workshop/reading', { ...USUAL_READING, version: version + 1 });
    await lead.post(`/jobs/${job.id}/cancel`, { reason: 'only a try' });
    bench.wait(60);
  });

  it('say it, say that it moved, and say that it is off: once each, with an entry for a calendar', async () => {
    const job = await book();
    await kept(job.id, 1);
    const told = (await letters()).find(({ template }) => template === 'slot');
    expect(told?.body).toContain('By the plan it is ready');
    // taken back and confirmed again for the same time: nothing new to say
    const before = (await letters()).length;
    const version = async () => (await lead.get<{ slots: { jobId: string; version: number }[] }>('/plan')).body.slots.find(({ jobId }) => jobId === job.id)?.version; // prettier-ignore
    await lead.put(`/jobs/${job.id}/slot`, { confirmed: false, version: await version() });
    await lead.put(`/jobs/${job.id}/slot`, { confirmed: true, version: await version() });
    expect(await letters()).toHaveLength(before);
    bench.wait(60);
    // another time: it moved
    await lead.put(`/jobs/${job.id}/slot`, { confirmed: false, version: await version() });
    await lead.delete(`/jobs/${job.id}/slot`);
    await kept(job.id, 2);
    expect((await letters())[0]).toMatchObject({ template: 'moved' });
    bench.wait(60);
    await lead.post(`/jobs/${job.id}/cancel`, { reason: 'the owner is away' });
    expect((await letters())[0]).toMatchObject({ template: 'cancelled', subject: 'Tower: its slot is cancelled' });
    const calendars = (await bench.pool.query<{ template: string; calendar: string }>('select template, calendar from message where calendar is not null order by created_at')).rows; // prettier-ignore
    const [first, , last] = calendars.slice(-3);
    expect(first?.calendar).toContain(`UID:${job.id}@lavacrum`);
    expect(first?.calendar).toContain('METHOD:PUBLISH');
    expect(last?.calendar).toMatch(/METHOD:CANCEL[\s\S]*STATUS:CANCELLED/);
  });
});

describe('days that contradict each other', () => {
  it('are refused with the reason, at the field', async () => {
    const refused = await lead.post(`/systems/${tower.systemId}/jobs`, {
      loopId: tower.loopId,
      kind: 'drain-refill',
      partId: null,
      intake: { symptom: '', condition: '', signs: [], dataSafe: 'unknown', signsIn: '', flowLph: null },
      estimate: { hours: 1, partsText: '', coolantMl: 0, priceText: '' },
      neededBy: '2027-01-04',
      partsOn: '2027-01-08',
      note: '',
    });
    expect(errorOf(refused)).toMatchObject({
      path: 'neededBy',
      message: expect.stringContaining('before 2027-01-08, when its parts are expected'),
    });
  });
});
