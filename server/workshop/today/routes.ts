import { PAGE_OF_TODAY } from '../../../core/workshop/machine-list/pages.js';
import type { TodayAnswer } from '../../../core/workshop/machines/answers.js';
import type { Routes } from '../../base/http/routes.js';
import { comingIn, readyToFetch } from '../jobs/comings.js';
import { freshenLines } from '../machine-list/freshLines.js';
import { countLines, pageOfLines } from '../machine-list/lines.js';

export function todayRoutes(routes: Routes): void {
  routes.get<TodayAnswer>('/today', async (ask) => {
    await freshenLines(ask);
    const counts = await countLines(ask);
    const overdue = await pageOfLines(ask, { q: '', attention: 'overdue', coming: false, limit: PAGE_OF_TODAY }, counts);
    const coming = await pageOfLines(ask, { q: '', coming: true, limit: PAGE_OF_TODAY }, counts);
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
