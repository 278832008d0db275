import { and, eq, isNotNull, sql } from 'drizzle-orm';
import { definitionOf, type RunEventBody } from '../../../core/bench/runs/entries/all.js';
import type { Booking } from '../../../core/bench/runs/entry.js';
import type { RunFold } from '../../../core/bench/runs/replay.js';
import { coolantBatch } from '../../base/database/tables/coolants.js';
import { storeItem, storeMove } from '../../base/database/tables/store.js';
import { wasteContainer, wasteEntry } from '../../base/database/tables/waste.js';
import { notFound } from '../../base/http/errors.js';
import type { Writer } from './writer.js';

/** What an entry moves on the shelf or in waste; `back` where an entry is taken back, and with it what it moved. */
export interface Booked {
  readonly what: Booking;
  readonly back: boolean;
}

/** @param fold the run before the entry */
export function bookingOf(body: RunEventBody, fold: RunFold): Booked | null {
  if (body.type !== 'withdrawn') return booked(body, fold, false);
  const taken = fold.find(body.event)?.body;
  return taken ? booked(taken, fold, true) : null;
}

const booked = (body: RunEventBody, { state }: RunFold, back: boolean): Booked | null => {
  const what = definitionOf(body).books?.(body, state) ?? null;
  return what && { what, back };
};

/**
 * Books in the entry's own transaction: shelf and containers are true while the job is still on the bench. An entry that
 * is taken back is booked the other way.
 */
export async function book({ scope, account, clock }: Writer, jobId: string, { what, back }: Booked): Promise<void> {
  const own = { workshopId: account.workshopId, jobId, personId: account.personId, createdAt: clock.now() };
  const sign = back ? -1 : 1;
  switch (what.kind) {
    case 'coolant':
      await scope
        .update(coolantBatch)
        .set({ stockMl: sql`greatest(0, ${coolantBatch.stockMl} - ${sign * what.ml})` })
        // a lot that nobody counts stays uncounted
        .where(and(eq(coolantBatch.id, what.batchId), isNotNull(coolantBatch.stockMl)));
      return;
    case 'waste': {
      const [container] = await scope.select({ id: wasteContainer.id }).from(wasteContainer).where(eq(wasteContainer.id, what.containerId));
      if (!container) throw notFound('waste container');
      await scope
        .insert(wasteEntry)
        .values({ ...own, containerId: what.containerId, volumeMl: sign * what.ml, note: back ? 'taken back' : '' });
      return;
    }
    case 'item': {
      const [item] = await scope
        .update(storeItem)
        .set({ count: sql`${storeItem.count} - ${sign * what.count}`, version: sql`${storeItem.version} + 1` })
        .where(eq(storeItem.id, what.itemId))
        .returning({ id: storeItem.id });
      if (!item) throw notFound('store item');
      await scope
        .insert(storeMove)
        .values({ ...own, itemId: what.itemId, change: -sign * what.count, reason: back ? 'entry taken back' : 'used at the bench' });
    }
  }
}
