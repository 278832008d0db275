import { passedSchema, type FirstWeekAnswer, type FirstWeekPassed } from '../../../core/workshop/first-week/firstWeek.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { readFirstWeek, setPassed } from './firstWeek.js';
import { addSample } from './sample.js';

export function firstWeekRoutes(routes: Routes): void {
  routes.get<FirstWeekAnswer>('/first-week', readFirstWeek);
  routes.put<FirstWeekAnswer>('/first-week', (ask) => setPassed(ask, bodyAs<FirstWeekPassed>(ask.request, passedSchema)));
  routes.post<FirstWeekAnswer>('/first-week/sample', addSample);
}
