// @vitest-environment happy-dom
import { courseOf, LESSONS, type CourseAnswer, type LessonResult } from '@core/bench/course/course.js';
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import CourseView from '../../pages/CourseView.vue';

const result = (lesson: LessonResult['lesson'], missed = 0): LessonResult => ({ lesson, at: '2026-03-10T09:00:00Z', noticed: 1, missed, harmed: 0, tookS: 600 }); // prettier-ignore
const serve = (results: LessonResult[], people: CourseAnswer['people'] = []) =>
  fakeServer(({ method }) => ({
    status: 200,
    body: method === 'GET' ? { lessons: LESSONS, own: courseOf('p', 'Tess', results), people } : { run: { id: 'r1' } },
  }));
async function course(): Promise<ReturnType<typeof mountScreen>> {
  const screen = mountScreen(CourseView);
  await settle();
  return screen;
}

describe('the course', () => {
  it('begins with the first lesson, and one touch begins it with its bench alive', async () => {
    const asked = serve([]);
    const screen = await course();
    expect(wordsOf(screen)).toContain(`0 of ${LESSONS.length} lessons done`);
    expect(wordsOf(screen.find('.next') as never)).toContain('A first fill');
    await screen.find('.next button').trigger('click');
    await settle();
    const posts = asked.filter(({ method }) => method === 'POST').map(({ path }) => path);
    expect(posts).toEqual(['/course/first-fill', '/runs/r1/simulated-bench']);
  });

  it('says why a lesson comes again, and in how many', async () => {
    serve([result('first-fill', 1), result('air-tells')]);
    const screen = await course();
    expect(wordsOf(screen.find('.next') as never)).toMatch(/A first fill .* something went unnoticed: it comes again/);
    const tile = (title: string) => wordsOf(screen.findAll('.lesson').find((each) => each.text().includes(title)) as never);
    expect(tile('A first fill')).toContain('comes again now');
    expect(tile('Air tells first')).toContain('done');
    expect(tile('Air that stays')).toContain('not taken yet');
  });

  it('shows a lead everybody, drawn to one scale', async () => {
    serve([], [courseOf('p', 'Tess', [result('kink')]), courseOf('q', 'Rui', [result('kink', 2)])]);
    const screen = await course();
    const bars = screen.findAll('.people .counts').map((each) => each.attributes('aria-label'));
    expect(bars).toEqual(['1 noticed, 0 missed, 0 harmed', '1 noticed, 2 missed, 0 harmed']);
  });
});
