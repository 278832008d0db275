import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { WorkshopBoard } from '../../../core/workshop/planning/workshopPlan.js';
import type { BoardJob } from '../../../core/workshop/planning/workshopPlan.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf, type Lot } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
let lot: Lot;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Builders');
  lot = await lotOf(desk, 'B1');
});
afterAll(() => bench.close());

interface Job {
  id: string;
  kind: string;
  version: number;
  state: string;
  note: string;
}
const intake = { symptom: 'Quiet at night.', condition: '', signs: [], dataSafe: 'unknown', signsIn: '', flowLph: null };
const asked = (loopId: string, kind = 'commissioning') => ({ loopId, kind, partId: null, intake, estimate: { hours: 7, partsText: '', coolantMl: 900, priceText: '' }, neededBy: null, partsOn: '2099-02-01', note: '' }); // prettier-ignore
const start = (jobId: string) =>
  desk.post<{ run: { id: string; jobId: string; procedure: Procedure } }>(`/jobs/${jobId}/start`, { benchId: null, schools: { ...DEFAULT_SCHOOLS } }); // prettier-ignore
const boarded = async (jobId: string): Promise<BoardJob | undefined> =>
  (await desk.get<WorkshopBoard>('/plan')).body.jobs.find(({ id }) => id === jobId);

describe('a build', () => {
  it('is booked with estimate, parts’ day and consent, stands in the plan, and goes onto its bench from its job', async () => {
    const systemId = await desk.system('New tower');
    const loop = await desk.loop(systemId, lot.productId);
    const job = (await desk.post<Job>(`/systems/${systemId}/jobs`, asked(loop.id))).body;
    expect(job).toMatchObject({ kind: 'commissioning', state: 'booked' });
    // a day's test of the pump alone is part of what its bench is held for
    expect(await boarded(job.id)).toMatchObject({ kind: 'commissioning', attendedMinutes: 420, wetMinutes: 1440, arrivesOn: '2099-02-01', consented: false }); // prettier-ignore
    expect(errorOf(await start(job.id)).message).toContain('has not agreed');
    // nor past its job
    const past = await desk.post('/runs', { loopId: loop.id, benchId: null, schools: { ...DEFAULT_SCHOOLS } });
    expect(errorOf(past).message).toContain('put it on a bench from its job');
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'go on', version: job.version });
    const begun = await start(job.id);
    expect(begun.status).toBe(201);
    expect(begun.body.run.jobId).toBe(job.id);
    expect(begun.body.run.procedure.service).toBeUndefined();
    expect(begun.body.run.procedure.steps.some(({ kind }) => kind === 'dry-test')).toBe(true);
    // taken off without a record it is booked again, with what was said of it
    expect((await desk.post(`/runs/${begun.body.run.id}/abandon`, { reason: 'a ring is missing' })).status).toBe(201);
    const again = (await desk.get<Job>(`/jobs/${job.id}`)).body;
    expect(again).toMatchObject({ state: 'booked' });
    expect(again.note).toContain('a ring is missing');
  });

  it('is booked once, of a dry loop that is drawn; and what was filled is serviced', async () => {
    const systemId = await desk.system('Dry tower');
    const loop = await desk.loop(systemId);
    expect(errorOf(await desk.post(`/systems/${systemId}/jobs`, asked(loop.id, 'drain-refill'))).message).toContain('book its build first');
    const job = (await desk.post<Job>(`/systems/${systemId}/jobs`, asked(loop.id))).body;
    expect(errorOf(await desk.post(`/systems/${systemId}/jobs`, asked(loop.id))).message).toContain('booked already');
    const into = await desk.put(`/jobs/${job.id}`, { ...asked(loop.id, 'drain-refill'), loopId: undefined, version: job.version });
    expect(errorOf(into).message).toContain('A build stays a build');
    const filled = await commissioned(bench, desk, 'Wet tower', lot);
    expect(errorOf(await desk.post(`/systems/${filled.systemId}/jobs`, asked(filled.loopId))).message).toContain('filled already');
  });
});
