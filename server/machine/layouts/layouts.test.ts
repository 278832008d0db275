import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { usualLoop } from '../../../core/machine/catalogue/testLoops.js';
import type { Layout } from '../../../core/machine/layouts/schema.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Layouts');
});
afterAll(() => bench.close());
const names = async (of: Visitor): Promise<string[]> =>
  (await of.get<{ layouts: Layout[] }>('/layouts')).body.layouts.map(({ name }) => name);

describe('layouts of a workshop', () => {
  it('are kept without what belongs to one machine alone, and seen by nobody else', async () => {
    const file = usualLoop();
    const [first, ...rest] = file.components;
    const taught = { ...first, volume_ml: 300, learned: { prior_ml: 260, prior_sd_ml: 12, fills: 3 }, out_of_reach: ['fill'] };
    const { body } = await tech.post<Layout>('/layouts', {
      name: 'Show tower',
      note: 'glass side',
      file: { ...file, components: [taught, ...rest] },
    });
    expect(body.file.components[0]).toMatchObject({ volume_ml: 260, volume_sd_ml: 12 });
    expect(body.file.components[0]).not.toHaveProperty('out_of_reach');
    expect(await names(tech)).toEqual(['Show tower']);
    expect(await names(await bench.workshop('Elsewhere'))).toEqual([]);
  });

  it('have names of their own, and come back once they were dropped', async () => {
    const twice = await tech.post('/layouts', { name: 'Show tower', note: '', file: usualLoop() });
    expect(errorOf(twice).message).toBe('There is already a layout of that name.');
    const { body } = await tech.post<Layout>('/layouts', { name: 'Quiet cube', note: '', file: usualLoop() });
    await tech.delete(`/layouts/${body.id}`);
    expect(await names(tech)).toEqual(['Show tower']);
    await tech.post(`/layouts/${body.id}/back`, {});
    expect(await names(tech)).toEqual(['Quiet cube', 'Show tower']);
  });

  it('are refused whole where the file is none', async () => {
    const answer = await tech.post('/layouts', { name: 'Broken', note: '', file: { ...usualLoop(), format: 'x' } });
    expect([answer.status, errorOf(answer).path]).toEqual([422, 'file.format']);
  });
});
