import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Cases');
});
afterAll(() => bench.close());

interface Template {
  id: string;
  label: string;
  heightMm: number;
  mounts: object;
  version: number;
}
const oak = { label: 'Tall oak', depthMm: 500, heightMm: 700, widthMm: 230, mounts: { roof: [30, 690, 15] } };
const list = async (as: Visitor): Promise<Template[]> => (await as.get<{ templates: Template[] }>('/case-templates')).body.templates;

describe('the workshop’s own cases', () => {
  it('are kept with their sizes and mounts, and seen by nobody else', async () => {
    const { status, body } = await tech.post<Template>('/case-templates', oak);
    expect(status).toBe(201);
    expect(await list(tech)).toEqual([expect.objectContaining({ ...oak, id: body.id, version: 1 })]);
    const other = await bench.workshop('Elsewhere');
    expect(await list(other)).toEqual([]);
    expect((await other.delete(`/case-templates/${body.id}`)).status).toBe(404);
    expect(await list(tech)).toHaveLength(1);
  });

  it('keep what was measured in them, and lose nothing of it by an edit that says nothing of it', async () => {
    const room = {
      radiators: { roof: { length_mm: 400, width_mm: 140, depth_mm: 60 } },
      card: { slots: 3, length_mm: 320, height_mm: 145 },
    };
    const { body } = await tech.post<Template & { room: object }>('/case-templates', { ...oak, label: 'Measured', room });
    expect(body.room).toEqual(room);
    const edited = await tech.put<Template & { room: object }>(`/case-templates/${body.id}`, { ...oak, label: 'Measured', version: 1 });
    expect(edited.body.room).toEqual(room);
    const wrong = { radiators: { roof: { length_mm: 400, width_mm: 140 } } };
    expect((await tech.post('/case-templates', { ...oak, label: 'Half', room: wrong })).status).toBe(422);
    await tech.delete(`/case-templates/${body.id}`);
  });

  it('are refused whole when a size cannot be or a place is unknown', async () => {
    for (const wrong of [
      { ...oak, heightMm: 5 },
      { ...oak, mounts: { attic: [0, 0, 0] } },
      { ...oak, mounts: { roof: [0, 0] } },
    ])
      expect((await tech.post('/case-templates', { ...wrong, label: 'Wrong' })).status).toBe(422);
    expect(await list(tech)).toHaveLength(1);
  });

  it('have one name each', async () => {
    const again = await tech.post('/case-templates', oak);
    expect(again.status).toBe(409);
    expect(errorOf(again).message).toContain('already a case');
  });

  it('are changed from their newest version only', async () => {
    const [now] = await list(tech);
    const edit = (version: number, heightMm: number) => tech.put<Template>(`/case-templates/${now?.id}`, { ...oak, heightMm, version });
    expect((await edit(1, 710)).body.version).toBe(2);
    expect((await edit(1, 650)).status).toBe(409);
    expect((await list(tech))[0]?.heightMm).toBe(710);
  });

  it('go and can come back', async () => {
    const [now] = await list(tech);
    expect((await tech.delete(`/case-templates/${now?.id}`)).status).toBe(200);
    expect(await list(tech)).toEqual([]);
    expect((await tech.post('/case-templates', oak)).status).toBe(201);
  });
});
