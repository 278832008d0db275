import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, lotOf, writtenRun } from '../../../tests/integration/led.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { rinsesAhead } from '../../../core/bench/runs/rinses.js';
import type { PourChoice } from '../../../core/workshop/jobs/pourChoice.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';

let bench: TestBench;
let desk: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Beside');
});
afterAll(() => bench.close());

interface Due {
  readonly id: string;
  readonly kind: string;
  readonly dueOn: string;
  readonly version: number;
  readonly reason: DateReason;
}

describe('what goes along while a machine is open', () => {
  it('is booked with its job, led at the bench, and gives paste its next day', async () => {
    const lot = await lotOf(desk, 'B1');
    const own = await commissioned(bench, desk, 'Crept up', lot);
    const pasteOf = async (): Promise<Due[]> =>
      (await desk.get<{ dues: Due[] }>(`/systems/${own.systemId}`)).body.dues.filter(({ kind }) => kind === 'paste-renewal');
    expect(await pasteOf()).toEqual([]);
    // a job that dusts anyway takes no dust along
    const odd = { loopId: own.loopId, kind: 'closed-loop', partId: null, intake: { symptom: '', condition: '', signs: [], dataSafe: 'yes', signsIn: '', flowLph: null }, estimate: { hours: 1, partsText: '', coolantMl: 0, priceText: '', parts: [] }, neededBy: null, note: '', beside: ['dust'] }; // prettier-ignore
    expect(errorOf(await desk.post(`/systems/${own.systemId}/jobs`, odd)).fields?.map(({ path }) => path)).toEqual(['beside']);
    const job = await booked(desk, own, 'closed-loop', { beside: ['paste', 'plugs'] });
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const { run } = (
      await desk.post<{ run: { id: string; procedure: Procedure } }>(`/jobs/${job.id}/start`, { benchId: null, schools: DEFAULT_SCHOOLS })
    ).body;
    const closed = run.procedure.steps.find(({ id }) => id === 'closed');
    expect(closed?.checks.find(({ id }) => id === 'paste')?.mayNotApply).toBeUndefined();
    expect(closed?.checks.some(({ id }) => id.startsWith('looked:'))).toBe(true);
    const signed = await writtenRun(bench, desk, run, lot, {
      instead: (body) =>
        body.type === 'step-done' && body.step === 'closed'
          ? [{ type: 'pasted', step: 'closed', items: ['processor'], medium: 'paste', product: 'Grey 4' }, body]
          : [body],
    });
    expect(signed.status).toBe(201);
    const [due] = await pasteOf();
    expect(due?.reason).toMatchObject({ why: 'paste', first: { item: 'processor', product: 'Grey 4' } });
    // three years on somebody renews it without a job
    bench.wait(1000 * 86_400);
    const done = { outcome: 'done', levelChangeMm: null, note: 'done at the owner’s', version: due?.version };
    expect((await desk.put(`/due-items/${due?.id}/close`, done)).status).toBe(200);
    const [next] = await pasteOf();
    expect(next?.dueOn.localeCompare(due?.dueOn ?? '')).toBe(1);
    expect(next?.reason).toMatchObject({ layers: [{ item: 'processor' }] });
  });
});

describe('loads on the supply', () => {
  it('may stay in the kinds that the lead allows, where air goes first, and in no others', async () => {
    const shop = (await desk.get<{ workshop: { schools: object } & Record<string, unknown> }>('/workshop')).body.workshop;
    const { name, timeZone, policy, schools, version } = shop;
    const asked = { name, timeZone, policy, version, schools: { ...schools, loadsMayStay: ['part-replacement'] } };
    expect((await desk.put('/workshop', asked)).status).toBe(200);
    const own = await commissioned(bench, desk, 'Glued in', await lotOf(desk, 'B2'));
    const planned = async (leak: string): Promise<Procedure> => {
      const job = await booked(desk, own, 'part-replacement', { partId: 'graphics' });
      await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
      const begun = await desk.post<{ run: { id: string; procedure: Procedure } }>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak } }); // prettier-ignore
      const { id, procedure } = begun.body.run;
      expect((await desk.entry(id, { type: 'loads-stay', stay: true, reason: 'glued in' })).status).toBe(
        procedure.loadsMayStay ? 201 : 409,
      );
      await desk.post(`/runs/${id}/abandon`, { reason: 'only looked at' });
      return procedure;
    };
    expect((await planned('dry-then-wet')).loadsMayStay).toBe(true);
    expect((await planned('wet-only')).loadsMayStay).toBeUndefined();
  });
});

describe('what will be poured', () => {
  it('is told against what is inside, booked with its price, planned at the bench, and what its loop is filled with afterwards', async () => {
    const clear = await lotOf(desk, 'P1', { inhibitor: 'K2' });
    const pearl = await lotOf(desk, 'P2', { coolantClass: 'show' });
    const own = await commissioned(bench, desk, 'Other colour', clear);
    const { options, leftMl } = (await desk.get<PourChoice>(`/loops/${own.loopId}/pours`)).body;
    const of = ({ productId }: { productId: string }) => options.find((each) => each.productId === productId);
    expect(of(clear)).toMatchObject({ verdict: 'fine', rinses: 0 });
    expect(of(pearl)?.verdict).toBe('never');
    expect(of(pearl)?.rinses).toBeGreaterThan(1);
    expect(leftMl).toBeGreaterThan(0);
    // show coolant comes out first
    expect(of(pearl)?.firstDueOn.localeCompare(of(clear)?.firstDueOn ?? '')).toBe(-1);
    // what its sheet says of metals counts against the parts of this loop
    const shelf = (await desk.get<{ products: { id: string; version: number }[] }>('/coolants')).body.products;
    const version = shelf.find(({ id }) => id === pearl.productId)?.version;
    expect((await desk.put(`/coolants/${pearl.productId}/metals`, { metals: ['silver'], version })).status).toBe(200);
    expect(errorOf(await desk.put(`/coolants/${pearl.productId}/metals`, { metals: null, version })).code).toBe('stale');
    const suited = (await desk.get<PourChoice>(`/loops/${own.loopId}/pours`)).body.options;
    expect(suited.find(({ productId }) => productId === pearl.productId)?.unsuited.map(({ metal }) => metal)).toContain('copper');
    expect(suited.find(({ productId }) => productId === clear.productId)?.unsuited).toEqual([]);
    const job = await booked(desk, own, 'flush-refill', { productId: pearl.productId });
    expect((await desk.get<{ productId: string }>(`/jobs/${job.id}`)).body.productId).toBe(pearl.productId);
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const begun = await desk.post<{ run: { id: string; procedure: Procedure }; coolantProductId: string }>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } }); // prettier-ignore
    expect(begun.body.coolantProductId).toBe(pearl.productId);
    expect(begun.body.run.procedure.steps[0]?.checks.find(({ id }) => id === 'coolant')?.text).toContain(pearl.productName);
    expect(begun.body.run.procedure.service?.old?.productId).toBe(clear.productId);
    // the bench counts as many rinses as the desk told
    expect(rinsesAhead(begun.body.run.procedure.service as never, 0.005)).toBe(of(pearl)?.rinses);
    const odd = await desk.post(`/systems/${own.systemId}/jobs`, { loopId: own.loopId, kind: 'flush-refill', partId: null, productId: own.loopId, intake: { symptom: '', condition: '', signs: [], dataSafe: 'yes', signsIn: '', flowLph: null }, estimate: { hours: 1, partsText: '', coolantMl: 0, priceText: '', parts: [] }, neededBy: null, note: '' }); // prettier-ignore
    expect(errorOf(odd).fields?.map(({ path }) => path)).toEqual(['productId']);
  });
});
