import { randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Paper } from '../../../core/edge/papers/paper.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import type { MessagesAnswer } from '../../../core/workshop/messages/answers.js';
import type { DoorPage, OwnersNow } from '../../../core/workshop/owner-door/answers.js';
import { errorOf, TestBench, Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, leadTo, lotOf, writtenRun, type Lot } from '../../../tests/integration/led.js';
import { NightlyWork } from '../../operations/nightly/nightly.js';

let bench: TestBench;
let lead: Visitor;
let lot: Lot;
let work: NightlyWork;
let tower: { systemId: string; loopId: string };
const silent = pino({ level: 'silent' });
const nightly = (more: object = {}) =>
  new NightlyWork(
    { databaseUrl: bench.databaseUrl, smtpUrl: null, sender: 'desk@workshop.example', ownOrigin: 'http://localhost:4180', ...more },
    bench.database,
    { now: () => new Date(bench.nowMs) },
    silent,
  );
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Letters');
  lot = await lotOf(lead, 'L1');
  tower = await commissioned(bench, lead, 'Tower', lot);
  work = nightly();
  await work.start();
});
afterAll(async () => {
  await work.close();
  await bench.close();
});

const ownerOf = async (systemId = tower.systemId) => (await lead.get<SystemPage>(`/systems/${systemId}`)).body.owner;
async function reached(by: 'email' | 'text' | 'phone', reading: object = {}): Promise<void> {
  const { id, name, note, policy, version } = await ownerOf();
  expect((await lead.put(`/owners/${id}`, { name, email: 'ada@post.example', phone: '+351 555 123', channel: by, note, policy, reading, version })).status).toBe(200); // prettier-ignore
}
const mailbox = async (): Promise<MessagesAnswer> => (await lead.get<MessagesAnswer>('/messages')).body;
/** the newest link that reached somebody */
const lastLink = async (): Promise<string> => /#([\w-]{32})/.exec((await mailbox()).standIn.find(({ text }) => text?.includes('/door/#'))?.text ?? '')?.[1] ?? ''; // prettier-ignore
const door = <T = DoorPage>(secret: string, method = 'GET', body?: object, path = '') =>
  new Visitor(bench.url).send<T>(method, `/api/door${path}`, body, { authorization: `Bearer ${secret}` });
const say = (secret: string, said: object) => door(secret, 'POST', { id: randomUUID(), said, file: null });

describe('a letter', () => {
  it('carries a link that is made as it leaves, and is kept without it', async () => {
    await reached('email');
    const job = await booked(lead, tower, 'drain-refill');
    expect((await lead.post<{ told: boolean }>(`/jobs/${job.id}/letters`, { letter: 'estimate' })).body.told).toBe(true);
    // the same estimate is told once
    expect((await lead.post<{ told: boolean }>(`/jobs/${job.id}/letters`, { letter: 'estimate' })).body.told).toBe(false);
    expect(await bench.count('owner_link')).toBe(0);
    expect(await work.sendNow(lead.workshopId)).toBe(1);
    const { messages, standIn } = await mailbox();
    expect(messages[0]?.body).toContain('‹link›');
    expect(standIn[0]?.text).toMatch(/http:\/\/localhost:4180\/door\/#[\w-]{32}/);
    expect((await door(await lastLink())).body).toMatchObject({ machine: 'Tower', job: { kind: 'drain-refill' } });
    // whoever may not hand out links reads none in the mailbox
    const technician = await lead.colleague('technician');
    expect((await technician.get<MessagesAnswer>('/messages')).body.standIn[0]?.text).toBe(null);
    await lead.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });

  it('goes as a short text where that is liked, in its owner’s language', async () => {
    bench.wait(60);
    await reached('text', { language: 'de' });
    const job = await booked(lead, tower, 'drain-refill');
    expect((await lead.post(`/jobs/${job.id}/letters`, { letter: 'estimate' })).status).toBe(201);
    await work.sendNow(lead.workshopId);
    const [newest] = (await mailbox()).standIn;
    expect(newest).toMatchObject({ way: 'text', recipient: '+351 555 123' });
    expect(newest?.text).toMatch(/^Tower: was es brauchen wird\. http\S+\/door\/#[\w-]{32} Letters$/);
    expect((await door(await lastLink())).body.reading.language).toBe('de');
    await lead.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });

  it('that a gateway does not take is tried again, and leaves no link behind', async () => {
    bench.wait(60);
    const refusing = createServer((_request, response) => response.writeHead(500).end());
    await new Promise<void>((resolve) => refusing.listen(0, '127.0.0.1', resolve));
    const other = nightly({ textUrl: `http://127.0.0.1:${(refusing.address() as AddressInfo).port}/` });
    await other.start();
    const job = await booked(lead, tower, 'drain-refill');
    await lead.post(`/jobs/${job.id}/letters`, { letter: 'estimate' });
    const links = await bench.count('owner_link');
    expect(await other.sendNow(lead.workshopId)).toBe(0);
    expect(await bench.count('owner_link')).toBe(links);
    expect((await mailbox()).messages[0]).toMatchObject({ state: 'waiting', problem: 'the text gateway answered 500' });
    expect(await work.sendNow(lead.workshopId)).toBe(1);
    await other.close();
    await new Promise((resolve) => refusing.close(resolve));
    await lead.post(`/jobs/${job.id}/cancel`, { reason: 'only a test' });
  });

  it('asks for the level once, as its days begin, and nobody who likes to be called', async () => {
    await reached('phone');
    bench.wait(2 * 86_400);
    await work.tellWorkshop(lead.workshopId);
    const about = async (): Promise<number> => (await mailbox()).messages.filter(({ body, subject }) => `${subject}${body}`.includes('level')).length; // prettier-ignore
    const before = await about();
    await reached('email');
    await work.tellWorkshop(lead.workshopId);
    await work.tellWorkshop(lead.workshopId);
    expect(await about()).toBe(before + 1);
  });
});

describe('a larger scope', () => {
  it('is asked about while the run goes on, agreed to at the door, and only then becomes its steps', async () => {
    bench.wait(60);
    const job = await booked(lead, tower, 'drain-refill');
    await lead.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const { run } = (await lead.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } })).body; // prettier-ignore
    await leadTo(bench, lead, run, lot, { stopIn: 'drain' });
    const estimate = { hours: 4, partsText: '', coolantMl: 900, priceText: '210', parts: [] };
    const asked = { kind: 'flush-refill', reason: 'strings in the jug', estimate };
    const technician = await lead.colleague('technician');
    const after = await technician.post<JobPage>(`/runs/${run.id}/asked-scope`, asked);
    expect(after.body).toMatchObject({
      kind: 'drain-refill',
      consented: false,
      asked: { kind: 'flush-refill', found: 'strings in the jug' },
    });
    const waits = async (): Promise<string[]> => (await lead.get<OwnersNow>('/owners-now')).body.waiting.map(({ what }) => what);
    expect(await waits()).toContain('larger-scope');
    // not before the owner said so
    const early = await technician.post(`/runs/${run.id}/rescope`, { ...asked, how: 'page' });
    expect(errorOf(early).message).toContain('did not agree to this on the page yet');
    await work.sendNow(lead.workshopId);
    const secret = await lastLink();
    const page = (await door(secret)).body;
    expect(page).toMatchObject({ stands: { at: 'bench', stage: 'draining' }, job: { wasAgreed: true, estimate: { kind: 'flush-refill', found: 'strings in the jug', priceText: '210' } } }); // prettier-ignore
    expect((await say(secret, { kind: 'agreed', estimateNumber: page.job?.estimate.number ?? 0, name: 'Ada' })).status).toBe(201);
    expect(await waits()).not.toContain('larger-scope');
    const changed = await technician.post<RunAnswer>(`/runs/${run.id}/rescope`, { ...asked, how: 'page' });
    expect(changed.body.run.procedure.service?.kind).toBe('flush-refill');
    const own = (await lead.get<JobPage>(`/jobs/${job.id}`)).body;
    expect(own).toMatchObject({ kind: 'flush-refill', asked: null, consented: true });
    expect(own.consents.map(({ how }) => how)).toEqual(['page', 'phone']);
    await lead.post(`/runs/${run.id}/abandon`, { reason: 'only a test' });
  });

  it('can be taken back: what was agreed to before holds again', async () => {
    bench.wait(60);
    const second = await commissioned(bench, lead, 'Cube', lot);
    const job = await booked(lead, second, 'drain-refill');
    await lead.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const { run } = (await lead.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } })).body; // prettier-ignore
    const estimate = { hours: 9, partsText: '', coolantMl: 0, priceText: '', parts: [] };
    await lead.post(`/runs/${run.id}/asked-scope`, { kind: 'strip-clean', reason: 'flakes', estimate });
    const back = (await lead.delete<JobPage>(`/runs/${run.id}/asked-scope`)).body;
    expect(back).toMatchObject({ asked: null, consented: true, estimate: { hours: 2 } });
    expect(errorOf(await lead.delete(`/runs/${run.id}/asked-scope`)).message).toContain('asked about nothing');

    // and to its end: the report is kept, for the owner as well
    const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#2277aa' } })
      .jpeg()
      .toBuffer();
    await lead.post(`/systems/${second.systemId}/photos`, { id: randomUUID(), caption: 'dusty', jobId: job.id, image: `data:image/jpeg;base64,${picture.toString('base64')}` }); // prettier-ignore
    expect((await writtenRun(bench, lead, run, lot)).status).toBe(201);
    const made = await lead.post<{ address: string }>(`/systems/${second.systemId}/links`, { jobId: null });
    const secret = made.body.address.slice(-32);
    const page = (await door(secret)).body;
    expect(page).toMatchObject({ stands: { at: 'ready' }, reports: [{ number: 2, kind: 'drain-refill' }, { number: 1, kind: 'commissioning' }] }); // prettier-ignore
    const paper = (await door<Paper>(secret, 'GET', undefined, '/reports/2')).body;
    expect(paper.title).toBe('Drain and refill of Cube');
    expect((await lead.get<Paper>(`/runs/${run.id}/report`)).body).toEqual(paper);
    expect((await door<Paper>(secret, 'GET', undefined, '/reports/2?language=de')).body.title).toMatch(/: Cube$/);
    const file = await fetch(`${bench.url}/api/door/reports/2/pdf`, { headers: { authorization: `Bearer ${secret}` } });
    expect([file.headers.get('content-type'), (await file.text()).slice(0, 5)]).toEqual(['application/pdf', '%PDF-']);
    const shown = await fetch(`${bench.url}/api/door/reports/2/pictures/0`, { headers: { authorization: `Bearer ${secret}` } });
    expect([shown.status, shown.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
    for (const path of ['/reports/3', '/reports/0', '/reports/x', '/reports/2/pictures/9', '/reports/1/pictures/0'])
      expect((await door(secret, 'GET', undefined, path)).status, path).toBe(404);
    const stranger = await bench.workshop('Curious');
    expect((await stranger.get(`/runs/${run.id}/report`)).status).toBe(404);
    // papers of the desk, and nobody else's
    for (const which of ['estimate', 'drop-off', 'pick-up']) {
      const slip = await fetch(`${bench.url}/api/systems/${second.systemId}/${which}.pdf`, { headers: { cookie: lead.cookie } });
      expect([which, slip.status, slip.headers.get('content-type')]).toEqual([which, 200, 'application/pdf']);
      expect(
        (await fetch(`${bench.url}/api/systems/${second.systemId}/${which}.pdf`, { headers: { cookie: stranger.cookie } })).status,
      ).toBe(404);
    }
  });
});
