import { PAGE_OF_TODAY } from '../../../core/workshop/machine-list/linesQuery.js';
import type { TodayAnswer } from '../../../core/workshop/machines/answers.js';
import type { Routes } from '../../base/http/routes.js';
import { comingIn, readyToFetch } from '../jobs/comings.js';
import { linesPage } from '../machine-list/lines.js';

export function todayRoutes(routes: Routes): void {
  routes.get<TodayAnswer>('/today', async (ask) => {
    const overdue = await linesPage(ask, { q: '', attention: 'overdue', coming: false, limit: PAGE_OF_TODAY });
    const coming = await linesPage(ask, { q: '', coming: true, limit: PAGE_OF_TODAY });
    const counts = overdue.counts ?? {};
    return {
      today: ask.today,
      overdue,
      coming,
      dusty: counts.dust ?? 0,
      count: Object.values(counts).reduce((sum, each) => sum + each, 0),
      comingIn: await comingIn(ask),
      ready: await readyToFetch(ask),
    };
  });
}
