import type { JobPage } from '../../../core/workshop/jobs/answers.js';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import {
  askScopeSchema,
  jobStartSchema,
  rescopeSchema,
  type AskScopeInput,
  type JobStart,
  type RescopeInput,
} from '../../../core/workshop/jobs/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { bypassSchema, type BypassInput } from '../../../core/bench/services/bypassSchema.js';
import { bypass } from './bypass.js';
import { relaidSchema, type RelaidInput } from '../../../core/bench/services/relaidSchema.js';
import { rebuilt } from './rebuilt.js';
import { relaid } from './relaid.js';
import { askScope, takeScopeBack } from './askedScope.js';
import { rescope, startJob } from './start.js';

export function serviceRoutes(routes: Routes): void {
  routes.post<RunAnswer>('/jobs/:id/start', (ask) => startJob(ask, bodyAs<JobStart>(ask.request, jobStartSchema)));
  routes.post<JobPage>('/runs/:id/asked-scope', (ask) => askScope(ask, bodyAs<AskScopeInput>(ask.request, askScopeSchema)));
  routes.delete<JobPage>('/runs/:id/asked-scope', takeScopeBack);
  routes.post<RunAnswer>('/runs/:id/rescope', (ask) => rescope(ask, bodyAs<RescopeInput>(ask.request, rescopeSchema)));
  routes.post<RunAnswer>('/runs/:id/rebuilt', rebuilt);
  routes.post<RunAnswer>('/runs/:id/relaid', (ask) => relaid(ask, bodyAs<RelaidInput>(ask.request, relaidSchema)));
  routes.post<RunAnswer>('/runs/:id/bypass', (ask) => bypass(ask, bodyAs<BypassInput>(ask.request, bypassSchema)));
}
