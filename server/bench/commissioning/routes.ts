import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { runCreateSchema, type RunCreate } from '../../../core/bench/commissioning/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { startRun } from './start.js';

export function commissioningRoutes(routes: Routes): void {
  routes.post<RunAnswer>('/runs', (ask) => startRun(ask, bodyAs<RunCreate>(ask.request, runCreateSchema)));
}
