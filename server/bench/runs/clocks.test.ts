import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { timerFace } from '../../../core/bench/runs/state.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { urlOfDatabase } from '../../operations/cluster/cluster.js';
import { checkDatabase } from '../../operations/check/check.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Clocks');
});
afterAll(() => bench.close());

const begun = async (): Promise<string> => (await lead.run((await lead.loop(await lead.system())).id)).body.run.id;
const note = (run: string, text: string) => lead.entry(run, { type: 'note', step: 'kit', text });
const read = async (run: string) => (await lead.get<{ run: { procedure: Procedure }; events: RunEvent[] }>(`/runs/${run}`)).body;

describe('a server’s clock that is set', () => {
  it('forward and back loses no entry, and keeps their order', async () => {
    const run = await begun();
    expect((await note(run, 'one')).status).toBe(201);
    bench.wait(7200);
    expect((await note(run, 'two')).status).toBe(201);
    bench.wait(-10_800);
    expect((await note(run, 'three')).status).toBe(201);
    expect((await note(run, 'four')).status).toBe(201);
    bench.wait(3600);
    const { events } = await read(run);
    expect(events.map(({ seq, body }) => [seq, (body as { text?: string }).text])).toEqual([[1, 'one'], [2, 'two'], [3, 'three'], [4, 'four']]); // prettier-ignore
    const { findings } = await checkDatabase(urlOfDatabase(process.env.LAVACRUM_TEST_DATABASE as string, bench.databaseName));
    expect(findings).toEqual([]);
  });

  it('over the change to summer time: a clock of ten minutes lasts ten minutes, and a day is the workshop’s own', async () => {
    // Lisbon goes from one to two o'clock on 29 March 2026, at 01:00 UTC
    bench.nowMs = Date.parse('2026-03-29T00:55:00Z');
    const run = await begun();
    const { procedure } = (await read(run)).run;
    const step = procedure.steps.find(({ timers }) => timers.length > 0);
    const timer = step?.timers[0];
    expect(timer).toBeDefined();
    const started = { step: step?.id ?? '', startedAt: new Date(bench.nowMs).toISOString(), stoppedAt: null, seconds: 600 };
    expect(timerFace(started, bench.nowMs + 599_000)).toMatchObject({ running: true, remainingS: 1 });
    expect(timerFace(started, bench.nowMs + 600_000)).toMatchObject({ running: false, finished: true });
    await note(run, 'before');
    bench.wait(600);
    await note(run, 'after');
    const { events } = await read(run);
    const [before, after] = events.map(({ at }) => Date.parse(at));
    expect((after as number) - (before as number)).toBeGreaterThanOrEqual(600_000);
    expect(events).toHaveLength(2);
    expect((await lead.get<{ today: string }>('/session')).body.today).toBe('2026-03-29');
    bench.nowMs = Date.parse('2026-03-29T22:59:00Z');
    expect((await lead.get<{ today: string }>('/session')).body.today).toBe('2026-03-29');
    // midnight there is an hour earlier by the world's clock than the night before
    bench.nowMs = Date.parse('2026-03-29T23:01:00Z');
    expect((await lead.get<{ today: string }>('/session')).body.today).toBe('2026-03-30');
  });
});
