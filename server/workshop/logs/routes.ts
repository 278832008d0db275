import { handReadingSchema, logSchema, type HandReadingInput, type LogInput } from '../../../core/workshop/logs/schema.js';
import { strikeSchema } from '../../../core/workshop/usage/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { conditionPage } from '../../machine/condition/condition.js';
import { addLoadReading, keepLog, strikeLoadReading } from './logs.js';

export function logRoutes(routes: Routes): void {
  routes.get('/systems/:id/condition', conditionPage);
  routes.post('/systems/:id/logs', (ask) => keepLog(ask, bodyAs<LogInput>(ask.request, logSchema)));
  routes.post('/systems/:id/readings', (ask) => addLoadReading(ask, bodyAs<HandReadingInput>(ask.request, handReadingSchema)));
  routes.put('/load-readings/:id', (ask) => strikeLoadReading(ask, bodyAs<{ struck: boolean }>(ask.request, strikeSchema).struck));
}
