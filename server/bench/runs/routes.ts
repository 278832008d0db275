import type { BenchesAnswer, LoopOnBench, RunAnswer } from '../../../core/bench/benches/answers.js';
import type { ProceduresAnswer } from '../../../core/bench/procedures/answers.js';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import type { RecordAnswer } from '../../../core/edge/records/answers.js';
import { readRunEvent } from '../../../core/bench/runs/log.js';
import { templateCreateSchema, type TemplateCreate } from '../../../core/bench/procedures/templateSchema.js';
import Joi from 'joi';
import { readInput } from '../../../core/base/checking/input.js';
import { bodyAs, idFrom } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { append } from './append.js';
import { benchesNow, loopsOnBenches } from './benches.js';
import { loadEvents } from './folds.js';
import { readRecord, readRun } from './runs.js';
import { askFor } from './kitLearned.js';
import { addProcedure, listProcedures } from './procedures.js';

const afterSchema = Joi.object({ after: Joi.string().pattern(/^\d{1,9}$/, 'a number') });

/** Entries that a screen has already: it asks for those behind them. */
function afterOf(query: unknown): number {
  const { after } = readInput<{ after?: string }>(afterSchema, query);
  return Number(after ?? '0');
}

export function runRoutes(routes: Routes): void {
  routes.get<BenchesAnswer>('/benches', benchesNow);
  routes.get<{ loops: LoopOnBench[] }>('/benches/loops', async (ask) => ({ loops: await loopsOnBenches(ask) }));
  routes.get<ProceduresAnswer>('/procedures', listProcedures);
  routes.delete('/kit-learned/:id', (ask) => askFor(ask, false));
  routes.post('/kit-learned/:id/back', (ask) => askFor(ask, true));
  routes.post<ProceduresAnswer>('/procedures', (ask) => addProcedure(ask, bodyAs<TemplateCreate>(ask.request, templateCreateSchema)));
  routes.get<RunAnswer>('/runs/:id', (ask) => readRun(ask, idFrom(ask.request, 'id', 'run')));
  routes.get<{ events: RunEvent[] }>('/runs/:id/events', async (ask) => ({
    events: await loadEvents(ask.scope, idFrom(ask.request, 'id', 'run'), afterOf(ask.request.query) + 1),
  }));
  routes.post('/runs/:id/events', (ask) => append(ask, idFrom(ask.request, 'id', 'run'), readRunEvent(ask.request.body)));
  routes.get<RecordAnswer>('/runs/:id/record', readRecord);
}
