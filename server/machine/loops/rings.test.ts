import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RingAge } from '../../../core/machine/seals/rings.js';
import { sealPlaces } from '../../../core/machine/seals/places.js';
import { usualLoop } from '../../../core/machine/catalogue/testLoops.js';
import { commissioned, lotOf, writtenRun } from '../../../tests/integration/led.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Rings');
});
afterAll(() => bench.close());

const ringIds = sealPlaces(usualLoop())
  .filter(({ hasRing }) => hasRing)
  .map(({ id }) => id);
const agesOf = async (loopId: string): Promise<RingAge[]> => (await tech.get<{ rings: RingAge[] }>(`/loops/${loopId}/rings`)).body.rings;

describe('the rings of a loop', () => {
  it('are as old as its first fill, and those that a later run renewed are younger', async () => {
    const lot = await lotOf(tech, 'R1');
    const { loopId } = await commissioned(bench, tech, 'Ringed', lot);
    expect((await agesOf(loopId)).map(({ place }) => place.id)).toEqual(ringIds);
    // two years on
    await bench.pool.query(
      `update fill set filled_on = filled_on - 730 where revision_id in (select id from loop_revision where loop_id = $1)`,
      [loopId],
    );
    const again = await tech.run(loopId, { leak: 'wet-only' });
    const [one] = ringIds as [string];
    const signed = await writtenRun(bench, tech, again.body.run, lot, {
      instead: (body) =>
        body.type === 'step-done' && body.step === 'close' ? [{ type: 'ring-renewed', step: 'close', places: [one] }, body] : [body],
    });
    expect(signed.status).toBe(201);
    const ages = await agesOf(loopId);
    expect(ages.at(-1)).toMatchObject({ place: { id: one }, days: 0 });
    expect(ages[0]?.days).toBeGreaterThanOrEqual(729);
  });

  it('are nobody else’s, and none of a loop that was never filled', async () => {
    const loop = await tech.loop(await tech.system('Dry'));
    expect(await agesOf(loop.id)).toEqual([]);
    expect((await (await bench.workshop('Elsewhere')).get(`/loops/${loop.id}/rings`)).status).toBe(404);
  });
});
