import type { LoopAnswer } from '../../../core/workshop/machines/answers.js';
import {
  loopCreateSchema,
  loopPartSchema,
  revisionSchema,
  type LoopCreate,
  type LoopPart,
  type RevisionCreate,
} from '../../../core/machine/loop-file/schema.js';
import { bodyAs, idFrom } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { cameFilledSchema, type CameFilledInput } from '../../../core/machine/loop-file/cameFilled.js';
import { cameFilled, neverFilled } from './cameFilled.js';
import { fanStacksSchema } from '../../../core/machine/shop-sums/fanStacksSchema.js';
import type { FanStacks } from '../../../core/machine/shop-sums/fanScrews.js';
import { keepSaid } from './said.js';
import { heatSetupSchema } from '../../../core/physics/heat/setupSchema.js';
import type { HeatSetup } from '../../../core/physics/heat/setup.js';
import { partLoop } from './circuits.js';
import { ringsOf } from './rings.js';
import { createLoop, loadLoop, loadRevision, reviseLoop } from './revisions.js';

export function loopRoutes(routes: Routes): void {
  routes.post<LoopAnswer>('/loops', (ask) => createLoop(ask, bodyAs<LoopCreate>(ask.request, loopCreateSchema)));
  routes.get<LoopAnswer>('/loops/:id', (ask) => loadLoop(ask.scope, idFrom(ask.request, 'id', 'loop')));
  routes.post<LoopAnswer>('/loops/:id/revisions', (ask) => reviseLoop(ask, bodyAs<RevisionCreate>(ask.request, revisionSchema)));
  routes.post<LoopAnswer>('/loops/:id/part', (ask) => partLoop(ask, bodyAs<LoopPart>(ask.request, loopPartSchema)));
  routes.post<{ dueOn: string }>('/loops/:id/came-filled', (ask) =>
    cameFilled(ask, bodyAs<CameFilledInput>(ask.request, cameFilledSchema)),
  );
  routes.delete('/loops/:id/came-filled', neverFilled);
  routes.put<{ kept: boolean }>('/loops/:id/fan-stacks', (ask) =>
    keepSaid(ask, { fanStacks: bodyAs<{ stacks: FanStacks }>(ask.request, fanStacksSchema).stacks }),
  );
  routes.put<{ kept: boolean }>('/loops/:id/heat-setup', (ask) =>
    keepSaid(ask, { heatSetup: bodyAs<HeatSetup>(ask.request, heatSetupSchema) }),
  );
  routes.get('/loops/:id/rings', ringsOf);
  /** the loop file alone, as the contract has it */
  routes.get('/loops/:id/revisions/:number/file', async (ask) => {
    const number = Number(ask.request.params.number);
    if (!Number.isInteger(number) || number < 1 || number > 100_000) throw notFound('loop revision');
    return (await loadRevision(ask.scope, idFrom(ask.request, 'id', 'loop'), number)).file;
  });
}
