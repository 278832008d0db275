import { say } from '../../../core/base/words/say.js';
import { and, eq, isNotNull, sql, sum } from 'drizzle-orm';
import { definitionOf, type RunEventBody } from '../../../core/bench/runs/entries/all.js';
import type { Booking } from '../../../core/bench/runs/entry.js';
import { RunFold } from '../../../core/bench/runs/replay.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { coolantLot, coolantMove } from '../../base/database/tables/coolants.js';
import { storeItem, storeMove } from '../../base/database/tables/store.js';
import { wasteContainer, wasteEntry } from '../../base/database/tables/waste.js';
import { notFound } from '../../base/http/errors.js';
import type { Writer } from './writer.js';

/** What an entry moves on the shelf or in waste; `back` where an entry is taken back, and with it what it moved. */
export interface Booked {
  readonly what: Booking;
  /** the entry that moves it, or whose move goes back */
  readonly eventId: string;
  readonly back: boolean;
}

/** @param fold the run before the entry */
export function bookingOf(eventId: string, body: RunEventBody, fold: RunFold): Booked | null {
  if (body.type !== 'withdrawn') return booked(eventId, body, fold.state, false);
  const at = fold.events.findIndex(({ id }) => id === body.event);
  const taken = fold.events[at];
  if (!taken || !definitionOf(taken.body).books) return null;
  // what it moved was decided by the run as it stood then: another lot may be in use by now
  const then = new RunFold(fold.procedure).sync(fold.events.slice(0, at)).state;
  return booked(taken.id, taken.body, then, true);
}

const booked = (eventId: string, body: RunEventBody, state: RunState, back: boolean): Booked | null => {
  const what = definitionOf(body).books?.(body, state) ?? null;
  return what && { what, eventId, back };
};

/**
 * Books in the entry's own transaction: shelf and containers are true while the job is still on the bench. An entry that
 * is taken back is booked the other way.
 */
export async function book(writer: Writer, jobId: string, { what, eventId, back }: Booked): Promise<void> {
  const { scope, account, clock } = writer;
  const own = { workshopId: account.workshopId, jobId, personId: account.personId, createdAt: clock.now() };
  const sign = back ? -1 : 1;
  switch (what.kind) {
    case 'coolant':
      return back ? giveBack(writer, eventId) : takeFromLot(writer, eventId, what.lotId, what.ml);
    case 'waste': {
      const [container] = await scope.select({ id: wasteContainer.id }).from(wasteContainer).where(eq(wasteContainer.id, what.containerId));
      if (!container) throw notFound('waste container');
      await scope
        .insert(wasteEntry)
        .values({ ...own, containerId: what.containerId, volumeMl: sign * what.ml, note: back ? 'taken back' : '' });
      return;
    }
    case 'item': {
      const [item] = await scope.select().from(storeItem).where(eq(storeItem.id, what.itemId)).for('update');
      if (!item) throw notFound('store item');
      const count = item.count - sign * what.count;
      await scope
        .update(storeItem)
        .set({ count: Math.max(0, count), version: item.version + 1 })
        .where(eq(storeItem.id, what.itemId));
      await scope.insert(storeMove).values({
        ...own,
        itemId: what.itemId,
        change: -sign * what.count,
        reason: back ? say('entry taken back') : say('used at the bench'),
      });
      // a hand that holds it knows better than the count: the shelf had more than was written, and ends at nothing
      if (count < 0)
        await scope
          .insert(storeMove)
          .values({ ...own, jobId: null, itemId: what.itemId, change: -count, reason: say('more were there than counted') });
    }
  }
}

/** A lot that is counted gives what it has; one that nobody counts stays uncounted. */
async function takeFromLot({ scope, account, clock }: Writer, eventId: string, lotId: string, ml: number): Promise<void> {
  const [lot] = await scope
    .select({ stockMl: coolantLot.stockMl })
    .from(coolantLot)
    .where(and(eq(coolantLot.id, lotId), isNotNull(coolantLot.stockMl)))
    .for('update');
  if (!lot) return;
  // more was poured than was counted: the count was wrong, and ends at nothing
  const takenMl = Math.min(ml, lot.stockMl as number);
  await moveCoolant({ scope, account, clock }, { lotId, eventId, changeMl: -takenMl });
}

/** What an entry took from a lot goes back to that lot, and no more. */
async function giveBack(writer: Writer, eventId: string): Promise<void> {
  const { scope } = writer;
  const moves = await scope
    .select({ lotId: coolantMove.lotId, changeMl: sum(coolantMove.changeMl).mapWith(Number) })
    .from(coolantMove)
    .where(eq(coolantMove.eventId, eventId))
    .groupBy(coolantMove.lotId);
  for (const { lotId, changeMl } of moves) if (changeMl < 0) await moveCoolant(writer, { lotId, eventId, changeMl: -changeMl });
}

async function moveCoolant({ scope, account, clock }: Writer, move: { lotId: string; eventId: string; changeMl: number }): Promise<void> {
  await scope
    .update(coolantLot)
    .set({ stockMl: sql`${coolantLot.stockMl} + ${move.changeMl}`, version: sql`${coolantLot.version} + 1` })
    .where(eq(coolantLot.id, move.lotId));
  await scope.insert(coolantMove).values({ ...move, workshopId: account.workshopId, personId: account.personId, createdAt: clock.now() });
}
