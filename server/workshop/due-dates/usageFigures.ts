import { and, inArray, isNull } from 'drizzle-orm';
import { usageOf, usedFigures, type UsageReading } from '../../../core/workshop/usage/usage.js';
import type { Scope } from '../../base/database/client.js';
import { usageReading } from '../../base/database/tables/usage.js';

/** What a machine's owner says of its use. */
export interface OwnersWord {
  readonly hoursPerDay: number | null;
  readonly coolantC: number | null;
}

export const asReading = ({ id, source, fromOn, readOn, hours, meanCoolantC }: typeof usageReading.$inferSelect): UsageReading => ({
  id,
  source,
  fromOn,
  on: readOn,
  hours,
  meanCoolantC,
});

/** Readings that stand, for the machines asked for. @param systemIds null: every machine of the workshop */
export async function readingsBySystem(scope: Scope, systemIds: readonly string[] | null): Promise<ReadonlyMap<string, UsageReading[]>> {
  const rows =
    systemIds?.length === 0
      ? []
      : await scope
          .select()
          .from(usageReading)
          .where(and(isNull(usageReading.struckAt), systemIds === null ? undefined : inArray(usageReading.systemId, [...systemIds])));
  const groups = new Map<string, UsageReading[]>();
  for (const row of rows) {
    const group = groups.get(row.systemId);
    if (group) group.push(asReading(row));
    else groups.set(row.systemId, [asReading(row)]);
  }
  return groups;
}

/** The figures that a fill's clocks take. */
export const figuresOf = (readings: readonly UsageReading[] | undefined, word: OwnersWord, since: string) =>
  usedFigures(usageOf({ readings: readings ?? [], ownerHoursPerDay: word.hoursPerDay, ownerCoolantC: word.coolantC, since }));
