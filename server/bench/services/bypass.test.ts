import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { fillTotal } from '../../../core/bench/runs/contents.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { RunFold } from '../../../core/bench/runs/replay.js';
import { fillVolume } from '../../../core/physics/filling/fillPlan.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import type { JobKind } from '../../../core/workshop/job-kinds/kinds.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, leadTo, lotOf, type Lot } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
let lot: Lot;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Left out');
  lot = await lotOf(desk, 'B1');
});
afterAll(() => bench.close());

/** A service on the bench whose drain is over. */
async function drained(name: string, kind: JobKind, stopIn: string) {
  const own = await commissioned(bench, desk, name, lot);
  const job = await booked(desk, own, kind);
  await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'go on', version: job.version });
  const { run } = (
    await desk.post<{ run: { id: string; procedure: Procedure } }>(`/jobs/${job.id}/start`, {
      benchId: null,
      schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' },
    })
  ).body;
  if (stopIn) await leadTo(bench, desk, run, lot, { stopIn });
  return { ...own, run };
}
const answerOf = async (runId: string): Promise<RunAnswer> => (await desk.get<RunAnswer>(`/runs/${runId}`)).body;
const stateOf = ({ run, events }: RunAnswer) => new RunFold(run.procedure).sync(events).state;
const leaveOut = (runId: string, part: string, more: object = {}) =>
  desk.post<RunAnswer>(`/runs/${runId}/bypass`, { part, text: 'box 4', heldMl: null, ...more });

describe('a part that is left out of the loop in the middle of a service', () => {
  it('makes a revision without it, and what is still to test and to pour follows', async () => {
    const { loopId, run } = await drained('Two blocks', 'drain-refill', 'drain');
    const before = await answerOf(run.id);
    const insideMl = stateOf(before).contents.insideMl as number;
    const answer = await leaveOut(run.id, 'graphics', { heldMl: 5 });
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    const { procedure } = answer.body.run;
    expect(answer.body.file.components.map(({ id }) => id)).not.toContain('graphics');
    expect(answer.body.file.tubes).toHaveLength(before.file.tubes.length - 1);
    const state = stateOf(answer.body);
    // a drain that gave all there was leaves nothing to take along
    const staysMl = Math.max(0, insideMl - 5);
    expect(state.contents.insideMl).toBeCloseTo(staysMl, 6);
    expect(fillTotal(procedure, state).volumeMl).toBeCloseTo(fillVolume(answer.body.file).volumeMl - staysMl, 3);
    const open = procedure.steps.filter(({ id }) => state.steps.some((step) => step.id === id && step.status !== 'done'));
    expect(open.flatMap(({ checks }) => checks.map(({ place }) => place))).not.toContain('graphics');
    const loop = await desk.get<{ revisions: { number: number; reason: string }[]; file: { components: { id: string }[] } }>(
      `/loops/${loopId}`,
    );
    expect(loop.body.revisions[0]?.reason).toMatch(/^left out: .*\(box 4\)$/);
    expect(loop.body.file.components.map(({ id }) => id)).not.toContain('graphics');
  });

  it('stays out, and the book with it, when the run is broken off', async () => {
    const { loopId, run } = await drained('Broken off without', 'drain-refill', 'drain');
    await leaveOut(run.id, 'graphics');
    const { contents } = stateOf(await answerOf(run.id));
    expect((await desk.post(`/runs/${run.id}/abandon`, { reason: 'the owner needs the bench' })).status).toBe(201);
    const loop = await desk.get<{ file: { components: { id: string }[] }; inside: { volume: { volumeMl: number } | null } }>(
      `/loops/${loopId}`,
    );
    expect(loop.body.file.components.map(({ id }) => id)).not.toContain('graphics');
    expect(loop.body.inside.volume?.volumeMl).toBeCloseTo(contents.insideMl as number, 3);
  });

  it('is refused while liquid would run out of its joints, and for what no loop goes without', async () => {
    const { run } = await drained('Still full', 'drain-refill', '');
    expect(errorOf(await leaveOut(run.id, 'graphics')).message).toMatch(/would run where .* is undone: draw it down first/);
    expect(errorOf(await leaveOut(run.id, 'reservoir')).message).toContain('is the reservoir');
    expect(errorOf(await leaveOut(run.id, 'flywheel')).message).toContain('is not a part of this loop');
    expect((await answerOf(run.id)).events).toEqual([]);
  });

  it('is nobody else’s business', async () => {
    const { run } = await drained('Ours', 'drain-refill', 'drain');
    const other = await bench.workshop('Elsewhere');
    expect((await other.post(`/runs/${run.id}/bypass`, { part: 'graphics', text: 'box', heldMl: null })).status).toBe(404);
  });
});
