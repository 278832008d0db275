import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CallAnswer, NextVisit, OffersAnswer } from '../../../core/workshop/calls/answers.js';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let lead: Visitor;
let desk: Visitor;
let tower: { systemId: string; loopId: string };
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Answers');
  await lead.post('/benches', { name: 'Long bench' });
  const { people } = (await lead.get<{ people: { id: string; version: number }[] }>('/plan')).body;
  const shifts = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, fromMinute: 540, toMinute: 1020 }));
  await lead.put(`/people/${people[0]?.id}/shifts`, { shifts, version: people[0]?.version });
  tower = await commissioned(bench, lead, 'Tower', await lotOf(lead, 'C1'));
  desk = await lead.colleague('front-desk');
});
afterAll(() => bench.close());

const call = async (who: string, by: Visitor = desk): Promise<CallAnswer> => (await by.get<CallAnswer>(`/calls?who=${encodeURIComponent(who)}`)).body; // prettier-ignore
const offers = async (): Promise<OffersAnswer> => (await desk.get<OffersAnswer>(`/offers?loop=${tower.loopId}&kind=drain-refill&hours=2`)).body; // prettier-ignore
const booking = (offer: OffersAnswer['offers'][number] | undefined, agreed: string | null = 'phone'): object => ({
  job: {
    loopId: tower.loopId,
    kind: 'drain-refill',
    partId: null,
    intake: { symptom: '', condition: '', signs: [], dataSafe: 'unknown', signsIn: '', flowLph: null },
    estimate: { hours: 2, partsText: '', coolantMl: 900, priceText: '120' },
    neededBy: null,
    note: '',
  },
  offer: offer && { benchId: offer.benchId, steps: offer.steps },
  agreed,
});

describe('what a machine comes in for next', () => {
  it('takes the same hours on its page as when it is offered on the phone, and is seen by its own workshop only', async () => {
    const { next } = (await desk.get<{ next: NextVisit }>(`/systems/${tower.systemId}/next`)).body;
    // freshly filled: nothing speaks for opening it today, but this is asked of the day on which it is due
    expect(next).toMatchObject({ kind: 'drain-refill', learnedFrom: 0 });
    const offered = (await desk.get<OffersAnswer>(`/offers?loop=${tower.loopId}&kind=${next.kind}&hours=${next.hours.toFixed(2)}`)).body;
    expect(offered.attendedMinutes).toBeCloseTo(60 * next.hours, 6);
    const stranger = await bench.workshop('Strangers');
    expect((await stranger.get(`/systems/${tower.systemId}/next`)).status).toBe(404);
  });
});

describe('somebody on the phone', () => {
  it('is found by the number in any form, by names, and by nothing of another workshop', async () => {
    for (const who of ['+351 555 123', '555123', '00351 555-123', 'ada tower', 'fernwick'])
      expect(
        (await call(who)).machines.map(({ name }) => name),
        who,
      ).toEqual(['Tower']);
    expect((await call('ada elsewhere')).machines).toEqual([]);
    expect((await call('555 999')).machines).toEqual([]);
    expect((await call('%%')).machines).toEqual([]);
    expect((await call('555123', await bench.workshop('Other'))).machines).toEqual([]);
  });

  it('hears when it is due, and whom it belongs to', async () => {
    const [machine] = (await call('555123')).machines;
    expect(machine).toMatchObject({ owner: 'Ada Fernwick', loops: [{ id: tower.loopId }], state: 'in-service', job: null, run: null });
    expect(machine?.due?.reason.why).toBe('policy');
  });

  it('is offered the next slots, books one, and hears when it is ready', async () => {
    const first = await offers();
    expect(first.offers).toHaveLength(3);
    expect(first).toMatchObject({ attendedMinutes: 120, learnedFrom: 0 });
    const [, second] = first.offers;
    const booked = await desk.post<JobPage>(`/systems/${tower.systemId}/bookings`, booking(second));
    expect([booked.status, booked.body.consents.map(({ how }) => how)]).toEqual([201, ['phone']]);
    const [machine] = (await call('555123')).machines;
    expect(machine?.job).toMatchObject({
      consented: true,
      slot: { from: second?.from, to: second?.to, bench: second?.bench, confirmed: true },
    });
    // what is agreed is offered to nobody else
    expect((await offers()).offers.map(({ from }) => from)).not.toContain(second?.from);
  });

  it('has its appointment on every page, and a cancelled booking frees its place', async () => {
    const [free] = (await offers()).offers;
    const booked = await desk.post<JobPage>(`/systems/${tower.systemId}/bookings`, booking(free, null));
    const appointment = { from: free?.from, to: free?.to, bench: free?.bench, confirmed: true };
    expect(booked.body.appointment).toEqual(appointment);
    const { jobs } = (await desk.get<SystemPage>(`/systems/${tower.systemId}`)).body;
    expect(jobs.find(({ id }) => id === booked.body.id)?.appointment).toEqual(appointment);
    expect((await offers()).offers.map(({ from }) => from)).not.toContain(free?.from);
    await desk.post(`/jobs/${booked.body.id}/cancel`, { reason: 'the owner is away' });
    expect((await offers()).offers.map(({ from }) => from)).toContain(free?.from);
    expect((await desk.get<JobPage>(`/jobs/${booked.body.id}`)).body.appointment).toBe(null);
  });

  it('gets no slot that somebody else took meanwhile, and no half of a booking', async () => {
    const [free] = (await offers()).offers;
    expect((await desk.post(`/systems/${tower.systemId}/bookings`, booking(free, null))).status).toBe(201);
    const jobs = await bench.count('job');
    const refused = await desk.post(`/systems/${tower.systemId}/bookings`, booking(free));
    expect([refused.status, errorOf(refused).path]).toEqual([422, 'slots']);
    expect(await bench.count('job')).toBe(jobs);
  });

  it('is answered by everybody, and booked by desk and lead alone', async () => {
    const technician = await lead.colleague('technician');
    expect((await call('555123', technician)).machines).toHaveLength(1);
    const [free] = (await offers()).offers;
    expect((await technician.post(`/systems/${tower.systemId}/bookings`, booking(free))).status).toBe(403);
    expect(errorOf(await desk.get(`/offers?loop=${tower.loopId}&kind=part-replacement&hours=2`)).path).toBe('kind');
    expect(errorOf(await desk.get('/calls?who=a')).path).toBe('who');
  });
});
