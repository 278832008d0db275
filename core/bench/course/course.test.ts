import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loopFindings } from '../../machine/build-checks/loopFindings.js';
import { isSeriesLoop } from '../../machine/loop-file/chain.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { cannotSimulate } from '../simulated-bench/bench.js';
import { drawTruth, scenariosFor } from '../simulated-bench/truth.js';
import {
  courseOf,
  isAttempt,
  LESSON_KEYS,
  wentWell,
  LESSONS,
  lessonLoop,
  nextLesson,
  standingOf,
  type LessonKey,
  type LessonResult,
} from './course.js';

const result = (lesson: LessonKey, more: Partial<LessonResult> = {}): LessonResult => ({
  lesson,
  at: '2026-03-10T09:00:00Z',
  noticed: 1,
  missed: 0,
  harmed: 0,
  tookS: 600,
  ...more,
});
const wrong = (lesson: LessonKey): LessonResult => result(lesson, { missed: 1 });
/** Takes lessons as they come. @returns the keys in their order */
function taken(count: number, goesWell: (key: LessonKey, nth: number) => boolean): LessonKey[] {
  const results: LessonResult[] = [];
  for (let n = 0; n < count; n += 1) {
    const next = nextLesson(results);
    if (next === null) break;
    results.push(goesWell(next, n) ? result(next) : wrong(next));
  }
  return results.map(({ lesson }) => lesson);
}

describe('the loops of the course', () => {
  it('are ones that a simulated bench can play and a workshop could build, and differ from seed to seed', () => {
    for (const lesson of LESSONS) {
      const loops = Array.from({ length: 8 }, (_, seed) => lessonLoop(lesson, seed));
      for (const loop of loops) {
        expect(() => readLoopFile(loop), lesson.key).not.toThrow();
        expect(isSeriesLoop(loop)).toBe(true);
        expect(cannotSimulate(loop), lesson.key).toBeNull();
        expect(scenariosFor(lesson.job ?? null), lesson.key).toContain(lesson.scenario);
        expect(loopFindings(loop).filter(({ weight }) => weight === 'stop'), lesson.key).toEqual([]); // prettier-ignore
        if (lesson.scenario !== 'surprise') expect(drawTruth(loop, 3, lesson.scenario, lesson.job ?? null).scenario).toBe(lesson.scenario);
      }
      expect(new Set(loops.map((loop) => JSON.stringify(loop))).size, lesson.key).toBeGreaterThan(1);
      expect(lessonLoop(lesson, 5)).toEqual(lessonLoop(lesson, 5));
    }
  });
});

describe('the order of lessons', () => {
  it('goes once through all of them where everything goes well, from the first grade to the last', () => {
    expect(taken(99, () => true)).toEqual(LESSON_KEYS);
    const grades = LESSONS.map(({ grade }) => grade);
    expect(grades).toEqual([...grades].sort());
  });

  it('brings back what went wrong behind the next one, later again, and then lets it be', () => {
    const order = taken(99, (key, nth) => !(key === 'first-fill' && nth === 0));
    const at = order.flatMap((key, index) => (key === 'first-fill' ? [index] : []));
    expect(at).toEqual([0, 2, 6, 13]);
    expect(order).toHaveLength(LESSON_KEYS.length + 3);
  });

  it('ends for everybody who learns, and never for somebody to whom all goes wrong', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 20, maxLength: 20 }), (luck) => {
        const order = taken(200, (_key, nth) => luck[nth] ?? true);
        expect(new Set(order)).toEqual(new Set(LESSON_KEYS));
        expect(order.length).toBeLessThan(200);
      }),
    );
    expect(taken(60, () => false)).toHaveLength(60);
  });
});

describe('where somebody stands', () => {
  it('is new, to be done again in so many lessons, or done', () => {
    expect(standingOf('kink', []).state).toBe('new');
    expect(standingOf('kink', [wrong('kink')])).toMatchObject({ state: 'again', inLessons: 1 });
    expect(standingOf('kink', [wrong('kink'), result('ring')])).toMatchObject({ state: 'again', inLessons: 0 });
    expect(standingOf('kink', [wrong('kink'), result('kink')])).toMatchObject({ state: 'again', inLessons: 3 });
    expect(standingOf('kink', [result('kink')])).toMatchObject({ state: 'done', inLessons: null });
  });

  it('is not better for a lesson that was ended before anything was done', () => {
    expect(isAttempt(result('kink', { noticed: 0 }))).toBe(false);
    expect(wentWell(result('kink', { noticed: 0 }))).toBe(false);
  });

  it('counts what was noticed, missed and harmed', () => {
    const own = courseOf('p', 'Tess', [result('kink', { noticed: 2, harmed: 1 }), wrong('ring')]);
    expect(own).toMatchObject({ attempts: 2, noticed: 3, missed: 1, harmed: 1, next: 'kink' });
  });
});
