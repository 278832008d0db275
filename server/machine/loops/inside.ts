import { insideNow, type InsideNow } from '../../../core/physics/live-book/insideNow.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { eq } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { loopRevision } from '../../base/database/tables/loops.js';
import { fill, loopContents } from '../../base/database/tables/runs.js';

/** What is inside a loop now. */
export async function insideOf(scope: Scope, loopId: string, file: LoopFile): Promise<InsideNow> {
  const [kept] = await scope.select({ contents: loopContents.contents }).from(loopContents).where(eq(loopContents.loopId, loopId));
  const [filled] = await scope
    .select({ id: fill.id })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, loopId))
    .limit(1);
  return insideNow(file, kept?.contents ?? null, filled !== undefined);
}
