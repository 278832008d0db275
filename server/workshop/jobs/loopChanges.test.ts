import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import type { BookableLoop, JobPage } from '../../../core/workshop/jobs/answers.js';
import type { LoopAnswer } from '../../../core/workshop/machines/answers.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, leadTo, lotOf, type Lot } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
let lot: Lot;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Changes');
  lot = await lotOf(desk, 'C1');
});
afterAll(() => bench.close());

interface Own {
  readonly systemId: string;
  readonly loopId: string;
}
const loopNow = async ({ loopId }: Own): Promise<LoopAnswer> => (await desk.get<LoopAnswer>(`/loops/${loopId}`)).body;
const save = async (own: Own, kind: string, file: LoopFile) => {
  const { name, coolantProductId, version } = await loopNow(own);
  return desk.post<LoopAnswer>(`/loops/${own.loopId}/revisions`, { kind, reason: '', name, coolantProductId, version, file });
};
const another = (file: LoopFile): LoopFile => ({ ...file, components: file.components.map((part) => (part.id === 'graphics' ? { ...part, catalogue: 'another-make', volume_ml: 90 } : part)) }); // prettier-ignore
const schools = { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' };
const asked = { intake: { symptom: '', condition: '', signs: [], dataSafe: 'yes', signsIn: '', flowLph: null }, estimate: { hours: 2, partsText: '', coolantMl: 0, priceText: '', parts: [] }, neededBy: null, note: '' }; // prettier-ignore

describe('a loop that shall become another one', () => {
  it('stays what is inside however early the drawing is saved, and becomes it by the run that makes it so', async () => {
    const own = await commissioned(bench, desk, 'To be changed', lot);
    const before = await loopNow(own);
    expect((await save(own, 'wanted', another(before.file))).status).toBe(201);
    const now = await loopNow(own);
    expect(now.file).toEqual(before.file);
    expect(now.inside).toEqual(before.inside);
    expect(now.revisions[0]?.kind).toBe('wanted');
    const { wishes } = (await desk.get<BookableLoop>(`/loops/${own.loopId}/history`)).body;
    expect(wishes.map(({ number }) => number)).toEqual([now.revisions[0]?.number]);

    expect(errorOf(await desk.post(`/systems/${own.systemId}/jobs`, { ...asked, loopId: own.loopId, kind: 'loop-change', partId: null })).fields?.map(({ path }) => path)).toEqual(['wanted']); // prettier-ignore
    const job = await booked(desk, own, 'loop-change', { wanted: wishes[0]?.number });
    const { change } = (await desk.get<JobPage>(`/jobs/${job.id}`)).body;
    expect(change?.work.in.map(({ id }) => id)).toEqual(['graphics']);
    expect(['down-to', 'whole']).toContain(change?.drain);
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'go on', version: job.version });
    const { run } = (await desk.post<{ run: { id: string; procedure: Procedure } }>(`/jobs/${job.id}/start`, { benchId: null, schools })).body; // prettier-ignore
    // nothing is rebuilt before its step, and while the run goes on nobody draws the loop anew under it
    expect(errorOf(await desk.post(`/runs/${run.id}/rebuilt`, {})).message).toContain('changes no loop');
    expect(errorOf(await save(own, 'change', another(before.file))).message).toContain('save the new drawing as wanted');

    await leadTo(bench, desk, run, lot, { stopIn: 'change' });
    expect(errorOf(await desk.post(`/runs/${run.id}/rebuilt`, {})).message).toMatch(/checks? open/);
    for (const { id } of run.procedure.steps.find((step) => step.id === 'change')?.checks ?? [])
      await desk.entry(run.id, { type: 'check', step: 'change', check: id, mark: 'done' });
    expect(errorOf(await desk.post(`/runs/${run.id}/rebuilt`, {})).message).toContain('where they lie');
    await desk.entry(run.id, { type: 'swapped', step: 'change', item: 'graphics', action: 'removed', text: 'box 4', heldMl: 10 });
    const done = await desk.post<RunAnswer>(`/runs/${run.id}/rebuilt`, {});
    expect(done.status, JSON.stringify(done.body)).toBe(201);
    expect(done.body.file.components.find(({ id }) => id === 'graphics')?.catalogue).toBe('another-make');
    expect(errorOf(await desk.post(`/runs/${run.id}/rebuilt`, {})).message).toContain('is the one that was wanted already');
    const after = await loopNow(own);
    expect(after.revisions[0]).toMatchObject({ kind: 'change', reason: `as wanted in revision ${wishes[0]?.number}` });
    expect(after.file.components.find(({ id }) => id === 'graphics')?.volume_ml).toBe(90);
    expect((await desk.get<BookableLoop>(`/loops/${own.loopId}/history`)).body.wishes).toEqual([]);
    expect((await desk.get<JobPage>(`/jobs/${job.id}`)).body.change).toBeNull();
  });

  it('gives one part its own cooler: the drawing without it follows from the part', async () => {
    const own = await commissioned(bench, desk, 'Card on air', lot);
    const without = { ...asked, loopId: own.loopId, kind: 'part-conversion' };
    expect(errorOf(await desk.post(`/systems/${own.systemId}/jobs`, { ...without, partId: 'reservoir' })).fields?.[0]).toMatchObject({ path: 'partId', message: expect.stringContaining('is the reservoir') }); // prettier-ignore
    const job = await booked(desk, own, 'part-conversion', { partId: 'graphics' });
    const { change } = (await desk.get<JobPage>(`/jobs/${job.id}`)).body;
    expect(change?.work.out.map(({ id }) => id)).toEqual(['graphics']);
    expect((await loopNow(own)).file.components.map(({ id }) => id)).toContain('graphics');
  });

  it('is not known inside any more where somebody changed it without a run, and is where only its drawing was put right', async () => {
    const own = await commissioned(bench, desk, 'Changed at home', lot);
    const { file, inside } = await loopNow(own);
    const right = { ...file, components: file.components.map((part) => (part.id === 'graphics' ? { ...part, label: 'the card' } : part)) };
    await save(own, 'as-built', right);
    expect((await loopNow(own)).inside).toMatchObject({ by: 'book', volume: inside.volume });
    await save(own, 'change', another(right));
    expect((await loopNow(own)).inside.by).toBe('nobody');
  });

  it('is built into a machine that had another cooler: that is measured, and off, before anything is built', async () => {
    const systemId = await desk.system('Had a sealed one');
    const loop = await desk.loop(systemId, lot.productId);
    const job = (await desk.post<{ id: string; version: number }>(`/systems/${systemId}/jobs`, { ...asked, loopId: loop.id, kind: 'into-loop', partId: null })).body; // prettier-ignore
    await desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'go on', version: job.version });
    const { run } = (await desk.post<{ run: { procedure: Procedure } }>(`/jobs/${job.id}/start`, { benchId: null, schools })).body;
    expect(run.procedure.steps.slice(0, 4).map(({ id }) => id)).toEqual(['kit', 'before', 'off', 'old-cooler']);
    expect(run.procedure.service).toBeUndefined();
  });
});
