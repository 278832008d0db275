import { dryContents, type LoopContents } from '../../../core/physics/live-book/loopContents.js';
import { insideNow, type InsideNow } from '../../../core/physics/live-book/insideNow.js';
import type { CameFilled } from '../../../core/machine/loop-file/cameFilled.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { and, eq, not } from 'drizzle-orm';
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

/** What is on record of its contents is what stayed in a unit that was tested on its own. */
async function isByUnits(scope: Scope, loopId: string): Promise<boolean> {
  const [row] = await scope
    .select({ id: run.id })
    .from(loopContents)
    .innerJoin(run, and(eq(run.id, loopContents.runId), not(isOfLoop)))
    .where(eq(loopContents.loopId, loopId));
  return row !== undefined;
}

/** What is inside a loop now. */
export async function insideOf(scope: Scope, loopId: string, file: LoopFile): Promise<InsideNow> {
  const kept = await contentsOf(scope, loopId);
  const [filled] = await scope
    .select({ systemState: system.state })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(loopRevision.loopId, loopId))
    .limit(1);
  // taken out of service without a run: whether it was drained is on no record
  const contents = kept ?? (filled?.systemState === 'retired' ? { ...dryContents(null), insideMl: null } : null);
  return insideNow(file, contents, filled !== undefined || (await cameFilledOf(scope, loopId)) !== null, await isByUnits(scope, loopId));
}
