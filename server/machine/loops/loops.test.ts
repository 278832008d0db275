import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { USUAL_STACK } from '../../../core/machine/shop-sums/fanScrews.js';
import { setupOf, type HeatSetup } from '../../../core/physics/heat/setup.js';
import { loopVolume } from '../../../core/machine/loop-file/volume.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
let systemId: string;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Loops');
  systemId = await tech.system();
});
afterAll(() => bench.close());

const example = (): LoopFile => JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')) as LoopFile;
const create = (file: unknown) =>
  tech.post<{ id: string; version: number; file: LoopFile; revisions: { number: number; volumeMl: number }[] }>('/loops', {
    systemId,
    name: 'Main',
    coolantProductId: null,
    file,
  });

describe('a loop file through the server', () => {
  it('comes back as it went in, unknown fields included', async () => {
    const file = { ...example(), author: 'somebody', nested: { deep: [1, { two: null }] } };
    const { body } = await create(file);
    expect(body.file).toEqual(file);
    expect((await tech.get(`/loops/${body.id}/revisions/1/file`)).body).toEqual(file);
    expect(body.revisions[0]?.volumeMl).toBeCloseTo(loopVolume(example()).volumeMl, 9);
  });

  it('stands as rows too, one for each part and tube', async () => {
    const { body } = await create(example());
    const { rows } = await bench.pool.query<{ ref: string; volume_ml: number }>(
      'select c.ref, c.volume_ml from component c join loop_revision r on r.id = c.revision_id where r.loop_id = $1 order by c.position',
      [body.id],
    );
    expect(rows.map(({ ref }) => ref)).toEqual(['res', 'pump', 'front', 'top', 'cpu', 'gpu']);
    const tubes = await bench.pool.query('select 1 from tube t join loop_revision r on r.id = t.revision_id where r.loop_id = $1', [
      body.id,
    ]);
    expect(tubes.rowCount).toBe(6);
  });

  it.each<[string, (file: LoopFile) => unknown, string]>([
    ['a negative volume', (file) => Object.assign(file.components[0] as object, { volume_ml: -1 }), 'file.components[0].volume_ml'],
    ['a tube to nowhere', (file) => Object.assign(file.tubes[2] as object, { to: ['moon', 'in'] }), 'file.tubes[2].to'],
    ['no parts', (file) => Object.assign(file, { components: [], tubes: [] }), 'file.components'],
    ['another format', (file) => Object.assign(file, { format: 'x' }), 'file.format'],
  ])('is refused whole with %s', async (_name, spoil, path) => {
    const file = example();
    spoil(file);
    const before = [await bench.count('loop'), await bench.count('component')];
    const answer = await create(file);
    expect(answer.status).toBe(422);
    expect(errorOf(answer).path).toBe(path);
    expect([await bench.count('loop'), await bench.count('component')]).toEqual(before);
  });
});

describe('revisions', () => {
  const revise = (id: string, version: number, file: LoopFile, reason = '') =>
    tech.post(`/loops/${id}/revisions`, { kind: 'change', reason, name: 'Main', coolantProductId: null, version, file });

  it('are numbered and kept, each with its file', async () => {
    const { body } = await create(example());
    const changed = example();
    (changed.components[3] as { volume_ml: number }).volume_ml = 290;
    expect((await revise(body.id, 1, changed, 'thicker radiator')).status).toBe(201);
    const loop = (await tech.get<{ version: number; revisions: { number: number; kind: string; reason: string }[] }>(`/loops/${body.id}`))
      .body;
    expect(loop).toMatchObject({
      version: 2,
      revisions: [
        { number: 2, kind: 'change', reason: 'thicker radiator' },
        { number: 1, kind: 'planned' },
      ],
    });
    expect((await tech.get(`/loops/${body.id}/revisions/1/file`)).body).toEqual(example());
    expect((await tech.get(`/loops/${body.id}/revisions/9/file`)).status).toBe(404);
    expect((await tech.get(`/loops/${body.id}/revisions/x/file`)).status).toBe(404);
  });

  it('made from an older version are refused with both loops', async () => {
    const { body } = await create(example());
    await revise(body.id, 1, example());
    const late = await revise(body.id, 1, { ...example(), name: 'late' });
    expect(late.status).toBe(409);
    expect(errorOf(late)).toMatchObject({ code: 'stale', yours: { file: { name: 'late' } }, theirs: { version: 2 } });
  });

  it('saved at the same moment do not both win', async () => {
    const { body } = await create(example());
    const statuses = (await Promise.all([1, 2, 3, 4].map(() => revise(body.id, 1, example())))).map(({ status }) => status).sort();
    expect(statuses).toEqual([201, 409, 409, 409]);
  });
});

describe('what is said of a loop beside its drawing', () => {
  it('names the measured screws in the kit of its build', async () => {
    const { body } = await create(example());
    expect((await tech.put(`/loops/${body.id}/fan-stacks`, { stacks: { front: { ...USUAL_STACK, fanMm: -1 } } })).status).toBe(422);
    expect((await tech.put(`/loops/${body.id}/fan-stacks`, { stacks: { front: USUAL_STACK } })).status).toBe(200);
    const { run } = (await tech.run(body.id)).body as unknown as { run: { procedure: Procedure } };
    const kit = run.procedure.steps.find(({ id }) => id === 'kit')?.checks.map(({ text }) => text) ?? [];
    expect(kit.find((text) => text.startsWith('Fan and radiator screws'))).toMatch(/30 mm.*not measured yet/);
  });

  it('stays with it, unseen by others, and a new drawing does not lose it', async () => {
    const { body } = await create(example());
    const setup = setupOf(example(), null);
    const said = { ...setup, fanSpeed: 0.35, air: { front: { from: 'case', to: 'out', blockage: 0.2 } } };
    expect((await tech.put(`/loops/${body.id}/heat-setup`, { ...said, fanSpeed: 2 })).status).toBe(422);
    expect((await tech.put(`/loops/${body.id}/heat-setup`, said)).status).toBe(200);
    const other = await bench.workshop('Others');
    expect((await other.put(`/loops/${body.id}/heat-setup`, said)).status).toBe(404);
    await tech.post(`/loops/${body.id}/revisions`, { name: 'Main', coolantProductId: null, file: example(), kind: 'change', reason: 'redrawn', version: 1 }); // prettier-ignore
    expect((await tech.get<{ heatSetup: HeatSetup }>(`/loops/${body.id}`)).body.heatSetup).toEqual(said);
  });
});
