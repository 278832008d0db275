import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OffersAnswer } from '../../../core/workshop/calls/answers.js';
import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import type { DoorPage, LinksAnswer, NewLinkAnswer, OwnersNow } from '../../../core/workshop/owner-door/answers.js';
import { LINK } from '../../../core/workshop/owner-door/address.js';
import type { Said } from '../../../core/workshop/owner-door/said.js';
import { errorOf, TestBench, Visitor, type Answer } from '../../../tests/integration/bench.js';
import { booked, commissioned, lotOf } from '../../../tests/integration/led.js';
import { DOOR_LIMIT } from './routes.js';

let bench: TestBench;
let lead: Visitor;
let desk: Visitor;
let tower: { systemId: string; loopId: string };
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Doors');
  const { people } = (await lead.get<{ people: { id: string; version: number }[] }>('/plan')).body;
  const shifts = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, fromMinute: 540, toMinute: 1020 }));
  await lead.put(`/people/${people[0]?.id}/shifts`, { shifts, version: people[0]?.version });
  tower = await commissioned(bench, lead, 'Tower', await lotOf(lead, 'D1'));
  desk = await lead.colleague('front-desk');
});
afterAll(() => bench.close());

const secretIn = ({ address }: NewLinkAnswer): string => address.slice(address.indexOf('#') + 1);
const linkTo = async (systemId = tower.systemId, jobId: string | null = null): Promise<string> => {
  bench.wait(60);
  return secretIn((await desk.post<NewLinkAnswer>(`/systems/${systemId}/links`, { jobId })).body);
};
/** somebody with a telephone and no account */
const at = (secret: string, visitor = new Visitor(bench.url)) => ({
  page: () => visitor.send<DoorPage>('GET', '/api/door', undefined, { authorization: `Bearer ${secret}` }),
  say: (said: Said, file: string | null = null, id: string = randomUUID()): Promise<Answer<DoorPage>> =>
    visitor.send<DoorPage>('POST', '/api/door', { id, said, file }, { authorization: `Bearer ${secret}` }),
});
const now = async (who = desk): Promise<OwnersNow> => (await who.get<OwnersNow>('/owners-now')).body;
const answer = async (kind: Said['kind'], taken: boolean, words = '', who = desk) => {
  const entry = (await now()).sent.find(({ said }) => said.kind === kind);
  return who.put<OwnersNow>(`/door-entries/${entry?.id}`, { taken, words });
};
const dayIn = (days: number): string => new Date(bench.nowMs + days * 86_400_000).toISOString().slice(0, 10);
const waitsFor = async (): Promise<string[]> => (await now()).waiting.map(({ what }) => what);

describe('a link', () => {
  it('is shown once, kept as a hash, and opens the page of its machine alone', async () => {
    const made = await desk.post<NewLinkAnswer>(`/systems/${tower.systemId}/links`, { jobId: null });
    expect(made.status).toBe(201);
    expect(made.body.address).toMatch(/^http:\/\/localhost:4180\/door\/#[\w-]{32}$/);
    const { rows } = await bench.pool.query('select * from owner_link');
    expect(JSON.stringify(rows)).not.toContain(secretIn(made.body));
    const page = await at(secretIn(made.body)).page();
    expect(page.body).toMatchObject({ machine: 'Tower', owner: 'Ada Fernwick', stands: { at: 'home' }, job: null });
    const { links } = (await desk.get<LinksAnswer>(`/systems/${tower.systemId}/links`)).body;
    expect(links[0]).toMatchObject({ by: 'Tess', endedAt: null });
    expect(links[0]?.seenAt).not.toBeNull();
  });

  it('leaves no cookie, is for no search engine, and says nothing of the inside', async () => {
    const job = await booked(desk, tower, 'drain-refill', { note: 'the desk thinks he never pays' });
    const page = await at(await linkTo()).page();
    expect(page.headers.getSetCookie()).toEqual([]);
    expect(page.headers.get('x-robots-tag')).toContain('noindex');
    expect(page.headers.get('referrer-policy')).toBe('no-referrer');
    expect(page.headers.get('cache-control')).toBe('no-store');
    const text = JSON.stringify(page.body);
    expect(text).not.toContain('never pays');
    // no id of anything
    expect(text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/);
    await desk.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });

  it('that is wrong, ended or old gets one and the same answer', async () => {
    const secret = await linkTo();
    const { links } = (await desk.get<LinksAnswer>(`/systems/${tower.systemId}/links`)).body;
    expect((await desk.delete(`/owner-links/${links[0]?.id}`)).status).toBe(200);
    const old = await linkTo();
    const wrong = [secret, 'x'.repeat(32), 'short', '', "' or true --"];
    const told: Answer<DoorPage>[] = [];
    for (const each of wrong) told.push(await at(each).page());
    bench.wait((LINK.days + 1) * 86_400);
    told.push(await at(old).page(), await at(old).say({ kind: 'line', text: 'hello' }));
    bench.wait(-(LINK.days + 1) * 86_400);
    expect(new Set(told.map(({ status, body }) => `${status} ${JSON.stringify(body)}`))).toEqual(
      new Set([`404 ${JSON.stringify(told[0]?.body)}`]),
    );
    expect(told[0]?.status).toBe(404);
  });

  it('is made and ended by the desk of its own workshop', async () => {
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.post(`/systems/${tower.systemId}/links`, { jobId: null })).status).toBe(404);
    expect((await (await lead.colleague('technician')).post(`/systems/${tower.systemId}/links`, { jobId: null })).status).toBe(403);
    await linkTo();
    const { links } = (await desk.get<LinksAnswer>(`/systems/${tower.systemId}/links`)).body;
    expect((await stranger.delete(`/owner-links/${links[0]?.id}`)).status).toBe(404);
    expect((await stranger.get<LinksAnswer>(`/systems/${tower.systemId}/links`)).body.links).toEqual([]);
  });

  it('ends with the others in one piece', async () => {
    const secrets = [await linkTo(), await linkTo()];
    const stranger = await bench.workshop('Far away');
    await stranger.delete(`/systems/${tower.systemId}/links`);
    expect((await at(secrets[0] as string).page()).status).toBe(200);
    const { links } = (await desk.delete<LinksAnswer>(`/systems/${tower.systemId}/links`)).body;
    expect(links.every(({ endedAt }) => endedAt !== null)).toBe(true);
    for (const secret of secrets) expect((await at(secret).page()).status).toBe(404);
  });

  it('opens nothing any more once the machine is somebody else’s, who reads no report from before', async () => {
    const sold = await commissioned(bench, lead, 'Sold on', await lotOf(lead, 'D2'));
    const give = async (to: string): Promise<void> => {
      const { id, version, ...own } = (await desk.get<SystemPage>(`/systems/${sold.systemId}`)).body.system;
      const { caseText, builtBy, hoursPerDay, policy, note, state, name } = own;
      const given = { ownerId: to, name, caseText, builtBy, hoursPerDay, policy, note, state, version };
      expect((await desk.put(`/systems/${id}`, given)).status).toBe(200);
    };
    const { ownerId } = (await desk.get<SystemPage>(`/systems/${sold.systemId}`)).body.system;
    const before = await linkTo(sold.systemId);
    expect((await at(before).page()).body.reports).toHaveLength(1);
    await give(await desk.owner('Second Hand'));
    expect((await at(before).page()).status).toBe(404);
    const after = at(await linkTo(sold.systemId));
    expect((await after.page()).body).toMatchObject({ owner: 'Second Hand', reports: [] });
    await give(ownerId);
    expect((await at(await linkTo(sold.systemId)).page()).body.reports).toHaveLength(1);
  });
});

describe('the role of a visitor', () => {
  const asVisitor = async (secret: string, query: string): Promise<unknown[]> => {
    const client = await bench.serverPool.connect();
    try {
      await client.query('begin');
      const { hashOf } = await import('../owner-links/secret.js');
      await client.query("select set_config('lavacrum.door', $1, true), set_config('role', 'lavacrum_door', true)", [hashOf(secret)]);
      return (await client.query(query)).rows;
    } finally {
      await client.query('rollback');
      client.release();
    }
  };

  it('sees one machine, column by column, and nothing that is written for the inside', async () => {
    await desk.system('Next door');
    const secret = await linkTo();
    expect(await asVisitor(secret, 'select name from system')).toEqual([{ name: 'Tower' }]);
    expect(await asVisitor('y'.repeat(32), 'select name from system')).toEqual([]);
    // pictures of reports, and no others
    expect(await asVisitor(secret, 'select image from photo')).toEqual([]);
    for (const query of [
      'select note from system',
      'select phone from owner',
      'select note from job',
      'select intake from service_job',
      'select reason from due_item',
      'select procedure from run',
      'select words from consent',
      'select steps from slot_offer',
      'select content from door_file',
      'select body from run_event',
      'select caption from photo',
      'select name from person',
      'update job set state = $$done$$',
      'delete from owner_link',
      'update owner_link set expires_at = now()',
    ])
      await expect(asVisitor(secret, query), query).rejects.toThrow(/permission denied/);
  });
});

describe('an estimate', () => {
  it('is read, agreed to once, and asked again when it grows', async () => {
    const job = await booked(desk, tower, 'drain-refill');
    const door = at(await linkTo());
    const first = (await door.page()).body;
    expect(first.job).toMatchObject({ kind: 'drain-refill', estimate: { number: 1, hours: 2 }, agreed: null, wasAgreed: false });
    expect(await waitsFor()).toContain('estimate');
    const agreed = { kind: 'agreed', estimateNumber: 1, name: 'Ada Fernwick' } as const;
    const id = randomUUID();
    expect((await door.say(agreed, null, id)).body.job?.agreed).toMatchObject({ name: 'Ada Fernwick' });
    // a second press, and the same one sent again
    await door.say(agreed);
    await door.say(agreed, null, id);
    const own = (await desk.get<JobPage>(`/jobs/${job.id}`)).body;
    expect(own).toMatchObject({ consented: true, consents: [{ how: 'page', by: 'Ada Fernwick' }] });
    expect(await waitsFor()).not.toContain('estimate');
    expect((await now()).sent.map(({ said }) => said.kind)).toEqual(['agreed']);
    // it can be taken back by a person only
    expect(errorOf(await door.say({ kind: 'declined', estimateNumber: 1, name: 'Ada', why: '' })).code).toBe('refused');
    const { kind, partId, intake, note, neededBy, partsOn, dropOffOn, windows, version } = own;
    await desk.put(`/jobs/${job.id}`, { kind, partId, intake, note, neededBy, partsOn, dropOffOn, windows, version, estimate: { hours: 5, partsText: '', coolantMl: 900, priceText: '300', parts: [] } }); // prettier-ignore
    expect(await waitsFor()).toContain('larger-scope');
    // whoever still looks at the old one
    const stale = await door.say(agreed);
    expect([stale.status, errorOf(stale).code]).toEqual([409, 'conflict']);
    expect((await door.page()).body.job).toMatchObject({ estimate: { number: 2, hours: 5 }, agreed: null, wasAgreed: true });
    bench.wait(60);
    expect(
      (await door.say({ kind: 'declined', estimateNumber: 2, name: 'Ada Fernwick', why: 'too much' })).body.job?.declinedAt,
    ).toBeTruthy();
    expect(await waitsFor()).not.toContain('larger-scope');
    await answer('agreed', true);
    expect((await answer('declined', true, 'We call you.')).status).toBe(200);
    expect((await door.page()).body.said[0]).toMatchObject({ said: { kind: 'declined' }, answer: { taken: true, words: 'We call you.' } });
    await desk.post(`/jobs/${job.id}/cancel`, { reason: 'declined' });
    expect((await door.page()).body.job).toBe(null);
  });

  it('that two telephones agree to at the same moment is agreed to once', async () => {
    const job = await booked(desk, tower, 'drain-refill');
    const doors = [at(await linkTo()), at(await linkTo())];
    const told = await Promise.all(doors.map((door) => door.say({ kind: 'agreed', estimateNumber: 1, name: 'Ada Fernwick' })));
    expect(told.map(({ status }) => status)).toEqual([201, 201]);
    expect((await desk.get<JobPage>(`/jobs/${job.id}`)).body.consents).toHaveLength(1);
    await answer('agreed', true);
    await desk.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });

  it('shows no price where the workshop says so, and cannot be answered where that is not allowed', async () => {
    const job = await booked(desk, tower, 'drain-refill', {
      estimate: { hours: 2, partsText: '', coolantMl: 0, priceText: '120', parts: [] },
    });
    const door = at(await linkTo());
    expect((await door.page()).body.job?.estimate.priceText).toBe('120');
    const version = async () => (await lead.get<{ workshop: { version: number } }>('/workshop')).body.workshop.version;
    await lead.put('/workshop/door', { open: true, without: ['agree'], prices: false, version: await version() });
    const page = (await door.page()).body;
    expect([page.job?.estimate.priceText, page.job?.estimate.priced, page.may.includes('agree')]).toEqual(['', null, false]);
    expect((await door.say({ kind: 'agreed', estimateNumber: 1, name: 'Ada' })).status).toBe(409);
    await lead.put('/workshop/door', { open: false, without: [], prices: true, version: await version() });
    expect(errorOf(await desk.post(`/systems/${tower.systemId}/links`, { jobId: null })).message).toContain('no page for its owners');
    await lead.put('/workshop/door', { open: true, without: [], prices: true, version: await version() });
    await desk.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });
});

describe('a slot', () => {
  it('is offered, chosen, confirmed by the desk, and then agreed everywhere', async () => {
    const job = await booked(desk, tower, 'drain-refill');
    const { offers } = (await desk.get<OffersAnswer>(`/jobs/${job.id}/offers`)).body;
    const door = at(await linkTo(tower.systemId, job.id));
    expect((await door.page()).body.slots.offered).toEqual([]);
    await desk.put(`/jobs/${job.id}/offers`, { offers: offers.map(({ benchId, steps }) => ({ benchId, steps })) });
    expect(await waitsFor()).toContain('slots');
    const page = (await door.page()).body;
    expect(page.slots.offered).toEqual(offers.map(({ from, to }) => ({ from, to })));
    expect((await door.say({ kind: 'slot', from: '2031-01-01T09:00:00.000Z' })).status).toBe(409);
    const [, second] = page.slots.offered;
    expect((await door.say({ kind: 'slot', from: second?.from ?? '' })).body.slots.chosen).toBe(second?.from);
    expect(await waitsFor()).not.toContain('slots');
    expect((await answer('slot', true, '', await lead.colleague('technician'))).status).toBe(403);
    expect((await answer('slot', true)).status).toBe(200);
    const after = (await door.page()).body;
    expect(after).toMatchObject({ stands: { at: 'awaited', from: second?.from }, ready: { sure: 'agreed', at: second?.to } });
    expect(after.slots).toEqual({ agreed: second, offered: [], chosen: null });
    expect((await desk.get<JobPage>(`/jobs/${job.id}`)).body.appointment).toMatchObject({ from: second?.from, confirmed: true });
    await desk.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });

  it('that somebody took meanwhile is refused to the desk, and stays unanswered', async () => {
    const job = await booked(desk, tower, 'drain-refill');
    const { offers } = (await desk.get<OffersAnswer>(`/jobs/${job.id}/offers`)).body;
    await desk.put(`/jobs/${job.id}/offers`, { offers: offers.slice(0, 1).map(({ benchId, steps }) => ({ benchId, steps })) });
    const door = at(await linkTo(tower.systemId, job.id));
    await door.say({ kind: 'slot', from: offers[0]?.from ?? '' });
    const other = await booked(desk, tower, 'drain-refill');
    await desk.put('/plan/slots', {
      slots: [{ jobId: other.id, benchId: offers[0]?.benchId, steps: offers[0]?.steps, version: 0 }],
      off: [],
    });
    expect((await answer('slot', true)).status).toBe(422);
    expect((await now()).sent.map(({ said }) => said.kind)).toEqual(['slot']);
    expect((await answer('slot', false, 'That one is gone; here are others.')).status).toBe(200);
    expect((await door.page()).body.slots.chosen).toBe(null);
    for (const each of [job, other]) await desk.post(`/jobs/${each.id}/cancel`, { reason: 'only a test' });
  });

  it('is looked for only on days that an owner did not rule out', async () => {
    const job = await booked(desk, tower, 'drain-refill');
    const door = at(await linkTo(tower.systemId, job.id));
    await door.say({ kind: 'days', not: [{ from: dayIn(0), to: dayIn(9) }], text: 'away' });
    expect((await answer('days', true)).status).toBe(200);
    const own = (await desk.get<JobPage>(`/jobs/${job.id}`)).body;
    expect(own.windows[0]?.from).toBe(dayIn(10));
    const { offers } = (await desk.get<OffersAnswer>(`/jobs/${job.id}/offers`)).body;
    expect(offers.every(({ from }) => from.slice(0, 10) >= dayIn(10))).toBe(true);
    await desk.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });
});

describe('what an owner sends', () => {
  const due = async () =>
    (await desk.get<SystemPage>(`/systems/${tower.systemId}`)).body.dues.find(({ kind }) => kind === 'coolant-service');

  it('puts a service off once the desk takes it', async () => {
    const before = await due();
    const door = at(await linkTo());
    expect((await door.page()).body.due).toEqual({ on: before?.dueOn, putOff: 0 });
    const until = dayIn(400);
    expect((await door.say({ kind: 'put-off', until: dayIn(1), name: 'Ada', why: '' })).status).toBe(422);
    expect((await door.say({ kind: 'put-off', until, name: 'Ada', why: 'a fair in May' })).status).toBe(201);
    expect((await due())?.dueOn).toBe(before?.dueOn);
    await answer('put-off', true);
    expect(await due()).toMatchObject({ dueOn: until, postponed: 1 });
  });

  it('brings hours, photographs, logs and lines, each to be answered once', async () => {
    const door = at(await linkTo());
    const picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#2277aa' } })
      .jpeg()
      .toBuffer();
    const image = `data:image/jpeg;base64,${picture.toString('base64')}`;
    const log = `data:text/csv;base64,${Buffer.from('time,coolant\n2026-03-01 10:00,31\n').toString('base64')}`;
    expect((await door.say({ kind: 'meter', hours: 1200, on: dayIn(3) })).status).toBe(422);
    expect((await door.say({ kind: 'meter', hours: 1200, on: dayIn(0) })).status).toBe(201);
    expect((await door.say({ kind: 'photo', text: 'cold' }, image)).status).toBe(201);
    expect((await door.say({ kind: 'log' }, log)).status).toBe(201);
    expect((await door.say({ kind: 'line', text: 'It hums.' })).status).toBe(201);
    const sent = (await now()).sent;
    expect(sent.map(({ said }) => said.kind)).toEqual(['meter', 'photo', 'log', 'line']);
    const file = sent.find(({ said }) => said.kind === 'photo')?.file;
    const shown = await fetch(`${bench.url}/api/door-files/${file?.id}`, { headers: { cookie: desk.cookie } });
    expect([shown.headers.get('content-type'), (await sharp(Buffer.from(await shown.arrayBuffer())).metadata()).width]).toEqual([
      'image/jpeg',
      900,
    ]);
    const stranger = await bench.workshop('Curious');
    expect((await fetch(`${bench.url}/api/door-files/${file?.id}`, { headers: { cookie: stranger.cookie } })).status).toBe(404);
    expect((await now(stranger)).sent).toEqual([]);
    const technician = await lead.colleague('technician');
    for (const kind of ['meter', 'photo', 'log', 'line'] as const)
      expect((await answer(kind, true, '', technician)).status, kind).toBe(200);
    expect((await now()).sent).toEqual([]);
    expect((await desk.get<SystemPage>(`/systems/${tower.systemId}`)).body.usage.readings.map(({ hours }) => hours)).toContain(1200);
    expect((await desk.history(tower.systemId)).some(({ kind, text }) => kind === 'photo' && text.includes('By the owner: cold'))).toBe(
      true,
    );
    expect((await desk.put(`/door-entries/${sent[0]?.id}`, { taken: true, words: '' })).status).toBe(409);
  });

  it('is refused whole where it is none of that', async () => {
    const door = at(await linkTo());
    const entries = await bench.count('door_entry');
    const image = (bytes: Buffer | string): string => `data:image/jpeg;base64,${Buffer.from(bytes).toString('base64')}`;
    const wrong: [unknown, string | null][] = [
      [{ kind: 'photo', text: '' }, null],
      [{ kind: 'photo', text: '' }, image('no picture at all')],
      [{ kind: 'photo', text: '' }, `data:image/svg+xml;base64,${Buffer.from('<svg onload="x()"/>').toString('base64')}`],
      [{ kind: 'log' }, `data:text/csv;base64,${Buffer.from([1, 0, 2, 0, 77]).toString('base64')}`],
      [{ kind: 'line', text: 'with a file' }, `data:text/csv;base64,${Buffer.from('a,b').toString('base64')}`],
      [{ kind: 'line', text: '' }, null],
      [{ kind: 'line', text: 'x'.repeat(1001) }, null],
      [{ kind: 'settle', levelMm: 3 }, null],
      [{ kind: 'agreed', estimateNumber: 1, name: '' }, null],
      [{ kind: 'days', not: [{ from: '2026-05-02', to: '2026-05-01' }], text: '' }, null],
    ];
    for (const [said, file] of wrong) {
      const answered = await door.say(said as Said, file);
      expect([422, 409], JSON.stringify([said, answered.body])).toContain(answered.status);
    }
    const large = await door.say({ kind: 'photo', text: '' }, `data:image/jpeg;base64,${'A'.repeat(27_000_000)}`);
    expect(large.status).toBe(413);
    expect(await bench.count('door_entry')).toBe(entries);
  });

  it('comes to an end: a link takes so much, and an address asks so often', async () => {
    const door = at(await linkTo());
    for (let n = 0; n < LINK.mostEntries; n += 1) await door.say({ kind: 'line', text: `line ${n}` });
    expect((await door.say({ kind: 'line', text: 'one more' })).status).toBe(429);
    const statuses: number[] = [];
    for (let n = 0; n < DOOR_LIMIT.wrong + 5; n += 1) statuses.push((await at('z'.repeat(32)).page()).status);
    expect(statuses.at(-1)).toBe(429);
    expect(new Set(statuses)).toEqual(new Set([404, 429]));
  });
});
