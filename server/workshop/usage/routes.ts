import { strikeSchema, usageReadingSchema, type UsageReadingInput } from '../../../core/workshop/usage/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { addReading, strikeReading } from './usage.js';

export function usageRoutes(routes: Routes): void {
  routes.post('/systems/:id/usage', (ask) => addReading(ask, bodyAs<UsageReadingInput>(ask.request, usageReadingSchema)));
  routes.put('/usage-readings/:id', (ask) => strikeReading(ask, bodyAs<{ struck: boolean }>(ask.request, strikeSchema).struck));
}
