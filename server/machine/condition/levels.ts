import { and, eq, isNull, sql } from 'drizzle-orm';
import { dayIn } from '../../../core/base/units/calendar.js';
import type { LevelPoint } from '../../../core/physics/condition/level.js';
import { readOutcome, readReason } from '../../../core/workshop/due-dates/facts.js';
import type { LoopLevels } from '../../../core/workshop/logs/answers.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { levelReading } from '../../base/database/tables/logs.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { fill } from '../../base/database/tables/runs.js';

/** What a check of the first days read, on the day on which it was made. */
function checkedLevel(
  { outcome, reason, closedAt }: Pick<typeof dueItem.$inferSelect, 'outcome' | 'reason' | 'closedAt'>,
  zone: string,
): LevelPoint | null {
  const [end, why] = [outcome === null ? null : readOutcome(outcome), readReason(reason)];
  if (end?.why === 'settled' && end.levelChangeMm !== null && closedAt !== null)
    return { on: dayIn(zone, closedAt), mm: end.levelChangeMm, source: 'settling' };
  return why.why === 'not-settled' && why.levelChangeMm !== null ? { on: why.on, mm: why.levelChangeMm, source: 'settling' } : null;
}

/** Levels of a machine's loops that were filled: at their settling checks, and by hand. */
export async function levelsOf(scope: Scope, systemId: string, zone: string): Promise<LoopLevels[]> {
  const loops = await scope
    .select({ loopId: loop.id, filledOn: sql<string>`max(${fill.filledOn})::text`, coolantC: system.coolantC })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(loop.systemId, systemId))
    .groupBy(loop.id, system.coolantC)
    .orderBy(loop.id);
  const checks = await scope
    .select({ loopId: dueItem.loopId, outcome: dueItem.outcome, reason: dueItem.reason, closedAt: dueItem.closedAt })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.kind, 'settling-check')));
  const byHand = await scope
    .select({ id: levelReading.id, loopId: levelReading.loopId, on: levelReading.readOn, mm: levelReading.levelMm })
    .from(levelReading)
    .innerJoin(loop, eq(loop.id, levelReading.loopId))
    .where(and(eq(loop.systemId, systemId), isNull(levelReading.struckAt)));
  return loops.map(({ loopId, filledOn, coolantC }) => ({
    loopId,
    filledOn,
    coolantC,
    read: [
      ...checks.filter((each) => each.loopId === loopId).flatMap((each) => checkedLevel(each, zone) ?? []),
      ...byHand.filter((each) => each.loopId === loopId).map(({ id, on, mm }): LevelPoint => ({ id, on, mm, source: 'hand' })),
    ].filter(({ on }) => on >= filledOn),
  }));
}
