import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { usualLoop } from '../../../core/machine/catalogue/testLoops.js';
import { usualSheet } from '../../../core/machine/electrical/usual.js';
import { lotOf, writtenRun } from '../../../tests/integration/led.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import type { ConnectorsAnswer, LoopAnswer } from '../../../core/workshop/machines/answers.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Connectors');
});
afterAll(() => bench.close());

async function machine(): Promise<{ systemId: string; loopId: string }> {
  const systemId = await tech.system();
  return { systemId, loopId: (await tech.loop(systemId)).id };
}
const read = async (systemId: string): Promise<ConnectorsAnswer> =>
  (await tech.get<ConnectorsAnswer>(`/systems/${systemId}/connectors`)).body;
const write = (systemId: string, sheet: unknown, version: number) =>
  tech.put<ConnectorsAnswer>(`/systems/${systemId}/connectors`, { sheet, version });

describe('what hangs on what in a machine', () => {
  it('is nothing at first, then what was written down, for the heat of its loop as well', async () => {
    const { systemId, loopId } = await machine();
    expect(await read(systemId)).toMatchObject({ sheet: null, version: 0, loops: [{ id: loopId }] });
    const sheet = usualSheet([{ id: loopId, file: usualLoop() }]);
    expect((await write(systemId, sheet, 0)).body).toMatchObject({ sheet, version: 1 });
    const { fans } = (await tech.get<LoopAnswer>(`/loops/${loopId}`)).body;
    expect(fans.map(({ of }) => of?.part)).toEqual(
      usualLoop()
        .components.filter(({ kind }) => kind === 'radiator')
        .map(({ id }) => id),
    );
  });

  it('is refused where somebody wrote it down meanwhile, with theirs', async () => {
    const { systemId, loopId } = await machine();
    const sheet = usualSheet([{ id: loopId, file: usualLoop() }]);
    await write(systemId, { ...sheet, supply: 'Tern 850' }, 0);
    const late = await write(systemId, sheet, 0);
    expect([late.status, errorOf(late).code]).toEqual([409, 'stale']);
    expect(late.body).toMatchObject({ error: { theirs: { sheet: { supply: 'Tern 850' }, version: 1 } } });
  });

  it('is refused with a pump that no loop of the machine has', async () => {
    const [{ systemId, loopId }, other] = [await machine(), await machine()];
    const sheet = usualSheet([{ id: other.loopId, file: usualLoop() }]);
    expect(errorOf(await write(systemId, sheet, 0)).message).toContain('which no loop of this machine has');
    const gone = usualSheet([{ id: loopId, file: usualLoop() }]).connectors.map((each) =>
      each.of ? { ...each, of: { ...each.of, part: 'gone' } } : each,
    );
    expect((await write(systemId, { supply: '', connectors: gone }, 0)).status).toBe(422);
  });

  it('is seen and written by its own workshop alone', async () => {
    const { systemId, loopId } = await machine();
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.get(`/systems/${systemId}/connectors`)).status).toBe(404);
    const sheet = usualSheet([{ id: loopId, file: usualLoop() }]);
    expect((await stranger.put(`/systems/${systemId}/connectors`, { sheet, version: 0 })).status).toBe(404);
  });
});

describe('a run on a machine whose connectors are known', () => {
  it('pulls them by name, and leaves the sheet as it found and left them', async () => {
    const { systemId, loopId } = await machine();
    const usual = usualSheet([{ id: loopId, file: usualLoop() }]);
    const [main] = usual.connectors;
    await write(
      systemId,
      { ...usual, connectors: usual.connectors.map((each) => (each === main ? { ...each, name: 'Wide one, board edge' } : each)) },
      0,
    );
    const coolant = await lotOf(tech, 'L1');
    const started = await tech.run(loopId, { leak: 'wet-only' });
    const { run } = started.body as { run: { id: string; procedure: Procedure } };
    const isolate = run.procedure.steps.find(({ does }) => does.includes('isolates'));
    expect(isolate?.checks.map(({ text }) => text)).toContain('Pulled: Wide one, board edge');
    const signed = await writtenRun(bench, tech, run, coolant, {
      instead: (body) => {
        if (body.type === 'step-done' && body.step === isolate?.id)
          return [{ type: 'also-pulled', step: body.step, line: 'l1', name: 'Light strip, rear' }, body];
        if (body.type === 'step-done' && body.step === 'power')
          return [{ type: 'check', step: 'power', check: 'back:beside:l1', mark: 'not-needed', reason: 'strip is dead' }, body];
        return [body];
      },
    });
    expect(signed.status).toBe(201);
    const after = await read(systemId);
    expect(after.version).toBe(2);
    expect(after.sheet?.connectors.at(-1)).toMatchObject({ name: 'Light strip, rear', openWhy: 'strip is dead' });
  });
});
