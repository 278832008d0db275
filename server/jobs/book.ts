import { and, eq, isNotNull, sql } from 'drizzle-orm';
import type { RunEvent, RunEventBody } from '../../core/commissioning/events.js';
import type { RunState } from '../../core/commissioning/state.js';
import { coolantBatch } from '../coolants/tables.js';
import type { Writer } from '../commissioning/append.js';
import { notFound } from '../http/errors.js';
import { storeItem, storeMove } from '../store/tables.js';
import { wasteContainer, wasteEntry } from '../waste/tables.js';

/**
 * What an entry takes from the shelf or puts into waste, in the entry's own transaction: shelf and containers are true
 * while the job is still on the bench. An entry that is taken back is booked the other way.
 */
export async function bookEntry(
  writer: Writer,
  jobId: string | null,
  body: RunEventBody,
  before: RunState,
  events: readonly RunEvent[],
): Promise<void> {
  // practice moves nothing
  if (jobId === null) return;
  const taken = body.type === 'withdrawn' ? events.find(({ id }) => id === body.event)?.body : undefined;
  if (taken) await book(writer, jobId, taken, before, -1);
  else await book(writer, jobId, body, before, 1);
}

async function book({ scope, account, clock }: Writer, jobId: string, body: RunEventBody, before: RunState, sign: 1 | -1): Promise<void> {
  const own = { workshopId: account.workshopId, jobId, personId: account.personId, createdAt: clock.now() };
  switch (body.type) {
    case 'pour': {
      if ((body.source ?? 'hand') === 'simulated' || !before.coolant?.batchId) return;
      await scope
        .update(coolantBatch)
        .set({ stockMl: sql`greatest(0, ${coolantBatch.stockMl} - ${sign * body.volumeMl})` })
        // a lot that nobody counts stays uncounted
        .where(and(eq(coolantBatch.id, before.coolant.batchId), isNotNull(coolantBatch.stockMl)));
      return;
    }
    case 'drained': {
      if (body.wasteId === null) return;
      const [container] = await scope.select({ id: wasteContainer.id }).from(wasteContainer).where(eq(wasteContainer.id, body.wasteId));
      if (!container) throw notFound('waste container');
      await scope
        .insert(wasteEntry)
        .values({ ...own, containerId: body.wasteId, volumeMl: sign * body.volumeMl, note: sign < 0 ? 'taken back' : '' });
      return;
    }
    case 'used': {
      const [item] = await scope
        .update(storeItem)
        .set({ count: sql`${storeItem.count} - ${sign * body.count}`, version: sql`${storeItem.version} + 1` })
        .where(eq(storeItem.id, body.itemId))
        .returning({ id: storeItem.id });
      if (!item) throw notFound('store item');
      await scope
        .insert(storeMove)
        .values({ ...own, itemId: body.itemId, change: -sign * body.count, reason: sign < 0 ? 'entry taken back' : 'used at the bench' });
      return;
    }
    default:
  }
}
