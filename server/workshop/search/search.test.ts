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
    expect((await find('zq77')).find(({ kind }) => kind === 'lot')).toMatchObject({ title: 'Heron' });
  });

  it('finds what holds every word, capitals and accents aside, and a machine by what its owner is called', async () => {
    const id = await desk.system('Éclair', await desk.owner('Björk Åström'));
    expect(await find('astrom ECLAIR bjork')).toMatchObject([{ kind: 'system', title: 'Éclair', to: `/systems/${id}` }]);
    expect(await find('astrom heron')).toEqual([]);
  });

  it('knows of a change at once', async () => {
    const id = await desk.owner('Quill');
    await desk.system('Ferry', id);
    const edit = { email: null, phone: '+351 555 987', channel: 'phone', note: '', policy: null, version: 1 };
    expect((await desk.put(`/owners/${id}`, { ...edit, name: 'Quince' })).status).toBe(200);
    expect(await find('quill')).toEqual([]);
    expect((await find('quince')).map(({ title }) => title)).toEqual(['Ferry']);
    // a number as it is typed, without its spaces
    expect((await find('555987')).map(({ title }) => title)).toEqual(['Ferry']);
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
