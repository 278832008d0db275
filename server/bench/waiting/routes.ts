import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { resumeSchema, waitSchema, type ResumeInput, type WaitInput } from '../../../core/bench/runs/waitingSchema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { goOn, leaveToWait } from './wait.js';

export function waitingRoutes(routes: Routes): void {
  routes.post<RunAnswer>('/runs/:id/wait', (ask) => leaveToWait(ask, bodyAs<WaitInput>(ask.request, waitSchema)));
  routes.post<RunAnswer>('/runs/:id/go-on', (ask) => goOn(ask, bodyAs<ResumeInput>(ask.request, resumeSchema)));
}
