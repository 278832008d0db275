import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ConfirmedByPlace } from '../../../core/bench/leak-finding/causes.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Finders');
});
afterAll(() => bench.close());

const confirmed = async (who: Visitor = tech): Promise<ConfirmedByPlace> =>
  (await who.get<{ confirmed: ConfirmedByPlace }>('/leak-causes')).body.confirmed;

describe('causes that were found behind leaks', () => {
  it('are kept by the kind of place, without those that were taken back, and for this workshop alone', async () => {
    const loop = await tech.loop(await tech.system('Leaky'), null);
    const { run } = (await tech.run(loop.id, { leak: 'dry-then-wet' })).body;
    const found = async (at: string, cause: string): Promise<string> => {
      const leak = randomUUID();
      const mended = randomUUID();
      await tech.entry(run.id, { type: 'leak', at, when: 'under-pressure', amount: 'drip', text: '' }, leak);
      await tech.entry(run.id, { type: 'leak-mended', leak, cause, fix: 'seated' }, mended);
      return mended;
    };
    const tube = (run.procedure as Procedure).facts?.joints[0]?.id as string;
    await found(tube, 'fitting-ring');
    await found(tube, 'fitting-ring');
    await found('graphics', 'fitting-ring');
    const taken = await found('roof', 'screw-through-tube');
    await tech.entry(run.id, { type: 'withdrawn', event: taken });
    expect(await confirmed()).toEqual({ joint: { 'fitting-ring': 2 }, block: { 'fitting-ring': 1 } });
    expect(await confirmed(await bench.workshop('Elsewhere'))).toEqual({});
  });
});
