import { dryContents, type LoopContents } from '../../../core/physics/live-book/loopContents.js';
import { insideNow, type InsideNow } from '../../../core/physics/live-book/insideNow.js';
import type { CameFilled } from '../../../core/machine/loop-file/cameFilled.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { eq, sql } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { fill, isOfLoop, loopContents, run } from '../../base/database/tables/runs.js';

/** What the last run left inside a loop; null where none is on record. */
export async function contentsOf(scope: Scope, loopId: string): Promise<LoopContents | null> {
  const [row] = await scope.select({ contents: loopContents.contents }).from(loopContents).where(eq(loopContents.loopId, loopId));
  return row?.contents ?? null;
}

/** What a loop came filled with; null: it was not filled before it came. */
export async function cameFilledOf(scope: Scope, loopId: string): Promise<CameFilled | null> {
  const [row] = await scope.select({ cameFilled: loop.cameFilled }).from(loop).where(eq(loop.id, loopId));
  return row?.cameFilled ?? null;
}

/** Some fill of this loop is on record here. */
export async function hasFill(scope: Scope, loopId: string): Promise<boolean> {
  const [row] = await scope
    .select({ id: fill.id })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, loopId))
    .limit(1);
  return row !== undefined;
}

/** What is inside a loop now. */
export async function insideOf(scope: Scope, loopId: string, file: LoopFile): Promise<InsideNow> {
  const [now] = await scope
    .select({
      cameFilled: loop.cameFilled,
      systemState: system.state,
      contents: loopContents.contents,
      // what is on record of its contents is what stayed in a unit that was tested on its own
      byUnits: sql<boolean>`coalesce(not ${isOfLoop}, false)`,
      filled: sql<boolean>`exists (select 1 from ${fill} join ${loopRevision} on ${loopRevision.id} = ${fill.revisionId} where ${loopRevision.loopId} = ${loop.id})`,
    })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .leftJoin(loopContents, eq(loopContents.loopId, loop.id))
    .leftJoin(run, eq(run.id, loopContents.runId))
    .where(eq(loop.id, loopId));
  if (!now) return insideNow(file, null, false, false);
  // taken out of service without a run: whether it was drained is on no record
  const unrecorded = now.filled && now.systemState === 'retired' ? { ...dryContents(null), insideMl: null } : null;
  return insideNow(file, now.contents ?? unrecorded, now.filled || now.cameFilled !== null, now.byUnits);
}
