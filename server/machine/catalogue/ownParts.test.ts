import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OwnPart, OwnPartInput } from '../../../core/machine/catalogue/ownParts.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Parts');
});
afterAll(() => bench.close());

const deep: OwnPartInput = {
  label: 'Deep roof radiator',
  like: 'radiator-360-45',
  volumeMl: 330,
  volumeSdMl: 12,
  facts: { pressure_rating_kpa: 120, materials: ['copper', 'brass'], resistance: { linear_kpa_per_lpm: 0, quadratic_kpa_per_lpm2: 0.3 } },
  geometry: null,
};
const list = async (as: Visitor): Promise<OwnPart[]> => (await as.get<{ parts: OwnPart[] }>('/own-parts')).body.parts;

describe('parts that a workshop keeps', () => {
  it('come back as they were kept, and are seen by nobody else', async () => {
    const { status, body } = await tech.post<OwnPart>('/own-parts', deep);
    expect(status).toBe(201);
    expect(await list(tech)).toEqual([{ ...deep, id: body.id, version: 1 }]);
    const other = await bench.workshop('Elsewhere');
    expect(await list(other)).toEqual([]);
    expect((await other.delete(`/own-parts/${body.id}`)).status).toBe(404);
    expect((await other.put(`/own-parts/${body.id}`, { ...deep, version: 1 })).status).toBe(404);
  });

  it('are held to what a loop file may carry, and refused whole with the field named', async () => {
    const wrong: [object, string][] = [
      [{ like: 'flywheel' }, 'like'],
      [{ volumeMl: -1 }, 'volumeMl'],
      [{ facts: { pressure_rating_kpa: 0 } }, 'part.components[0].pressure_rating_kpa'],
      [{ facts: { colour: 'red' } }, 'facts.colour'],
      [{ like: 'pump-large', facts: { curve: [[0, 30], [500, 40]] } }, 'part.components[0].curve'], // prettier-ignore
      [{ like: 'reservoir-200', volumeMl: 100, facts: { max_fill_ml: 150 } }, 'facts.max_fill_ml'],
      [{ geometry: { place: 'roof', ports: { a: [0, 0] } } }, 'part.components[0].ports.a'],
    ];
    for (const [change, path] of wrong) {
      const answer = await tech.post('/own-parts', { ...deep, label: 'Wrong', ...change });
      expect(answer.status, path).toBe(422);
      expect(JSON.stringify(answer.body), path).toContain(path);
    }
    expect(await list(tech)).toHaveLength(1);
  });

  it('have one name each, and are changed from their newest version only', async () => {
    expect(errorOf(await tech.post('/own-parts', deep)).message).toContain('already a part');
    const [now] = await list(tech);
    const edit = (version: number, volumeMl: number) => tech.put<OwnPart>(`/own-parts/${now?.id}`, { ...deep, volumeMl, version });
    expect((await edit(1, 340)).body).toMatchObject({ version: 2, volumeMl: 340 });
    expect((await edit(1, 350)).status).toBe(409);
    expect((await tech.delete(`/own-parts/${now?.id}`)).status).toBe(200);
    expect(await list(tech)).toEqual([]);
  });
});
