import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FirstWeekAnswer } from '../../../core/workshop/first-week/firstWeek.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('New');
});
afterAll(() => bench.close());

const week = async (): Promise<FirstWeekAnswer> => (await lead.get<FirstWeekAnswer>('/first-week')).body;
const missing = ({ steps }: FirstWeekAnswer): string[] => steps.flatMap(({ step, state }) => (state === 'missing' ? [step] : []));

describe('a new workshop', () => {
  it('is asked for what it lacks, until it is there or needs nothing', async () => {
    expect(missing(await week())).toEqual(['benches', 'people', 'hours', 'coolants', 'machines', 'address', 'prices']);
    await lead.post('/benches', { name: 'Window bench' });
    await lead.coolant();
    await lead.system('Tower');
    expect(missing(await week())).toEqual(['people', 'hours', 'address', 'prices']);
    const after = await lead.put<FirstWeekAnswer>('/first-week', { passed: ['people', 'prices'] });
    expect(missing(after.body)).toEqual(['hours', 'address']);
    expect(errorOf(await lead.put('/first-week', { passed: ['holidays'] })).path).toBe('passed[0]');
    expect((await (await lead.colleague('technician')).put('/first-week', { passed: [] })).status).toBe(403);
  });

  it('gets a sample that counts as no machine of its own, and takes it back', async () => {
    const { body } = await lead.post<FirstWeekAnswer>('/first-week/sample', {});
    expect(body.so.machines).toBe(1);
    const sample = body.sample as NonNullable<FirstWeekAnswer['sample']>;
    const page = await lead.get<{ loops: { revision: { file: { components: object[] } } }[] }>(`/systems/${sample.systemId}`);
    expect(page.body.loops[0]?.revision.file.components.length).toBeGreaterThan(4);
    expect((await lead.post('/first-week/sample', {})).status).toBe(409);
    expect((await lead.post(`/imports/${sample.importId}/undo`, {})).status).toBe(201);
    expect((await lead.get(`/systems/${sample.systemId}`)).status).toBe(404);
    expect((await week()).sample).toBeNull();
  });

  it('keeps a sample that somebody led a run on, and says so', async () => {
    const { body } = await lead.post<FirstWeekAnswer>('/first-week/sample', {});
    const { systemId, importId } = body.sample as NonNullable<FirstWeekAnswer['sample']>;
    const page = await lead.get<{ loops: { id: string }[] }>(`/systems/${systemId}`);
    expect((await lead.run(page.body.loops[0]?.id ?? '', { leak: 'wet-only' })).status).toBe(201);
    expect((await lead.post<{ kept: string[] }>(`/imports/${importId}/undo`, {})).body.kept).toEqual(['Sample tower (Nobody (a sample))']);
    expect((await lead.get(`/systems/${systemId}`)).status).toBe(200);
  });
});
