import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { reasonWords } from '../../../core/edge/words/dates.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, leadRun, lotOf, type Lot } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
let lot: Lot;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Took over');
  lot = await lotOf(desk, 'C1');
});
afterAll(() => bench.close());

const pageOf = async (systemId: string): Promise<SystemPage> => (await desk.get<SystemPage>(`/systems/${systemId}`)).body;
const today = (): string => new Date(bench.nowMs).toISOString().slice(0, 10);
async function machine(name: string) {
  const systemId = await desk.system(name);
  return { systemId, loopId: (await desk.loop(systemId)).id };
}

describe('a machine that somebody else filled', () => {
  it('counts as full with an unknown coolant, is due at once, and is serviced: what goes in must not meet it', async () => {
    const own = await machine('From elsewhere');
    expect((await desk.post(`/loops/${own.loopId}/came-filled`, { productId: null, since: null })).status).toBe(201);
    const { system, dues, loops } = await pageOf(own.systemId);
    expect(system.state).toBe('in-service');
    expect(loops[0]).toMatchObject({ cameFilled: { productId: null, since: null }, inside: { by: 'fill' } });
    const [due] = dues;
    expect(due).toMatchObject({ kind: 'coolant-service', dueOn: today() });
    expect(due && reasonWords(due.reason)).toBe('unknown coolant, it mixes with nothing: find out or flush; since when nobody knows');
    expect(errorOf(await desk.run(own.loopId)).message).toContain('came filled');

    const job = await booked(desk, own, 'flush-refill');
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const { run } = (await desk.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } })).body; // prettier-ignore
    expect(run.procedure.service?.inside?.volumeMl).toBeGreaterThan(300);
    expect(run.procedure.service?.mixes.every(({ verdict }) => verdict === 'never')).toBe(true);
    expect((await leadRun(bench, desk, run, lot, { rinses: 5 })).status).toBe(201);
    const after = await pageOf(own.systemId);
    expect(after.dues.filter(({ kind }) => kind === 'coolant-service').map(({ reason }) => reason.why)).not.toContain('came-filled');
  });

  it('is due by the age of what was named, and not in the past', async () => {
    const own = await machine('Named');
    const productId = await desk.coolant({ sheetLifeMonths: 24 });
    const since = new Date(bench.nowMs - 100 * 86_400_000).toISOString().slice(0, 10);
    const { body } = await desk.post<{ dueOn: string }>(`/loops/${own.loopId}/came-filled`, { productId, since });
    expect(body.dueOn > today()).toBe(true);
    const old = await desk.post<{ dueOn: string }>(`/loops/${own.loopId}/came-filled`, { productId, since: '2019-04-01' });
    expect(old.body.dueOn).toBe(today());
    expect((await pageOf(own.systemId)).dues.filter(({ kind }) => kind === 'coolant-service')).toHaveLength(1);
    expect(errorOf(await desk.post(`/loops/${own.loopId}/came-filled`, { productId, since: '2099-01-01' })).path).toBe('since');
  });

  it('is taken back where it was a slip, and is nobody else’s', async () => {
    const own = await machine('Slip');
    await desk.post(`/loops/${own.loopId}/came-filled`, { productId: null, since: null });
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.delete(`/loops/${own.loopId}/came-filled`)).status).toBe(404);
    expect((await stranger.post(`/loops/${own.loopId}/came-filled`, { productId: null, since: null })).status).toBe(404);
    expect((await desk.delete(`/loops/${own.loopId}/came-filled`)).status).toBe(200);
    const { system, dues, loops } = await pageOf(own.systemId);
    expect([system.state, dues.length, loops[0]?.inside?.by]).toEqual(['planned', 0, 'never-filled']);
    expect((await desk.run(own.loopId)).status).toBe(201);
    expect(errorOf(await desk.post(`/loops/${own.loopId}/came-filled`, { productId: null, since: null })).message).toContain(
      'known from that',
    );
  });
});
