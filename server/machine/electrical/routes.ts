import { sheetSchema, type SheetInput } from '../../../core/machine/electrical/schema.js';
import type { ConnectorsAnswer } from '../../../core/workshop/machines/answers.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { keepConnectors, connectorsPage } from './connectors.js';

export function electricalRoutes(routes: Routes): void {
  routes.get<ConnectorsAnswer>('/systems/:id/connectors', connectorsPage);
  routes.put<ConnectorsAnswer>('/systems/:id/connectors', (ask) => keepConnectors(ask, bodyAs<SheetInput>(ask.request, sheetSchema)));
}
