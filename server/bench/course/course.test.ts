import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import type { CourseAnswer } from '../../../core/bench/course/course.js';
import type { Debrief } from '../../../core/bench/practice/debrief.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('School');
});
afterAll(() => bench.close());

const course = async (who: Visitor = lead): Promise<CourseAnswer> => (await who.get<CourseAnswer>('/course')).body;
const begin = (lesson: string, who: Visitor = lead) => who.post<RunAnswer>(`/course/${lesson}`, {});
const debriefed = (kinds: Debrief['lines'][number]['kind'][]): Debrief => ({
  hidden: [],
  lines: kinds.map((kind) => ({ kind, text: kind, at: null })),
  ranDryS: 0,
  lostMl: 0,
  tookS: 900,
  savedS: 0,
});
/** The end of a lesson as its debrief leaves it. */
const ended = (runId: string, debrief: Debrief) =>
  bench.pool.query('update practice set debrief = $2, ended_at = now() where run_id = $1', [runId, JSON.stringify(debrief)]);

describe('the course', () => {
  it('begins with its first lesson, on a loop of its own, at a practice table, with the fault hidden', async () => {
    expect((await course()).own).toMatchObject({ attempts: 0, next: 'first-fill' });
    const { status, body } = await begin('first-fill');
    expect(status).toBe(201);
    expect(body.run.jobId).toBeNull();
    expect(body.practice).toMatchObject({ lesson: 'first-fill', scenario: null, debrief: null });
    expect(body.benchName).toMatch(/^Practice table/);
    const other = await begin('first-fill');
    expect(JSON.stringify(other.body.file.components)).not.toBe('');
    expect(other.body.run.loopId).not.toBe(body.run.loopId);
    expect((await begin('no-such-lesson')).status).toBe(404);
  });

  it('finds a table whatever benches are called', async () => {
    const other = await bench.workshop('Named alike');
    expect((await other.post('/benches', { name: 'Practice table 1' })).status).toBe(201);
    expect((await begin('first-fill', other)).body.benchName).toBe('Practice table 2');
  });

  it('stands in no list of machines or owners, and no search finds it', async () => {
    await begin('first-fill');
    const { systems } = (await lead.get<{ systems: { name: string }[] }>('/systems')).body;
    const { owners } = (await lead.get<{ owners: { name: string }[] }>('/owners')).body;
    expect([...systems, ...owners].map(({ name }) => name)).not.toContain('The course');
    expect(JSON.stringify((await lead.get('/search?q=course')).body)).not.toContain('The course');
  });

  it('remembers what each person noticed, missed and harmed, and brings back what went wrong', async () => {
    const { run } = (await begin('first-fill')).body;
    await ended(run.id, debriefed(['good', 'harm']));
    const { own, people } = await course();
    expect(own).toMatchObject({ attempts: 1, noticed: 1, harmed: 1, missed: 0, next: 'air-tells' });
    expect(own.standings[0]).toMatchObject({ lesson: 'first-fill', state: 'again', inLessons: 1 });
    expect(people.find(({ personId }) => personId === own.personId)).toEqual(own);
    // ended at once: no attempt
    await ended((await begin('air-tells')).body.run.id, debriefed([]));
    expect((await course()).own.attempts).toBe(1);
    await ended((await begin('air-tells')).body.run.id, debriefed(['good']));
    expect((await course()).own.next).toBe('first-fill');
  });

  it('is each person’s own, and shown whole to a lead alone', async () => {
    const other = await bench.workshop('Elsewhere');
    expect((await course(other)).own.attempts).toBe(0);
    expect((await course(other)).people).toHaveLength(1);
  });
});
