import { eq, sql } from 'drizzle-orm';
import type { LoopContents } from '../../../core/physics/live-book/loopContents.js';
import type { Scope } from '../../base/database/client.js';
import { loopContents, run } from '../../base/database/tables/runs.js';

/** What a commissioning that was broken off left inside; null: the loop is new, or was put together anew since. */
export async function leftByAbandoned(scope: Scope, loopId: string): Promise<LoopContents | null> {
  const [row] = await scope
    .select({ contents: loopContents.contents, state: run.state })
    .from(loopContents)
    .innerJoin(run, eq(run.id, loopContents.runId))
    .where(eq(loopContents.loopId, loopId));
  return row?.state === 'abandoned' ? row.contents : null;
}

/** Keeps what an entry left inside, in the entry's own transaction. Practice has no row: its loop is nobody's. */
export async function keepContents(
  scope: Scope,
  of: { readonly workshopId: string; readonly loopId: string; readonly runId: string; readonly jobId: string | null; readonly seq: number },
  contents: LoopContents,
): Promise<void> {
  const { workshopId, loopId, runId, jobId, seq } = of;
  if (jobId === null) return;
  await scope
    .insert(loopContents)
    .values({ workshopId, loopId, runId, seq, contents })
    .onConflictDoUpdate({ target: [loopContents.workshopId, loopContents.loopId], set: { runId, seq, contents, createdAt: sql`now()` } });
}
