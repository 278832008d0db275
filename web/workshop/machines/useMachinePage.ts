import type { NextVisit } from '@core/workshop/calls/answers.js';
import type { SystemPage } from '@core/workshop/machines/answers.js';
import { get } from '../../base/http/api.js';
import { usePage, type Page } from '../../base/http/usePage.js';
import { useCoolants } from '../coolants/coolantStore.js';
import { usePriceList } from '../prices/priceStore.js';

/** A machine's page with what it comes in for next. */
export interface MachinePage extends SystemPage {
  /** null: nothing can be told of a machine without a loop, or it could not be asked */
  readonly next: NextVisit | null;
}

/** What a machine's page shows, all of it at once: what stood later would push the rest away from under a finger. */
export function useMachinePage(id: () => string): Page<MachinePage> {
  const coolants = useCoolants();
  const prices = usePriceList();
  // without a next visit or a price a machine's page is a machine's page still
  const nextVisit = (signal: AbortSignal): Promise<{ next: NextVisit | null }> =>
    get<{ next: NextVisit | null }>(`/systems/${id()}/next`, signal).catch(() => ({ next: null }));
  return usePage(async (signal) => {
    const [page, { next }] = await Promise.all([
      get<SystemPage>(`/systems/${id()}`, signal),
      nextVisit(signal),
      coolants.load(),
      prices.load().catch(() => undefined),
    ]);
    return { ...page, next };
  }, id);
}
