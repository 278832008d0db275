import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { groupBy } from '../../../core/base/numerics/groupBy.js';
import type { FalloutLook } from '../../../core/workshop/fallout/answers.js';
import type { Scope } from '../../base/database/client.js';
import { falloutLook } from '../../base/database/tables/fallout.js';
import { person } from '../../base/database/tables/people.js';

/** What was seen of the liquid of some loops and not struck out, by loop, the last first. */
export async function looksOf(scope: Scope, loopIds: readonly string[]): Promise<(loopId: string) => FalloutLook[]> {
  if (loopIds.length === 0) return () => [];
  const rows = await scope
    .select({
      loopId: falloutLook.loopId,
      look: { id: falloutLook.id, stage: falloutLook.stage, on: falloutLook.on, note: falloutLook.note, by: person.name },
    })
    .from(falloutLook)
    .innerJoin(person, eq(person.id, falloutLook.personId))
    .where(and(inArray(falloutLook.loopId, [...loopIds]), isNull(falloutLook.struckAt)))
    .orderBy(desc(falloutLook.on), desc(falloutLook.createdAt));
  const byLoop = groupBy(rows, ({ loopId }) => loopId);
  return (loopId) => (byLoop.get(loopId) ?? []).map(({ look }) => look);
}
