import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import type { Shop } from '../../../core/workshop/people/answers.js';
import type { BillsAnswer } from '../../../core/workshop/prices/answers.js';
import type { PriceList } from '../../../core/workshop/prices/rates.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { DEFAULT_RATES } from '../../../core/workshop/prices/rates.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, leadRun, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let lead: Visitor;
let tower: { systemId: string; loopId: string };
let ring: { id: string; version: number };
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Prices');
  tower = await commissioned(bench, lead, 'Tower', await lotOf(lead, 'C1'));
  ring = (
    await lead.post<typeof ring>('/store/items', { name: 'O-ring 11 × 2', kind: 'seal', unit: 'pcs', lot: '', count: 30, reorderAt: 2 })
  ).body;
});
afterAll(() => bench.close());

const shop = async (): Promise<Shop['workshop']> => (await lead.get<Shop>('/workshop')).body.workshop;
const setRates = async (more: object) => lead.put('/workshop/rates', { ...DEFAULT_RATES, hourMinor: 6000, taxPercent: 20, ...more, version: (await shop()).version }); // prettier-ignore
const input = (parts: object[] = []) => ({
  loopId: tower.loopId,
  kind: 'drain-refill',
  partId: null,
  intake: { symptom: '', condition: '', signs: [], dataSafe: 'unknown', signsIn: '', flowLph: null },
  estimate: { hours: 2, partsText: '', coolantMl: 0, priceText: '', parts },
  neededBy: null,
  note: '',
});
const rings = { itemId: '', what: 'anything', amount: 4, unit: 'm', eachMinor: 99_999 };

describe('an estimate', () => {
  it('has no price before the workshop says what an hour costs', async () => {
    const { body } = await lead.post<JobPage>(`/systems/${tower.systemId}/jobs`, input());
    expect(body.estimate.priced).toBeNull();
    await lead.post(`/jobs/${body.id}/cancel`, { reason: 'only asked' });
  });

  it('is priced by the store’s own name and price, whatever a browser sends', async () => {
    expect((await setRates({})).status).toBe(200);
    await lead.put(`/store/items/${ring.id}/price`, { priceMinor: 50, version: ring.version });
    const { body } = await lead.post<JobPage>(`/systems/${tower.systemId}/jobs`, input([{ ...rings, itemId: ring.id }]));
    expect(body.estimate.priced?.lines.map(({ what, sumMinor }) => [what, sumMinor])).toEqual([
      ['drain-refill', 12_000],
      ['O-ring 11 × 2', 200],
    ]);
    expect(body.estimate.parts[0]).toMatchObject({ unit: 'pcs', eachMinor: 50 });

    // what was told stands, and what was agreed is agreed, although an hour costs more by now
    await lead.post(`/jobs/${body.id}/consent`, { how: 'phone', words: '', version: body.version });
    await setRates({ hourMinor: 9000 });
    const { loopId: _, ...edit } = input([{ ...rings, itemId: ring.id }]);
    const later = await lead.put<JobPage>(`/jobs/${body.id}`, { ...edit, note: 'by the window', version: body.version });
    expect(later.body.estimate.priced?.totalMinor).toBe(12_200);
    expect(later.body.consented).toBe(true);
    const longer = { ...edit, estimate: { ...edit.estimate, hours: 3 }, version: later.body.version };
    const anew = await lead.put<JobPage>(`/jobs/${body.id}`, longer);
    expect(anew.body.estimate.priced?.totalMinor).toBe(27_200);
    expect(anew.body.consented).toBe(false);
    expect(anew.body.bill.agreed?.totalMinor).toBe(12_200);
    await lead.post(`/jobs/${body.id}/cancel`, { reason: 'only asked' });
  });

  it('refuses a part without a name, and a price that is none', async () => {
    expect(errorOf(await lead.post(`/systems/${tower.systemId}/jobs`, input([{ ...rings, itemId: null, what: '' }]))).path).toBe('estimate.parts[0].what'); // prettier-ignore
    expect(errorOf(await setRates({ currency: 'ZZZ' })).path).toBe('currency');
    expect((await (await lead.colleague('technician')).put('/workshop/rates', {})).status).toBe(403);
  });
});

describe('prices', () => {
  it('are each workshop’s own', async () => {
    const other = await bench.workshop('Elsewhere');
    expect((await other.get<PriceList>('/price-list')).body).toMatchObject({ rates: DEFAULT_RATES, items: [] });
    expect((await other.put(`/store/items/${ring.id}/price`, { priceMinor: 1, version: 1 })).status).toBe(404);
  });

  it('are not overwritten by somebody who saw an older one', async () => {
    expect((await lead.put(`/store/items/${ring.id}/price`, { priceMinor: 1, version: ring.version })).status).toBe(409);
  });

  it('go out as a table of finished jobs, within a year', async () => {
    expect((await lead.get<BillsAnswer>('/bills?from=2026-01-01&to=2026-12-31')).body.rows).toEqual([]);
    expect(errorOf(await lead.get('/bills?from=2026-02-01&to=2026-01-01')).path).toBe('to');
    expect(errorOf(await lead.get('/bills?from=2020-02-01&to=2026-01-01')).path).toBe('to');
  });
});

describe('the hours of a job', () => {
  it('are those of hands: a night between two entries is nobody’s', async () => {
    await setRates({});
    const lot = await lotOf(lead, 'C2');
    const own = await commissioned(bench, lead, 'Overnight', lot);
    const job = await booked(lead, own, 'top-up');
    await lead.post(`/jobs/${job.id}/consent`, { how: 'phone', words: '', version: job.version });
    const schools = { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' };
    const { run } = (await lead.post<{ run: { id: string; procedure: Procedure } }>(`/jobs/${job.id}/start`, { benchId: null, schools }))
      .body;
    const night = (body: { type: string }): void => void (body.type === 'step-done' && bench.wait(15 * 3600));
    const done = await leadRun(bench, lead, run, lot, undefined, undefined, async (body) => night(body));
    expect(done.status, JSON.stringify(done.body)).toBe(201);
    const { bill } = (await lead.get<JobPage>(`/jobs/${job.id}`)).body;
    const hours = bill.used?.lines.find(({ unit }) => unit === 'h')?.amount ?? 99;
    expect(hours).toBeGreaterThan(0);
    expect(hours).toBeLessThan(3);
  });
});
