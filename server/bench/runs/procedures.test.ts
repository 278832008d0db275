import { standardProcedure } from '../../../core/bench/procedures/procedureKinds.js';
import { usualLoop } from '../../../core/machine/catalogue/testLoops.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { STANDARD_TEMPLATE } from '../../../core/bench/commissioning/standardTemplate.js';
import type { ProcedureTemplate } from '../../../core/bench/runs/template.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Procedures');
});
afterAll(() => bench.close());

interface Versions {
  standard: ProcedureTemplate;
  versions: { number: number; note: string; template: ProcedureTemplate }[];
}
interface Run {
  run: { id: string; procedure: { templateNumber?: number; steps: { id: string; lead: string }[] } };
}
const own = (lead_: string): ProcedureTemplate => ({
  steps: STANDARD_TEMPLATE.steps.map((step) => (step.id === 'fill' ? { ...step, lead: lead_ } : step)),
});
const start = async (): Promise<Run['run']> => {
  const loop = await lead.loop(await lead.system());
  return ((await lead.run(loop.id)).body as unknown as Run).run;
};

describe('the workshop’s procedure', () => {
  it('begins with the standard one', async () => {
    const { body } = await lead.get<Versions>('/procedures');
    expect(body).toEqual({ standard: STANDARD_TEMPLATE, versions: [], learned: [] });
    expect((await start()).procedure.templateNumber).toBeUndefined();
  });

  it('leads the next run in its newest version; runs that began keep theirs', async () => {
    const before = await start();
    expect((await lead.post('/procedures', { template: own('Slowly.'), note: 'spilled twice', from: 0 })).status).toBe(201);
    const after = await start();
    expect(after.procedure.templateNumber).toBe(1);
    expect(after.procedure.steps.find(({ id }) => id === 'fill')?.lead).toBe('Slowly.');
    const same = await lead.get<Run>(`/runs/${before.id}`);
    expect(same.body.run.procedure.steps.find(({ id }) => id === 'fill')?.lead).not.toBe('Slowly.');
  });

  it('is not written over: a version made from an older one is refused with the newer', async () => {
    const { status, body } = await lead.post('/procedures', { template: own('Fast.'), note: 'in a hurry', from: 0 });
    expect(status).toBe(409);
    expect(JSON.stringify(body)).toContain('Slowly.');
    await expect(bench.pool.query("update procedure_version set note = 'x'")).rejects.toThrow('written once');
  });

  it('is refused whole without what protects, and says what is missing', async () => {
    const unsafe = { steps: STANDARD_TEMPLATE.steps.filter(({ id }) => id !== 'isolate') };
    const answer = await lead.post('/procedures', { template: unsafe, note: 'quicker', from: 1 });
    expect(answer.status).toBe(422);
    expect(errorOf(answer).message).toContain('protects people or electronics');
  });

  it('is another workshop’s own business', async () => {
    const other = await bench.workshop('Elsewhere');
    expect((await other.get<Versions>('/procedures')).body.versions).toEqual([]);
  });
});

describe('a run after small service work', () => {
  const loop = usualLoop();
  const send = async (more: object) => {
    const own_ = await lead.loop(await lead.system());
    const schools = { leak: 'opened-joints', wet: 'ten-minutes', limit: 'screen', gaugeResolutionKpa: 0.1 };
    return lead.post<Run>('/runs', { loopId: own_.id, benchId: null, schools, ...more });
  };

  it('looks only at the joints that were opened', async () => {
    const { status, body } = await send({ openedJoints: [loop.tubes[0]?.id], lostMl: 60 });
    expect(status).toBe(201);
    expect(body.run.procedure.steps.map(({ id }) => id)).not.toContain('flush');
  });

  it('must know which, and how much left', async () => {
    expect((await send({})).status).toBe(422);
    expect((await send({ openedJoints: ['elsewhere'], lostMl: 60 })).status).toBe(422);
  });
});

describe('the procedure of a kind of service', () => {
  const flush = standardProcedure('flush-refill');
  const kindOf = async (kind: string): Promise<Versions> => (await lead.get<Versions>(`/procedures?kind=${kind}`)).body;

  it('is its own: versions of one kind leave the others alone', async () => {
    expect((await kindOf('flush-refill')).standard).toEqual(flush);
    const own: ProcedureTemplate = {
      steps: flush.steps.map((step) => (step.id === 'rinse' ? { ...step, lead: 'Twice at least.' } : step)),
    };
    expect((await lead.post('/procedures', { kind: 'flush-refill', template: own, note: 'once was not enough', from: 0 })).status).toBe(
      201,
    );
    expect((await kindOf('flush-refill')).versions.map(({ number }) => number)).toEqual([1]);
    expect((await kindOf('strip-clean')).versions).toEqual([]);
    expect((await lead.get('/procedures?kind=dance')).status).toBe(422);
  });

  it('keeps the steps that its close is computed from', async () => {
    const blind = { steps: flush.steps.filter(({ id }) => id !== 'rinse') };
    const answer = await lead.post('/procedures', { kind: 'flush-refill', template: blind, note: 'quicker', from: 1 });
    expect(errorOf(answer).message).toMatch(/"Rinse" must stay: what it writes down/);
  });

  it('leads the next such job, and says which version it was', async () => {
    const lot = await lotOf(lead, 'P7');
    const made = await booked(lead, await commissioned(bench, lead, 'Own way', lot), 'flush-refill');
    await lead.post(`/jobs/${made.id}/consent`, { how: 'phone', words: '', version: made.version });
    const started = await lead.post<Run>(`/jobs/${made.id}/start`, {
      benchId: null,
      schools: { leak: 'wet-only', wet: 'ten-minutes', limit: 'screen', gaugeResolutionKpa: 0.1 },
      openedJoints: [],
    });
    const { procedure } = started.body.run;
    expect(procedure.templateNumber).toBe(1);
    expect(procedure.steps.find(({ id }) => id === 'rinse')?.lead).toBe('Twice at least.');
  });
});
