import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Search');
  const lot = await lotOf(desk, 'ZQ77');
  const { systemId } = await commissioned(bench, desk, 'Heron', lot);
  await desk.post('/store/items', { name: 'Heron gasket', kind: 'seal', unit: 'pcs', lot: '', count: 1, reorderAt: 0 });
  await desk.put(`/systems/${systemId}`, {});
});
afterAll(() => bench.close());
const find = async (q: string, who = desk) =>
  (await who.get<{ hits: { kind: string; title: string; text: string; to: string }[] }>(`/search?q=${encodeURIComponent(q)}`)).body.hits;

describe('search across everything', () => {
  it('finds a machine by its name and its owner, a lot where it is inside, and things on the shelf', async () => {
    expect((await find('heron')).map(({ kind }) => kind).sort()).toEqual(['shelf', 'system']);
    expect((await find('fernwick'))[0]).toMatchObject({ kind: 'system', title: 'Heron' });
    expect((await find('zq77'))[0]).toMatchObject({ kind: 'lot', title: 'Heron' });
  });

  it('takes the signs of patterns literally', async () => {
    expect(await find('%%')).toEqual([]);
    expect(await find('__')).toEqual([]);
  });

  it('asks for at least two letters, and shows nothing of another workshop', async () => {
    expect(errorOf(await desk.get('/search?q=h')).path).toBe('q');
    expect(await find('heron', await bench.workshop('Elsewhere'))).toEqual([]);
  });
});
