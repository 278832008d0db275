import { simulateSchema, skipSchema, type SimulateInput } from '../../../core/bench/practice/schema.js';
import { bodyAs, idFrom } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { findLesson, LESSON_KEYS, type CourseAnswer } from '../../../core/bench/practice/course.js';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { notFound } from '../../base/http/errors.js';
import { beginLesson, readCourse } from './course.js';
import { endPractice, simulateBench, skipTime } from './practice.js';

export function practiceRoutes(routes: Routes): void {
  const runId = (ask: Parameters<typeof endPractice>[0]): string => idFrom(ask.request, 'id', 'run');
  routes.post('/runs/:id/simulated-bench', (ask) => simulateBench(ask, runId(ask), bodyAs<SimulateInput>(ask.request, simulateSchema)));
  routes.post('/runs/:id/skip', (ask) => skipTime(ask, runId(ask), bodyAs<{ seconds: number }>(ask.request, skipSchema).seconds));
  routes.get<CourseAnswer>('/course', readCourse);
  routes.post<RunAnswer>('/course/:lesson', (ask) => {
    const lesson = findLesson(String(ask.request.params.lesson));
    if (!lesson) throw notFound(`lesson; there are ${LESSON_KEYS.join(', ')}`);
    return beginLesson(ask, lesson);
  });
  routes.post('/runs/:id/debrief', (ask) => endPractice(ask, runId(ask)));
}
