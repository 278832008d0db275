import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { runCreateSchema, unitTestCreateSchema, type RunCreate, type UnitTestCreate } from '../../../core/bench/commissioning/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { startRun } from './start.js';
import { startUnitTest } from './unit.js';

export function commissioningRoutes(routes: Routes): void {
  routes.post<RunAnswer>('/runs', (ask) => startRun(ask, bodyAs<RunCreate>(ask.request, runCreateSchema)));
  routes.post<RunAnswer>('/loops/:id/unit-tests', (ask) => startUnitTest(ask, bodyAs<UnitTestCreate>(ask.request, unitTestCreateSchema)));
}
