import type { FittedLot, MatesAnswer } from '../../../core/workshop/lots/answers.js';
import { fittedPartSchema, type FittedPartInput } from '../../../core/workshop/lots/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { addFitted, askMates, takeFitted } from './lots.js';

export function lotRoutes(routes: Routes): void {
  routes.post<{ lots: FittedLot[] }>('/systems/:id/lots', (ask) => addFitted(ask, bodyAs<FittedPartInput>(ask.request, fittedPartSchema)));
  routes.delete('/lots/:id', takeFitted);
  routes.get<MatesAnswer>('/jobs/:id/mates', askMates);
}
