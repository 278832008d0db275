import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let desk: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Shelf');
});
afterAll(() => bench.close());

const ring = { name: 'O-ring 11 × 2', kind: 'seal', unit: 'pcs', lot: '', count: 30, reorderAt: 20 };

describe('the store', () => {
  it('counts what comes and goes, and puts what runs low on the purchase list', async () => {
    const item = await desk.post<{ id: string }>('/store/items', ring);
    await desk.post(`/store/items/${item.body.id}/moves`, { change: -14, reason: 'counted anew' });
    const store = await desk.get<{ items: { count: number }[]; purchase: { what: string; order: string }[] }>('/store');
    expect(store.body.items[0]?.count).toBe(16);
    expect(store.body.purchase).toEqual([expect.objectContaining({ what: ring.name, order: '24 pcs' })]);
    expect(await bench.count('store_move')).toBe(2);
  });

  it('lets nothing leave that is not there: the shelf is counted again, and the difference stands among its moves', async () => {
    const { body: item } = await desk.post<{ id: string; version: number }>('/store/items', { ...ring, lot: 'N', count: 3 });
    const refused = errorOf(await desk.post(`/store/items/${item.id}/moves`, { change: -4, reason: 'taken out' }));
    expect(refused).toMatchObject({ path: 'change' });
    expect(refused.message).toContain('count the shelf again');
    const counted = await desk.put<{ count: number; version: number }>(`/store/items/${item.id}/count`, {
      count: 7,
      version: item.version,
    });
    expect(counted.body.count).toBe(7);
    expect((await desk.put(`/store/items/${item.id}/count`, { count: 9, version: item.version })).status).toBe(409);
    expect((await desk.post<{ count: number }>(`/store/items/${item.id}/moves`, { change: -4, reason: 'taken out' })).body.count).toBe(3);
  });

  it('refuses a second item of the same name and lot, a move of nothing, and an unknown unit', async () => {
    expect((await desk.post('/store/items', ring)).status).toBe(409);
    const item = await desk.post<{ id: string }>('/store/items', { ...ring, lot: 'B' });
    expect(errorOf(await desk.post(`/store/items/${item.body.id}/moves`, { change: 0, reason: 'none' })).path).toBe('change');
    expect(errorOf(await desk.post('/store/items', { ...ring, unit: 'barrel' })).path).toBe('unit');
  });

  it('knows where parts lie, who has them, and lets them go once', async () => {
    const part = {
      name: 'Loan tower',
      kind: 'lent',
      systemId: null,
      place: '',
      condition: 'good',
      heldMl: 0,
      lentTo: '',
      untilDay: '2026-04-01',
    };
    expect(errorOf(await desk.post('/kept-parts', part)).path).toBe('lentTo');
    const kept = await desk.post<{ id: string; version: number }>('/kept-parts', { ...part, lentTo: 'Ada Fernwick' });
    const dried = await desk.put<{ wetOn: string | null; version: number }>(`/kept-parts/${kept.body.id}/dry`, { version: 1 });
    expect(dried.body).toMatchObject({ wetOn: null, version: 2 });
    expect((await desk.put(`/kept-parts/${kept.body.id}/gone`, { where: 'back on shelf 1', version: 2 })).status).toBe(200);
    expect(errorOf(await desk.put(`/kept-parts/${kept.body.id}/gone`, { where: 'again', version: 2 })).code).toBe('stale');
    expect((await desk.get<{ kept: unknown[] }>('/store')).body.kept).toEqual([]);
  });

  it('is invisible to another workshop', async () => {
    const other = await bench.workshop('Elsewhere');
    expect((await other.get<{ items: unknown[] }>('/store')).body.items).toEqual([]);
    const item = await desk.post<{ id: string }>('/store/items', { ...ring, lot: 'C' });
    expect((await other.post(`/store/items/${item.body.id}/moves`, { change: 1, reason: 'mine' })).status).toBe(404);
  });
});

describe('waste containers', () => {
  it('fill up, do not overflow, and are handed over with the paper’s number', async () => {
    const can = await desk.post<{ id: string; version: number }>('/waste', { label: 'Can A', kind: 'used-coolant', capacityMl: 1000 });
    await desk.post(`/waste/${can.body.id}/entries`, { volumeMl: 800, note: 'bench rinse' });
    const over = errorOf(await desk.post(`/waste/${can.body.id}/entries`, { volumeMl: 300, note: '' }));
    expect(over).toMatchObject({ path: 'volumeMl' });
    expect(over.message).toContain('200 mL are free');
    const paper = { on: '2026-03-10', to: 'collection point', documentNumber: 'W-17', version: 1 };
    expect(errorOf(await desk.put(`/waste/${can.body.id}/hand-over`, { ...paper, on: '2030-01-01' })).path).toBe('on');
    expect((await desk.put<{ state: string }>(`/waste/${can.body.id}/hand-over`, paper)).body.state).toBe('handed-over');
    // once: its paper is what it is
    expect(errorOf(await desk.put(`/waste/${can.body.id}/hand-over`, { ...paper, version: 2 })).message).toContain('was handed over on');
    expect(errorOf(await desk.post(`/waste/${can.body.id}/entries`, { volumeMl: 1, note: '' })).message).toContain('was handed over');
  });

  it('keep their entries for ever', async () => {
    await expect(bench.pool.query('update waste_entry set volume_ml = 1')).rejects.toThrow('written once');
  });
});
