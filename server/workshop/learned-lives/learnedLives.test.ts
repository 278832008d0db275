import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LivesAnswer } from '../../../core/workshop/learned-lives/answers.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
let product: string;
let bad: string;
let good: string;

interface Due {
  kind: string;
  dueOn: string;
  reason: DateReason;
  clocks: { kind: string; dueOn: string; reason: DateReason }[];
}
const serviceOf = async (id: string): Promise<Due> =>
  (await lead.get<{ dues: Due[] }>(`/systems/${id}`)).body.dues.find(({ kind }) => kind === 'coolant-service') as Due;
const lives = async (visitor = lead): Promise<LivesAnswer> => (await visitor.get<LivesAnswer>('/learned-lives')).body;

/** A machine that was filled from a lot, and refilled from the good one; what ended the first coolant, where something did. */
async function machine(name: string, lotId: string, filledOn: string, outOn: string | null, ended: string | null): Promise<string> {
  const id = await lead.system(name, await lead.owner());
  const { id: loopId } = await lead.loop(id, product);
  await bench.pool.query("update system set state = 'in-service' where id = $1", [id]);
  const body = { loopId, kind: 'drain-refill', productId: product, drainedMl: 690, pouredMl: 700, note: '', finding: '' };
  const made = await lead.post(`/systems/${id}/services`, { ...body, doneOn: filledOn, lotId });
  expect(made.status, JSON.stringify(made.body)).toBe(201);
  if (outOn !== null) expect((await lead.post(`/systems/${id}/services`, { ...body, doneOn: outOn, lotId: good, ended })).status).toBe(201);
  return id;
}

let fresh: string;
let holder: string;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Lives');
  product = await lead.coolant({ name: 'Emberlow Red' });
  const lot = async (name: string) =>
    (await lead.post<{ id: string }>('/coolant-lots', { productId: product, lot: name, openedOn: null })).body.id;
  [bad, good] = [await lot('B1'), await lot('G1')];
  for (let n = 0; n < 5; n += 1) await machine(`Early ${n}`, bad, '2025-04-01', `2025-0${6 + (n % 3)}-1${n}`, 'fallout');
  for (let n = 0; n < 12; n += 1) await machine(`Late ${n}`, good, '2025-01-05', `2025-12-0${1 + (n % 9)}`, n === 0 ? 'growth' : null);
  fresh = await machine('Fresh', good, '2026-02-01', null, null);
  holder = await machine('Holder', bad, '2026-02-20', null, null);
});
afterAll(() => bench.close());

describe('how long coolants last here', () => {
  it('says nothing before it was worked out, then dates machines by what fills lasted', async () => {
    expect(await lives()).toMatchObject({ at: null, groups: [], early: [], risk: 0.05 });
    expect((await serviceOf(fresh)).clocks.map(({ kind }) => kind)).not.toContain('learned-life');
    const { status, body } = await lead.post<LivesAnswer>('/learned-lives', {});
    expect(status).toBe(201);
    const own = body.groups.find(({ by }) => by === 'product');
    // six ended by something, thirteen were changed in time or run on, and what was put in then
    expect(own).toMatchObject({ key: product, name: 'Emberlow Red', failed: 6, fills: 5 + 12 + 17 + 2 });
    const due = await serviceOf(fresh);
    expect(due.reason).toMatchObject({ why: 'learned-life', of: 'product', product: 'Emberlow Red', failed: 6, risk: 0.05 });
    expect(due.dueOn > '2026-02-10' && due.dueOn < '2027-02-01').toBe(true);
    expect(due.clocks.map(({ kind }) => kind)).toContain('coolant-life');
  });

  it('moves every date with the share that may fail, for the lead alone', async () => {
    const before = await serviceOf(fresh);
    const { version } = await lives();
    const tech = await lead.colleague('technician');
    expect((await tech.put('/learned-lives/risk', { risk: 0.2, version })).status).toBe(403);
    expect((await lead.put('/learned-lives/risk', { risk: 0.7, version })).status).toBe(422);
    const { body } = await lead.put<LivesAnswer>('/learned-lives/risk', { risk: 0.2, version });
    expect(body.risk).toBe(0.2);
    const later = (await serviceOf(fresh)).clocks.find(({ kind }) => kind === 'learned-life');
    expect((later?.dueOn ?? '') > before.dueOn).toBe(true);
    expect((await lead.put('/learned-lives/risk', { risk: 0.1, version })).status).toBe(409);
    await lead.put('/learned-lives/risk', { risk: 0.05, version: body.version });
    expect((await serviceOf(fresh)).dueOn).toBe(before.dueOn);
  });

  it('names a lot that ends early, the machines that hold it, and writes to their owners once', async () => {
    const [lot, ...others] = (await lives()).early;
    expect(others).toEqual([]);
    expect(lot).toMatchObject({ what: 'Emberlow Red, B1', isCoolant: true, observed: 5, machines: 6, told: [] });
    expect(lot?.expected).toBeLessThan(2);
    expect(lot?.holders.map(({ systemName }) => systemName)).toEqual(['Holder']);
    // nobody to write to: the telephone
    const none = await lead.post<{ written: number }>(`/early-lots/${lot?.id}/letters`, {});
    expect(none.body.written).toBe(0);
    await bench.pool.query("update owner set email = 'ada@post.example' where id = (select owner_id from system where id = $1)", [holder]);
    const written = await lead.post<{ written: number; lives: LivesAnswer }>(`/early-lots/${lot?.id}/letters`, {});
    expect(written.body.written).toBe(1);
    expect(written.body.lives.early[0]?.told).toEqual([holder]);
    expect((await lead.post<{ written: number }>(`/early-lots/${lot?.id}/letters`, {})).body.written).toBe(0);
    const { messages } = (await lead.get<{ messages: { subject: string; body: string }[] }>('/messages')).body;
    expect(messages[0]?.body).toContain('Emberlow Red, B1');
    const untold = await lead.put<LivesAnswer>(`/early-lots/${lot?.id}/told`, { systemId: holder, told: false });
    expect(untold.body.early[0]?.told).toEqual([]);
    expect((await lead.put(`/early-lots/${lot?.id}/told`, { systemId: fresh, told: true })).status).toBe(404);
  });

  it('keeps a flag with its day while it stands, and ends it when it does no more', async () => {
    const [before] = (await lives()).early;
    bench.wait(86_400);
    await lead.post('/learned-lives', {});
    expect((await lives()).early[0]).toMatchObject({ id: before?.id, seenOn: before?.seenOn });
    await bench.pool.query("delete from finding where fact ->> 'cause' = 'fallout'");
    await lead.post('/learned-lives', {});
    expect((await lives()).early).toEqual([]);
  });

  it('is each workshop’s own', async () => {
    const stranger = await bench.workshop('Elsewhere');
    expect(await lives(stranger)).toMatchObject({ groups: [], early: [] });
    await stranger.post('/learned-lives', {});
    expect((await lives()).groups.length).toBeGreaterThan(0);
  });
});
