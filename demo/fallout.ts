import { and, asc, eq, inArray, lte, sql } from 'drizzle-orm';
import { addDays } from '../core/base/units/calendar.js';
import type { Scope } from '../server/base/database/client.js';
import { coolantProduct } from '../server/base/database/tables/coolants.js';
import { dueItem } from '../server/base/database/tables/due-dates.js';
import { falloutLook } from '../server/base/database/tables/fallout.js';
import { system } from '../server/base/database/tables/machines.js';
import { usageReading } from '../server/base/database/tables/usage.js';
import { fill } from '../server/base/database/tables/runs.js';
import { redate } from '../server/workshop/due-dates/redate.js';

/** days since the fill of a pastel in which something is seen, and days ago that somebody looked */
const AGE_DAYS = 8;
const SEEN_DAYS_AGO = 6;
const MOST_LOOKED_AT = 12;

/** One machine with a pastel settles overnight and comes back; another one stands in a window and is stirred. */
export async function giveFallout(
  scope: Scope,
  { workshopId, personId, today }: { workshopId: string; personId: string; today: string },
): Promise<void> {
  const holders = await scope
    .select({
      systemId: dueItem.systemId,
      loopId: dueItem.loopId,
      // what a meter or a log says goes before the owner's word
      isRead: sql<boolean>`exists (select 1 from ${usageReading} where ${usageReading.systemId} = ${dueItem.systemId})`,
    })
    .from(dueItem)
    .innerJoin(fill, eq(fill.id, dueItem.fillId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .where(
      and(
        eq(dueItem.kind, 'coolant-service'),
        eq(dueItem.state, 'open'),
        eq(system.state, 'in-service'),
        inArray(coolantProduct.coolantClass, ['opaque', 'show']),
        lte(fill.filledOn, addDays(today, -AGE_DAYS)),
      ),
    )
    .orderBy(asc(fill.filledOn), asc(system.name), asc(dueItem.loopId))
    .limit(MOST_LOOKED_AT);
  const [settles, ...others] = holders;
  const stands = others.find(({ isRead, systemId }) => !isRead && systemId !== settles?.systemId);
  if (settles)
    await scope.insert(falloutLook).values({
      workshopId,
      loopId: settles.loopId,
      stage: 'comes-back',
      on: addDays(today, -SEEN_DAYS_AGO),
      note: 'a film on the floor in the morning, gone after a minute',
      personId,
    });
  if (stands) await scope.update(system).set({ hoursPerDay: 0 }).where(eq(system.id, stands.systemId));
  for (const each of [settles, stands]) if (each) await redate(scope, { systemId: each.systemId });
}
