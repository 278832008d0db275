import type { HistoryPiece, Owner, SystemPage, SystemRow, SystemsAnswer } from '../../../core/workshop/machines/answers.js';
import {
  ownerEditSchema,
  ownerSchema,
  ownersQuerySchema,
  serviceSchema,
  systemEditSchema,
  systemSchema,
  type OwnerInput,
  type ServiceInput,
  type SystemEdit,
  type SystemInput,
} from '../../../core/workshop/machines/schema.js';
import { linesQuerySchema, type LinesQuery } from '../../../core/workshop/machine-list/linesQuery.js';
import { readInput } from '../../../core/base/checking/input.js';
import { historyQuerySchema, type HistoryQuery } from '../../../core/workshop/machines/historyQuery.js';
import { bodyAs, idFrom } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import type { CallMachine } from '../../../core/workshop/calls/answers.js';
import { answersFor } from '../calls/calls.js';
import { openJobsOf } from '../jobs/jobs.js';
import { earlyIn } from '../lots/earlyLots.js';
import { lotsOf } from '../lots/lots.js';
import { loanOf } from '../store/loans.js';
import { addOwner, editOwner, listOwners } from './owners.js';
import { systemHistory } from './history.js';
import { linesPage } from '../machine-list/lines.js';
import { recordService } from './services.js';
import { addSystem, editSystem, readSystem } from './systems.js';

export function systemRoutes(routes: Routes): void {
  routes.get<{ owners: Owner[] }>('/owners', (ask) => listOwners(ask, readInput<{ q: string }>(ownersQuerySchema, ask.request.query).q));
  routes.post<Owner>('/owners', (ask) => addOwner(ask, bodyAs<OwnerInput>(ask.request, ownerSchema)));
  routes.put<Owner>('/owners/:id', (ask) => editOwner(ask, bodyAs<OwnerInput & { version: number }>(ask.request, ownerEditSchema)));

  routes.get<SystemsAnswer>('/systems', (ask) => linesPage(ask, readInput<LinesQuery>(linesQuerySchema, ask.request.query)));
  routes.post<SystemRow>('/systems', (ask) => addSystem(ask, bodyAs<SystemInput>(ask.request, systemSchema)));
  routes.get<SystemPage>('/systems/:id', async (ask) => {
    const page = await readSystem(ask);
    return {
      ...page,
      answers: (await answersFor(ask, page)) as CallMachine,
      today: ask.today,
      jobs: await openJobsOf(ask, page.system.id),
      lots: await lotsOf(ask.scope, page.system.id),
      earlyLots: await earlyIn(ask.scope, page.system.id),
      loan: await loanOf(ask.scope, page.system.id),
    };
  });
  routes.get<HistoryPiece>('/systems/:id/history', (ask) =>
    systemHistory(ask, idFrom(ask.request, 'id', 'system'), readInput<HistoryQuery>(historyQuerySchema, ask.request.query).before ?? null),
  );
  routes.put<SystemRow>('/systems/:id', (ask) => editSystem(ask, bodyAs<SystemEdit>(ask.request, systemEditSchema)));
  routes.post('/systems/:id/services', (ask) => recordService(ask, bodyAs<ServiceInput>(ask.request, serviceSchema)));
}
