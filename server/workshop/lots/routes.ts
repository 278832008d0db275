import { fittedPartSchema, type FittedPartInput } from '../../../core/workshop/lots/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { addFitted, askMates, takeFitted } from './lots.js';

export function lotRoutes(routes: Routes): void {
  routes.post('/systems/:id/lots', (ask) => addFitted(ask, bodyAs<FittedPartInput>(ask.request, fittedPartSchema)));
  routes.delete('/lots/:id', takeFitted);
  routes.get('/jobs/:id/mates', askMates);
}
