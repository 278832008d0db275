import type { ConditionPage } from '../../../core/workshop/logs/answers.js';
import {
  confirmedSchema,
  keptSettingSchema,
  levelSchema,
  markSchema,
  type ConfirmedInput,
  type KeptSettingInput,
  type LevelInput,
  type MarkInput,
} from '../../../core/workshop/marks/schema.js';
import { strikeSchema } from '../../../core/workshop/usage/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { addLevel, addMark, confirmCause, keepSetting, strikeCause, strikeLevel, strikeMark } from './marks.js';

/** What was done to parts between services, and what was found to be the matter. */
export function markRoutes(routes: Routes): void {
  routes.post('/systems/:id/marks', (ask) => addMark(ask, bodyAs<MarkInput>(ask.request, markSchema)));
  routes.put('/machine-marks/:id', (ask) => strikeMark(ask, bodyAs<{ struck: boolean }>(ask.request, strikeSchema).struck));
  routes.post('/systems/:id/levels', (ask) => addLevel(ask, bodyAs<LevelInput>(ask.request, levelSchema)));
  routes.put('/level-readings/:id', (ask) => strikeLevel(ask, bodyAs<{ struck: boolean }>(ask.request, strikeSchema).struck));
  routes.put<ConditionPage>('/systems/:id/kept-setting', (ask) =>
    keepSetting(ask, bodyAs<KeptSettingInput>(ask.request, keptSettingSchema)),
  );
  routes.post<ConditionPage>('/systems/:id/causes', (ask) => confirmCause(ask, bodyAs<ConfirmedInput>(ask.request, confirmedSchema)));
  routes.put('/confirmed-causes/:id', (ask) => strikeCause(ask, bodyAs<{ struck: boolean }>(ask.request, strikeSchema).struck));
}
