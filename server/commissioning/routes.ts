import Joi from 'joi';
import { readRunEvent } from '../../core/commissioning/eventSchema.js';
import { runCreateSchema, signOffSchema, type RunCreate, type SignOffInput } from '../../core/commissioning/schema.js';
import { templateCreateSchema, type TemplateCreate } from '../../core/commissioning/templateSchema.js';
import { bodyAs, idFrom } from '../http/context.js';
import type { Routes } from '../http/routes.js';
import { abandonRun, appendEvent, readRecord, readRun, startRun } from './runs.js';
import { addProcedure, listProcedures } from './procedures.js';
import { signOff } from './signOff.js';

const abandonSchema = Joi.object({ reason: Joi.string().trim().min(3).max(1000).required() });

export function runRoutes(routes: Routes): void {
  routes.get('/procedures', listProcedures);
  routes.post('/procedures', (ask) => addProcedure(ask, bodyAs<TemplateCreate>(ask.request, templateCreateSchema)));
  routes.post('/runs', (ask) => startRun(ask, bodyAs<RunCreate>(ask.request, runCreateSchema)));
  routes.get('/runs/:id', (ask) => readRun(ask, idFrom(ask.request, 'id', 'run')));
  routes.post('/runs/:id/events', (ask) => appendEvent(ask, readRunEvent(ask.request.body)));
  routes.post('/runs/:id/sign-off', (ask) => signOff(ask, bodyAs<SignOffInput>(ask.request, signOffSchema)));
  routes.post('/runs/:id/abandon', (ask) => abandonRun(ask, bodyAs<{ reason: string }>(ask.request, abandonSchema).reason));
  routes.get('/runs/:id/record', readRecord);
}
