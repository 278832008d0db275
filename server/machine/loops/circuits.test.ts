import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { circuitFiles } from '../../../core/machine/loop-file/circuits.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { fillVolume } from '../../../core/physics/filling/fillPlan.js';
import type { LoopAnswer, SystemPage } from '../../../core/workshop/machines/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Circuits');
});
afterAll(() => bench.close());

const two = (): LoopFile => JSON.parse(readFileSync('examples/two-loops-one-case.json', 'utf8')) as LoopFile;
const part = (id: string, version: number) => tech.post<LoopAnswer>(`/loops/${id}/part`, { version });
const loopsOf = async (systemId: string) => (await tech.get<SystemPage>(`/systems/${systemId}`)).body.loops;

async function drawn(name: string) {
  const systemId = await tech.system(name);
  const { body } = await tech.post<LoopAnswer>('/loops', { systemId, name: 'Both', coolantProductId: null, file: two() });
  return { systemId, loop: body };
}

const checks = (procedure: Procedure, step: string): string[] =>
  procedure.steps.find(({ id }) => id === step)?.checks.map(({ text }) => text) ?? [];

describe('a drawing of two circuits', () => {
  it('goes on no bench as one: neither predicted nor poured together', async () => {
    const { loop } = await drawn('Kept whole');
    const answer = await tech.run(loop.id, { leak: 'wet-only' });
    expect(answer.status).toBe(409);
    expect(errorOf(answer).message).toMatch(/holds 2 circuits.*make 2 loops of it/);
  });

  it('becomes two loops, each led for itself with the other’s pump pulled', async () => {
    const { systemId, loop } = await drawn('Parted');
    const first = await part(loop.id, loop.version);
    expect(first.body).toMatchObject({ id: loop.id, name: 'Processor block', file: circuitFiles(two())[0]?.file });
    const loops = await loopsOf(systemId);
    expect(loops.map(({ name }) => name).sort()).toEqual(['Graphics block', 'Processor block']);
    for (const each of loops) {
      const { body } = await tech.run(each.id, { leak: 'wet-only' });
      const other = loops.find(({ id }) => id !== each.id);
      expect((body.run.procedure as Procedure).facts?.fill?.primes).toBe(true);
      expect(checks(body.run.procedure as Procedure, 'isolate').filter((text) => text.startsWith('Pump connector'))).toEqual([
        expect.stringMatching(new RegExp(`pulled until ${other?.name} is filled$`)),
      ]);
    }
  });

  it('is parted once, from the version that was looked at, and never under a run', async () => {
    const { loop } = await drawn('Once');
    expect((await part(loop.id, loop.version + 1)).status).toBe(409);
    const { body } = await part(loop.id, loop.version);
    expect(errorOf(await part(loop.id, body.version)).message).toMatch(/one circuit; there is nothing to part/);
    expect(await bench.count('loop')).toBeGreaterThan(1);
  });
});

describe('a machine that was filled while its two circuits were one loop', () => {
  it('has coolant and dates in both, and what each holds where the book was full', async () => {
    const { systemId, loopId } = await commissioned(bench, tech, 'Filled', await lotOf(tech, 'C1'));
    const { body: now } = await tech.get<LoopAnswer>(`/loops/${loopId}`);
    const revised = await tech.post<LoopAnswer>(`/loops/${loopId}/revisions`, {
      ...{ kind: 'change', reason: '', name: 'Both', coolantProductId: now.coolantProductId, version: now.version, file: two() },
    });
    const files = circuitFiles(two()).map(({ file }) => file);
    const bothMl = files.reduce((sum, file) => sum + fillVolume(file).volumeMl, 0);
    await bench.pool.query(
      `update loop_contents set contents = jsonb_set(contents, '{insideMl}', to_jsonb($2::float8)) where loop_id = $1`,
      [loopId, bothMl],
    );
    const answer = await part(loopId, revised.body.version);
    expect(answer.status).toBe(201);
    expect(answer.body.inside.volume?.volumeMl).toBeCloseTo(fillVolume(files[0] as LoopFile).volumeMl, 6);
    const loops = await loopsOf(systemId);
    expect(loops).toHaveLength(2);
    const other = loops.find(({ id }) => id !== loopId);
    const { body: second } = await tech.get<LoopAnswer>(`/loops/${other?.id}`);
    expect(second.inside.volume?.volumeMl).toBeCloseTo(fillVolume(files[1] as LoopFile).volumeMl, 6);
    expect(second.coolantProductId).toBe(now.coolantProductId);
    const { rows } = await bench.pool.query(
      `select loop_id, due_on::text from due_item where system_id = $1 and kind = 'coolant-service' and state = 'open'`,
      [systemId],
    );
    expect(new Set(rows.map(({ loop_id }: { loop_id: string }) => loop_id)).size).toBe(2);
    expect(new Set(rows.map(({ due_on }: { due_on: string }) => due_on)).size).toBe(1);
  });
});
