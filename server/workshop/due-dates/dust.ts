import { isDeepStrictEqual } from 'node:util';
import { and, eq, isNotNull, notInArray, sql, type SQL } from 'drizzle-orm';
import { dustClean } from '../../../core/workshop/due-dates/dust.js';
import type { DustPlace } from '../../../core/workshop/due-dates/facts.js';
import type { HotSeason } from '../../../core/workshop/due-dates/season.js';
import { workshop } from '../../base/database/tables/people.js';
import { fill } from '../../base/database/tables/runs.js';
import type { Scope } from '../../base/database/client.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { tellDates, WRITTEN_AT_ONCE, writeDates } from './writeDates.js';

/** The workshop's hot months; null where it has no such rule. Row policies leave one workshop in sight. */
export async function hotSeasonOf(scope: Scope): Promise<HotSeason | null> {
  const [own] = await scope.select({ fromMonth: workshop.hotFromMonth, untilMonth: workshop.hotUntilMonth }).from(workshop).limit(1);
  return own && own.fromMonth !== null && own.untilMonth !== null ? { fromMonth: own.fromMonth, untilMonth: own.untilMonth } : null;
}

/** A machine with the day on which its fins were clean. */
export interface CleanOn {
  readonly workshopId: string;
  readonly systemId: string;
  readonly loopId: string;
  readonly place: DustPlace;
  readonly on: string;
}

/** The open cleanings of machines, as rows. */
export const dustItems = (cleaned: readonly CleanOn[], season: HotSeason | null) =>
  cleaned.map(({ workshopId, systemId, loopId, place, on }) => ({
    workshopId,
    systemId,
    loopId,
    kind: 'dust-clean' as const,
    sinceOn: on,
    ...dustClean(on, place, season),
    estimated: true,
    clocks: [],
  }));

/**
 * Machines in service whose fins nobody dated yet, as those that were there before dust had a clock: clean at their last fill.
 * @param systemIds only these; null: every machine of the workshop
 * @returns how many got a day
 */
export async function openMissingDust(scope: Scope, systemIds: readonly string[] | null): Promise<number> {
  if (systemIds?.length === 0) return 0;
  const dated = scope
    .select({ id: dueItem.systemId })
    .from(dueItem)
    .where(and(eq(dueItem.kind, 'dust-clean'), eq(dueItem.state, 'open')));
  const rows = await scope
    .select({
      workshopId: system.workshopId,
      systemId: system.id,
      place: system.dustPlace,
      loopId: sql<string>`(array_agg(${loop.id} order by ${fill.filledOn} desc))[1]`,
      on: sql<string>`max(${fill.filledOn})::text`,
    })
    .from(system)
    .innerJoin(loop, eq(loop.systemId, system.id))
    .innerJoin(loopRevision, eq(loopRevision.loopId, loop.id))
    .innerJoin(fill, eq(fill.revisionId, loopRevision.id))
    .where(
      and(
        eq(system.state, 'in-service'),
        systemIds === null ? undefined : sql`${system.id} in (select id::uuid from jsonb_array_elements_text(${JSON.stringify(systemIds)}::jsonb) as t (id))`, // prettier-ignore
        notInArray(system.id, dated),
      ),
    )
    .groupBy(system.id);
  if (rows.length === 0) return 0;
  const items = dustItems(rows, await hotSeasonOf(scope));
  // a statement takes 65 535 values: ten thousand machines have more
  for (let from = 0; from < items.length; from += WRITTEN_AT_ONCE)
    await scope.insert(dueItem).values(items.slice(from, from + WRITTEN_AT_ONCE));
  return rows.length;
}

/** The open cleanings of some machines dated anew; what an owner put off keeps its day. */
export async function redateDust(scope: Scope, which: SQL | undefined, season: HotSeason | null): Promise<void> {
  const rows = await scope
    .select({ item: { id: dueItem.id, sinceOn: dueItem.sinceOn, dueOn: dueItem.dueOn, reason: dueItem.reason }, place: system.dustPlace })
    .from(dueItem)
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .where(and(eq(dueItem.kind, 'dust-clean'), eq(dueItem.state, 'open'), eq(dueItem.postponed, 0), isNotNull(dueItem.sinceOn), which));
  const moved = rows.flatMap(({ item, place }) => {
    const next = dustClean(item.sinceOn as string, place, season);
    return next.dueOn === item.dueOn && isDeepStrictEqual(next.reason, item.reason)
      ? []
      : [{ id: item.id, ...next, estimated: true, clocks: [] }];
  });
  await writeDates(scope, moved);
  if (moved.length > 0) await tellDates(scope);
}
