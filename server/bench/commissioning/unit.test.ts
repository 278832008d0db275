import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import type { RunRecord } from '../../../core/edge/records/record.js';
import type { LoopAnswer, SystemPage } from '../../../core/workshop/machines/answers.js';
import { commissioned, leadTo, lotOf, writtenRun, type Lot } from '../../../tests/integration/led.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
let lot: Lot;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Units');
  lot = await lotOf(tech, 'U1');
});
afterAll(() => bench.close());

async function planned(name: string): Promise<{ systemId: string; loopId: string }> {
  const systemId = await tech.system(name);
  return { systemId, loopId: (await tech.loop(systemId, lot.productId)).id };
}
const startUnit = (loopId: string, pump = 'pump') => tech.post<RunAnswer>(`/loops/${loopId}/unit-tests`, { pump, benchId: null });
const pageOf = async (systemId: string): Promise<SystemPage> => (await tech.get<SystemPage>(`/systems/${systemId}`)).body;

describe('a unit tested out of its case', () => {
  it('is a run of its own small loop; the machine stays where it is, and no date opens', async () => {
    const { systemId, loopId } = await planned('Plum shelf');
    const { body } = await startUnit(loopId);
    expect(body.file.components.map(({ kind }) => kind)).toEqual(['reservoir', 'pump']);
    expect(body.run.procedure.steps.map(({ kind }) => kind)).toEqual(['checks', 'checks', 'checks', 'fill', 'wet-run', 'part-test', 'sign-off']); // prettier-ignore
    expect((await pageOf(systemId)).system.state).toBe('planned');
    const signed = await writtenRun(bench, tech, body.run, lot);
    expect(signed).toMatchObject({ status: 201, body: { serviceDueOn: null, settlingDueOn: null } });
    const { record } = (await tech.get<{ record: RunRecord }>(`/runs/${body.run.id}/record`)).body;
    expect(record.unit).toMatchObject({ tight: true, leftMl: 12 });
    expect(record.loop.file.components).toHaveLength(2);
    expect(record.verdicts).toEqual([{ verdict: 'tight', earned: true, by: 'wet', wetS: 600 }]);
    const page = await pageOf(systemId);
    expect(page.system.state).toBe('planned');
    expect(page.dues).toEqual([]);
    expect(page.loops[0]?.inside).toMatchObject({ by: 'units', volume: { volumeMl: expect.closeTo(12, 0) } });
    expect((await tech.history(systemId)).some(({ title }) => title.toLowerCase().includes('test out of the case'))).toBe(true);
  });

  it('tells the build what was found and what stays inside, so that so much less is poured', async () => {
    const { loopId } = await planned('Quince shelf');
    const unit = (await startUnit(loopId)).body.run;
    await writtenRun(bench, tech, unit, lot);
    const build = (await tech.run(loopId, { leak: 'part-first' })).body as unknown as RunAnswer;
    // nobody tests it a second time
    expect(build.run.procedure.steps.find(({ kind }) => kind === 'part-test')).toMatchObject({ checks: [], timers: [] });
    expect(build.events.map(({ body }) => body)).toMatchObject([
      { type: 'part-test', part: 'pump', tight: true, leftMl: 12 },
      { type: 'part-test', part: 'reservoir', tight: true, leftMl: 0 },
    ]);
    expect((await tech.get<LoopAnswer>(`/loops/${loopId}`)).body.inside.volume?.volumeMl).toBeCloseTo(12, 0);
  });

  it('begins the build in doubt where it leaked: nothing goes in before it was found tight', async () => {
    const { loopId } = await planned('Rowan shelf');
    const unit = (await startUnit(loopId)).body.run;
    await writtenRun(bench, tech, unit, lot, { instead: (body) => [body.type === 'part-test' ? { ...body, tight: false, how: 'drop at the base' } : body] }); // prettier-ignore
    expect((await tech.get<{ record: RunRecord }>(`/runs/${unit.id}/record`)).body.record).toMatchObject({
      unit: { tight: false },
      verdicts: [{ verdict: 'tight', earned: false, because: 'leak-open' }],
    });
    const build = (await tech.run(loopId, { leak: 'wet-only' })).body.run;
    await leadTo(bench, tech, build, lot, { stopIn: 'isolate' });
    // the rest of isolation, up to the fill
    const { steps } = build.procedure as RunAnswer['run']['procedure'];
    for (const { id } of steps.find(({ id }) => id === 'isolate')?.checks ?? [])
      await tech.entry(build.id, { type: 'check', step: 'isolate', check: id, mark: 'done' }, randomUUID());
    await tech.entry(build.id, { type: 'step-done', step: 'isolate' }, randomUUID());
    const pour = () => tech.entry(build.id, { type: 'pour', volumeMl: 100 }, randomUUID());
    expect(errorOf(await pour()).message).toContain('leaked');
    await tech.entry(build.id, { type: 'part-test', part: 'pump', tight: true, how: 'new base ring, again', leftMl: 0 }, randomUUID());
    expect((await pour()).status).toBe(201);
  });

  it('is nothing for a loop that was filled, nor for a part that no reservoir feeds', async () => {
    const { loopId } = await commissioned(bench, tech, 'Sorrel shelf', lot);
    expect((await startUnit(loopId)).status).toBe(409);
    const other = await planned('Tansy shelf');
    expect(errorOf(await startUnit(other.loopId, 'cpu')).fields?.[0]?.path).toBe('pump');
  });

  it('counts for nothing in what a build is thought to take, and leaves its loop for the next day when it is broken off', async () => {
    const { systemId, loopId } = await planned('Umber shelf');
    const unit = (await startUnit(loopId)).body.run;
    await leadTo(bench, tech, unit, lot, { stopIn: 'wet' });
    await tech.entry(unit.id, { type: 'pump', on: false }, randomUUID());
    expect((await tech.post(`/runs/${unit.id}/abandon`, { reason: 'called away' })).status).toBe(201);
    const page = await pageOf(systemId);
    expect(page.system.state).toBe('planned');
    expect(page.loops[0]?.inside?.by).toBe('never-filled');
    expect((await startUnit(loopId)).status).toBe(201);
  });
});
