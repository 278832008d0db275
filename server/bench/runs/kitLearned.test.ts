import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ProceduresAnswer } from '../../../core/bench/procedures/answers.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { lotOf, writtenRun } from '../../../tests/integration/led.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Kits');
});
afterAll(() => bench.close());

const begun = async (of: Visitor): Promise<{ id: string; procedure: Procedure }> =>
  (await of.run((await of.loop(await of.system())).id, { leak: 'wet-only' })).body.run as { id: string; procedure: Procedure };
const kit = ({ procedure }: { procedure: Procedure }): string[] =>
  procedure.steps.find(({ id }) => id === 'kit')?.checks.map(({ text }) => text) ?? [];
const learned = async (): Promise<ProceduresAnswer['learned']> => (await tech.get<ProceduresAnswer>('/procedures')).body.learned;

describe('what was missing in the middle of a job', () => {
  it('is asked for in the next kit of its kind, once, and in no other', async () => {
    const run = await begun(tech);
    expect(kit(run).some((text) => text.startsWith('Missing the last time'))).toBe(false);
    const signed = await writtenRun(bench, tech, run, await lotOf(tech, 'K1'), {
      instead: (body) =>
        body.type === 'step-done' && body.step === 'close'
          ? [{ type: 'missed', name: 'long hex key' }, { type: 'missed', name: 'Long hex key' }, body] // prettier-ignore
          : [body],
    });
    expect(signed.status).toBe(201);
    expect((await learned()).map(({ name }) => name)).toEqual(['Long hex key']);
    expect((await tech.get<ProceduresAnswer>('/procedures?kind=flush-refill')).body.learned).toEqual([]);
    expect(kit(await begun(tech))).toContain('Missing the last time: Long hex key');
    const other = await bench.workshop('Elsewhere');
    expect(kit(await begun(other)).some((text) => text.startsWith('Missing the last time'))).toBe(false);
  });

  it('is struck out by the lead, and comes back', async () => {
    const [line] = await learned();
    await tech.delete(`/kit-learned/${line?.id}`);
    expect(await learned()).toEqual([]);
    await tech.post(`/kit-learned/${line?.id}/back`, {});
    expect((await learned()).map(({ id }) => id)).toEqual([line?.id]);
  });
});
