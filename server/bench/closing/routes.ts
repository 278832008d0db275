import Joi from 'joi';
import { signOffSchema, type SignOffInput } from '../../../core/bench/commissioning/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { abandonRun } from './abandon.js';
import { signOff } from './signOff.js';

const abandonSchema = Joi.object({ reason: Joi.string().trim().min(3).max(1000).required() });

export function closingRoutes(routes: Routes): void {
  routes.post('/runs/:id/sign-off', (ask) => signOff(ask, bodyAs<SignOffInput>(ask.request, signOffSchema)));
  routes.post('/runs/:id/abandon', (ask) => abandonRun(ask, bodyAs<{ reason: string }>(ask.request, abandonSchema).reason));
}
