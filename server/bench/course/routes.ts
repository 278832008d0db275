import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { findLesson, LESSON_KEYS, type CourseAnswer } from '../../../core/bench/course/course.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { beginLesson, readCourse } from './course.js';

export function courseRoutes(routes: Routes): void {
  routes.get<CourseAnswer>('/course', readCourse);
  routes.post<RunAnswer>('/course/:lesson', (ask) => {
    const lesson = findLesson(String(ask.request.params.lesson));
    if (!lesson) throw notFound(`lesson; there are ${LESSON_KEYS.join(', ')}`);
    return beginLesson(ask, lesson);
  });
}
