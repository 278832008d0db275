import { simulateSchema, skipSchema, type SimulateInput } from '../../../core/bench/practice/schema.js';
import { bodyAs, idFrom } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { endPractice, simulateBench, skipTime } from './practice.js';

export function practiceRoutes(routes: Routes): void {
  const runId = (ask: Parameters<typeof endPractice>[0]): string => idFrom(ask.request, 'id', 'run');
  routes.post('/runs/:id/simulated-bench', (ask) => simulateBench(ask, runId(ask), bodyAs<SimulateInput>(ask.request, simulateSchema)));
  routes.post('/runs/:id/skip', (ask) => skipTime(ask, runId(ask), bodyAs<{ seconds: number }>(ask.request, skipSchema).seconds));
  routes.post('/runs/:id/debrief', (ask) => endPractice(ask, runId(ask)));
}
