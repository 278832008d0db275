import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { booked, lotOf, writtenRun } from '../../../tests/integration/led.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let tech: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  tech = await bench.workshop('Dyed');
});
afterAll(() => bench.close());

describe('a fill that was dyed', () => {
  it('is known as such when the machine comes back, at the desk and at the bench', async () => {
    const lot = await lotOf(tech, 'D1');
    const systemId = await tech.system('Green tower');
    const loop = await tech.loop(systemId, lot.productId);
    const started = await tech.run(loop.id, { leak: 'wet-only' });
    const signed = await writtenRun(bench, tech, started.body.run, lot, {
      instead: (body) =>
        body.type === 'step-done' && body.step === 'bleed' ? [{ type: 'dyed', name: 'Reed green', drops: 7 }, body] : [body],
    });
    expect(signed.status).toBe(201);
    const dyes = [{ name: 'Reed green', drops: 7 }];
    expect((await tech.get(`/loops/${loop.id}/history`)).body).toMatchObject({ dyes });
    const job = await booked(tech, { systemId, loopId: loop.id }, 'flush-refill');
    await tech.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const run = await tech.post<{ run: { procedure: Procedure } }>(`/jobs/${job.id}/start`, { benchId: null, schools: DEFAULT_SCHOOLS }); // prettier-ignore
    expect(run.body.run.procedure.service?.old?.dyes).toEqual(dyes);
  });
});
