import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BenchesAnswer, RunAnswer } from '../../../core/bench/benches/answers.js';
import { RunFold } from '../../../core/bench/runs/replay.js';
import { checksBeforeGoingOn, checksBeforeWaiting } from '../../../core/bench/runs/waiting.js';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import type { WorkshopBoard } from '../../../core/workshop/planning/workshopPlan.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { errorOf, TestBench, type Answer, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, leadRun, leadTo, lotOf, type Lot } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
let lot: Lot;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Waiters');
  lot = await lotOf(desk, 'W1');
});
afterAll(() => bench.close());

const pageOf = async (systemId: string): Promise<SystemPage> => (await desk.get<SystemPage>(`/systems/${systemId}`)).body;
const dayIn = (days: number): string => new Date(bench.nowMs + days * 86_400_000).toISOString().slice(0, 10);
const stateOf = async (runId: string) => {
  const { body } = await desk.get<RunAnswer>(`/runs/${runId}`);
  return new RunFold(body.run.procedure).sync(body.events).state;
};
async function wait(runId: string, more: object = {}): Promise<Answer<RunAnswer>> {
  const seen = checksBeforeWaiting(await stateOf(runId)).map(({ check }) => check);
  return desk.post<RunAnswer>(`/runs/${runId}/wait`, { id: randomUUID(), for: 'parts', what: 'the plate’s seal', until: dayIn(5), lies: 'shelf 2', seen, ...more }); // prettier-ignore
}
async function goOn(runId: string, benchId: string | null): Promise<Answer<RunAnswer>> {
  const seen = checksBeforeGoingOn(await stateOf(runId)).map(({ check }) => check);
  return desk.post<RunAnswer>(`/runs/${runId}/go-on`, { id: randomUUID(), benchId, seen });
}
const benchIds = async (): Promise<string[]> => (await desk.get<BenchesAnswer>('/benches')).body.benches.map(({ id }) => id);

async function building(name: string, benchId: string | null) {
  const systemId = await desk.system(name);
  const loop = await desk.loop(systemId, lot.productId);
  const { run } = (await desk.run(loop.id, { leak: 'wet-only' }, benchId)).body;
  return { systemId, loopId: loop.id, run };
}

describe('a build that waits for a part', () => {
  it('frees its bench, stands in Today’s answer and in the plan, and goes on at its step with what is inside', async () => {
    await desk.post('/benches', { name: 'Second bench' });
    const [first, second] = (await benchIds()) as [string, string];
    const { systemId, run } = await building('Waits for a seal', first);
    await leadTo(bench, desk, run, lot, { stopIn: 'bleed' });
    const before = await stateOf(run.id);
    expect(before.contents.insideMl).toBeGreaterThan(100);
    expect((await wait(run.id)).status).toBe(201);

    const now = (await desk.get<BenchesAnswer>('/benches')).body;
    const own = now.runs.find(({ id }) => id === run.id);
    expect(own).toMatchObject({ benchId: null, waits: { for: 'parts', what: 'the plate’s seal', until: dayIn(5), lies: 'shelf 2' } });
    expect((await desk.get<WorkshopBoard>('/plan')).body).toMatchObject({
      running: [],
      waiting: [{ runId: run.id, systemName: 'Waits for a seal' }],
    });
    expect((await pageOf(systemId)).system.state).toBe('waiting');

    // somebody else works on that bench meanwhile
    const other = await building('Another', first);
    expect(errorOf(await goOn(run.id, first)).message).toContain('taken by Another');
    bench.wait(3 * 86_400);
    expect(errorOf(await desk.entry(run.id, { type: 'pump', on: true })).message).toContain('waits for parts');
    const back = await goOn(run.id, second);
    expect(back.body).toMatchObject({ run: { benchId: second, state: 'active' } });
    const after = await stateOf(run.id);
    expect(after.current).toBe(before.current);
    expect(after.contents.insideMl).toBeCloseTo(before.contents.insideMl ?? 0, 6);
    expect((await pageOf(systemId)).system.state).toBe('on-bench');
    await desk.post(`/runs/${other.run.id}/abandon`, { reason: 'only a test' });
    await desk.post(`/runs/${run.id}/abandon`, { reason: 'only a test' });
  });

  it('is written once however often it is sent, and only by its own request', async () => {
    const { run } = await building('Sent twice', null);
    const seen = checksBeforeWaiting(await stateOf(run.id)).map(({ check }) => check);
    const body = { id: randomUUID(), for: 'overnight', what: '', until: dayIn(1), lies: 'on the trolley', seen };
    expect((await desk.post<RunAnswer>(`/runs/${run.id}/wait`, body)).body.events).toHaveLength(1);
    expect((await desk.post<RunAnswer>(`/runs/${run.id}/wait`, body)).body.events).toHaveLength(1);
    const entry = { type: 'resumed', seen: [] } as const;
    expect(errorOf(await desk.entry(run.id, entry)).message).toContain('with its own request');
    expect(errorOf(await desk.post(`/runs/${run.id}/wait`, { ...body, id: randomUUID(), for: 'parts' })).message).toMatch(/what/);
    expect((await wait(run.id, { until: dayIn(9) })).body.events).toHaveLength(2);
    expect((await desk.get<WorkshopBoard>('/plan')).body.waiting).toMatchObject([{ waits: { until: dayIn(9) } }]);
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.post(`/runs/${run.id}/wait`, { ...body, id: randomUUID() })).status).toBe(404);
    expect((await stranger.get<WorkshopBoard>('/plan')).body.waiting).toEqual([]);
    await desk.post(`/runs/${run.id}/abandon`, { reason: 'only a test' });
    expect((await desk.get<WorkshopBoard>('/plan')).body.waiting).toEqual([]);
  });
});

describe('a follow-up whose part has come', () => {
  it('is answered by the job that was booked for it', async () => {
    const own = await commissioned(bench, desk, 'Capped branch', lot);
    const first = await booked(desk, own, 'closed-loop');
    await desk.post(`/jobs/${first.id}/consent`, { how: 'phone', words: 'yes', version: first.version });
    const started = await desk.post<RunAnswer>(`/jobs/${first.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } }); // prettier-ignore
    const { run } = started.body;
    const fix = { type: 'temporary-fix', what: 'a cap', awaits: 'a seal', until: dayIn(30), limits: ['do-not-move'], then: 'top-up' };
    expect((await desk.entry(run.id, fix)).status).toBe(201);
    await leadRun(bench, desk, run, lot);
    const due = (await pageOf(own.systemId)).dues.find(({ kind }) => kind === 'follow-up');
    expect(due).toMatchObject({ reason: { why: 'temporary', then: 'top-up' }, jobId: null });
    const wrong = await booked(desk, own, 'top-up', { answers: randomUUID() });
    expect(errorOf({ status: 400, body: wrong } as never).message).toContain('no open follow-up');
    const job = await booked(desk, own, 'top-up', { answers: due?.id });
    expect((await pageOf(own.systemId)).dues.find(({ id }) => id === due?.id)?.jobId).toBe(job.id);
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const second = (await desk.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } })).body; // prettier-ignore
    expect((await leadRun(bench, desk, second.run, lot)).status).toBe(201);
    expect((await pageOf(own.systemId)).dues.map(({ id }) => id)).not.toContain(due?.id);
  });
});

describe('a strip that waits overnight', () => {
  it('tells of its temporary fix and of the suspected lot at once, and not again at the sign-off', async () => {
    const bad = await lotOf(desk, 'W9', { coolantClass: 'clear' });
    const mate = await commissioned(bench, desk, 'Same bottle', bad);
    const own = await commissioned(bench, desk, 'Stripped', bad);
    bench.wait(200 * 86_400);
    const job = await booked(desk, own, 'strip-clean');
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const { run } = (await desk.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, wet: 'ten-minutes' } })).body; // prettier-ignore
    const followUps = async (systemId: string): Promise<string[]> =>
      (await pageOf(systemId)).dues.filter(({ kind }) => kind === 'follow-up').map(({ reason }) => reason.why);
    let waited = false;
    const script = {
      findings: {},
      cause: { cause: 'fallout', suspect: 'coolant-lot', item: null, particlesStayed: false, text: '' },
    } as const;
    const signed = await leadRun(
      bench,
      desk,
      run,
      bad,
      script as never,
      (body) => {
        const more = body.type === 'cause' ? [{ type: 'temporary-fix', what: 'a cap', awaits: 'the plate', until: dayIn(20), limits: ['do-not-move'] }] : []; // prettier-ignore
        return [body, ...(more as never[])];
      },
      async (body) => {
        if (waited || body.type !== 'step-done' || !(await stateOf(run.id)).service.temporaryFixes.length) return;
        waited = true;
        expect((await wait(run.id, { for: 'overnight', what: '', until: dayIn(1) })).status).toBe(201);
        expect(await followUps(mate.systemId)).toEqual(['same-lot']);
        expect(await followUps(own.systemId)).toEqual(['temporary']);
        bench.wait(14 * 3600);
        expect((await goOn(run.id, null)).status).toBe(201);
      },
    );
    expect(waited).toBe(true);
    expect(signed.status).toBe(201);
    expect(await followUps(mate.systemId)).toEqual(['same-lot']);
    expect(await followUps(own.systemId)).toEqual(['temporary']);
  });

  it('tells as well when it goes off the bench for good', async () => {
    const own = await commissioned(bench, desk, 'Broken off with a fix', lot);
    const job = await booked(desk, own, 'closed-loop');
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'yes', version: job.version });
    const { run } = (await desk.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' } })).body; // prettier-ignore
    await desk.entry(run.id, { type: 'owed', kind: 'not-connected', what: 'the strip of lamps', until: dayIn(7) });
    await desk.post(`/runs/${run.id}/abandon`, { reason: 'the owner needs it tonight' });
    const [due] = (await pageOf(own.systemId)).dues.filter(({ kind }) => kind === 'follow-up');
    expect(due).toMatchObject({ dueOn: dayIn(7), reason: { why: 'owed', kind: 'not-connected', what: 'the strip of lamps' } });
  });
});
