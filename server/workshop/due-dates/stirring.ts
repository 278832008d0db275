import { and, eq, inArray, sql } from 'drizzle-orm';
import type { CoolantClass } from '../../../core/machine/liquids/classes.js';
import { stirringRun } from '../../../core/workshop/due-dates/stirring.js';
import type { Outcome } from '../../../core/workshop/due-dates/facts.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';

/** A filled loop, as its stirring run is dated: what is inside, and how much the machine runs. */
export interface Stirred {
  readonly workshopId: string;
  readonly systemId: string;
  readonly loopId: string;
  readonly filledOn: string;
  readonly coolantClass: CoolantClass;
  readonly hoursPerDay: number | null;
}

const isOpen = and(eq(dueItem.kind, 'stirring'), eq(dueItem.state, 'open'));

/**
 * Dates the stirring runs of some loops anew: one open item for each suspension at rest, none for the others. What was stirred since keeps
 * its day. Row policies leave one workshop in sight.
 */
export async function redateStirring(scope: Scope, loops: readonly Stirred[]): Promise<void> {
  const open = await scope.select({ id: dueItem.id, loopId: dueItem.loopId, sinceOn: dueItem.sinceOn, dueOn: dueItem.dueOn, postponed: dueItem.postponed }).from(dueItem).where(isOpen); // prettier-ignore
  const byLoop = new Map(open.map((item) => [item.loopId, item]));
  const gone: string[] = [];
  for (const { workshopId, systemId, loopId, filledOn, coolantClass, hoursPerDay } of loops) {
    const now = byLoop.get(loopId);
    const since = now?.sinceOn && now.sinceOn > filledOn ? now.sinceOn : filledOn;
    const next = stirringRun(since, coolantClass, hoursPerDay);
    if (!next) {
      if (now) gone.push(now.id);
    } else if (!now)
      await scope.insert(dueItem).values({ workshopId, systemId, loopId, kind: 'stirring', sinceOn: since, ...next, estimated: true, clocks: []}); // prettier-ignore
    else if (now.dueOn !== next.dueOn && now.postponed === 0)
      await scope
        .update(dueItem)
        .set({ ...next, sinceOn: since })
        .where(eq(dueItem.id, now.id));
  }
  if (gone.length === 0) return;
  // it was never owed: nothing of it belongs into the history; what an owner put off stays on record, closed
  await scope.delete(dueItem).where(and(inArray(dueItem.id, gone), eq(dueItem.postponed, 0)));
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome: { why: 'in-service' }, closedAt: sql`now()` })
    .where(inArray(dueItem.id, gone));
}

/** Somebody ran the pump until all of it moved: the next run counts from there. */
export async function stirred(
  scope: Scope,
  item: typeof dueItem.$inferSelect,
  done: { readonly on: string; readonly at: Date; readonly personId: string; readonly outcome: Outcome },
): Promise<void> {
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome: done.outcome, closedAt: done.at, closedBy: done.personId, version: item.version + 1 })
    .where(eq(dueItem.id, item.id));
  const { workshopId, systemId, loopId, reason } = item;
  if (reason.why !== 'stirring') return;
  // that it stands is known by the item itself
  const next = stirringRun(done.on, reason.coolantClass, 0);
  if (next)
    await scope.insert(dueItem).values({ workshopId, systemId, loopId, kind: 'stirring', sinceOn: done.on, ...next, estimated: true, clocks: [], createdAt: done.at }); // prettier-ignore
}
