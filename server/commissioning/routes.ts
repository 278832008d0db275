import Joi from 'joi';
import { check } from '../../core/checking/check.js';
import { readRunEvent } from '../../core/commissioning/eventSchema.js';
import { runCreateSchema, signOffSchema, type RunCreate, type SignOffInput } from '../../core/commissioning/schema.js';
import { templateCreateSchema, type TemplateCreate } from '../../core/commissioning/templateSchema.js';
import { bodyAs, idFrom } from '../http/context.js';
import type { Routes } from '../http/routes.js';
import { append, loadEvents } from './append.js';
import { abandonRun, readRecord, readRun, startRun } from './runs.js';
import { addProcedure, listProcedures } from './procedures.js';
import { signOff } from './signOff.js';

const afterSchema = Joi.object({ after: Joi.string().pattern(/^\d{1,9}$/, 'a number') });
const abandonSchema = Joi.object({ reason: Joi.string().trim().min(3).max(1000).required() });

/** Entries that a screen has already: it asks for those behind them. */
function afterOf(query: unknown): number {
  const { after } = check<{ after?: string }>(afterSchema, query);
  return Number(after ?? '0');
}

export function runRoutes(routes: Routes): void {
  routes.get('/procedures', listProcedures);
  routes.post('/procedures', (ask) => addProcedure(ask, bodyAs<TemplateCreate>(ask.request, templateCreateSchema)));
  routes.post('/runs', (ask) => startRun(ask, bodyAs<RunCreate>(ask.request, runCreateSchema)));
  routes.get('/runs/:id', (ask) => readRun(ask, idFrom(ask.request, 'id', 'run')));
  routes.get('/runs/:id/events', async (ask) => ({
    events: await loadEvents(ask.scope, idFrom(ask.request, 'id', 'run'), afterOf(ask.request.query)),
  }));
  routes.post('/runs/:id/events', (ask) => append(ask, idFrom(ask.request, 'id', 'run'), readRunEvent(ask.request.body)));
  routes.post('/runs/:id/sign-off', (ask) => signOff(ask, bodyAs<SignOffInput>(ask.request, signOffSchema)));
  routes.post('/runs/:id/abandon', (ask) => abandonRun(ask, bodyAs<{ reason: string }>(ask.request, abandonSchema).reason));
  routes.get('/runs/:id/record', readRecord);
}
