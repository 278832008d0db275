import type { TodayAnswer } from '../../../core/workshop/machines/answers.js';
import { addDays } from '../../../core/base/units/calendar.js';
import type { Routes } from '../../base/http/routes.js';
import { comingIn, readyToFetch } from '../jobs/comings.js';
import { systemLines } from '../machines/systems.js';

/** Days ahead that the Today screen looks. */
const HORIZON_DAYS = 45;

export function todayRoutes(routes: Routes): void {
  routes.get<TodayAnswer>('/today', async (ask) => {
    const lines = await systemLines(ask);
    const horizon = addDays(ask.today, HORIZON_DAYS);
    return {
      today: ask.today,
      overdue: lines.filter(({ attention }) => attention === 'overdue'),
      coming: lines.filter(
        ({ attention, nextDueOn }) => attention !== 'overdue' && attention !== 'retired' && nextDueOn !== null && nextDueOn <= horizon,
      ),
      dusty: lines.filter(({ attention }) => attention === 'dust').length,
      count: lines.length,
      comingIn: await comingIn(ask),
      ready: await readyToFetch(ask),
    };
  });
}
