import { and, inArray, isNull } from 'drizzle-orm';
import { groupBy } from '../../../core/base/numerics/groupBy.js';
import { stageSince, type FalloutSeen } from '../../../core/workshop/due-dates/falloutStages.js';
import type { Scope } from '../../base/database/client.js';
import { falloutLook } from '../../base/database/tables/fallout.js';

/** The heaviest stage of some loops' liquid since its fill. @param loopIds null: of every loop of the workshop */
export async function falloutByLoop(
  scope: Scope,
  loopIds: readonly string[] | null,
): Promise<(loopId: string, filledOn: string) => FalloutSeen | null> {
  if (loopIds?.length === 0) return () => null;
  const rows = await scope
    .select({ loopId: falloutLook.loopId, stage: falloutLook.stage, on: falloutLook.on })
    .from(falloutLook)
    .where(and(isNull(falloutLook.struckAt), loopIds === null ? undefined : inArray(falloutLook.loopId, [...loopIds])));
  const byLoop = groupBy(rows, ({ loopId }) => loopId);
  return (loopId, filledOn) => {
    const found = stageSince(byLoop.get(loopId) ?? [], filledOn);
    return found && { stage: found.stage, on: found.on };
  };
}
