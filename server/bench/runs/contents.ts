import { and, desc, eq, gte, inArray, sql } from 'drizzle-orm';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { LoopContents } from '../../../core/physics/live-book/loopContents.js';
import type { Scope } from '../../base/database/client.js';
import { loopRevision } from '../../base/database/tables/loops.js';
import { fill, loopContents, run, runEvent } from '../../base/database/tables/runs.js';

/** What a commissioning that was broken off left inside; null: the loop is new, or was put together anew since. */
export async function leftByAbandoned(scope: Scope, loopId: string): Promise<LoopContents | null> {
  const [row] = await scope
    .select({ contents: loopContents.contents, state: run.state })
    .from(loopContents)
    .innerJoin(run, eq(run.id, loopContents.runId))
    .where(eq(loopContents.loopId, loopId));
  return row?.state === 'abandoned' ? row.contents : null;
}

interface ContentsOf {
  readonly workshopId: string;
  readonly loopId: string;
  readonly runId: string;
  readonly seq: number;
}

/**
 * Keeps what an entry left inside, in the entry's own transaction. Practice has no row: its loop is nobody's. A unit out of its case is
 * a loop of its own: what stays in it is told once, when it is signed off.
 */
export async function keepContents(
  scope: Scope,
  of: ContentsOf & { readonly jobId: string | null; readonly procedure: Pick<Procedure, 'unit'> },
  contents: LoopContents,
): Promise<void> {
  if (of.jobId !== null && !of.procedure.unit) await writeContents(scope, of, contents);
}

export async function writeContents(scope: Scope, of: ContentsOf, contents: LoopContents): Promise<void> {
  const { workshopId, loopId, runId, seq } = of;
  await scope
    .insert(loopContents)
    .values({ workshopId, loopId, runId, seq, contents })
    .onConflictDoUpdate({ target: [loopContents.workshopId, loopContents.loopId], set: { runId, seq, contents, createdAt: sql`now()` } });
}

/** Liquid left this loop in a run that was broken off since its last fill: what stands inside now, nobody knows. */
export async function leftUnfinished(scope: Scope, loopId: string): Promise<boolean> {
  const [filled] = await scope
    .select({ at: fill.createdAt })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(eq(loopRevision.loopId, loopId))
    .orderBy(desc(fill.createdAt))
    .limit(1);
  const [opened] = await scope
    .select({ id: run.id })
    .from(run)
    .innerJoin(runEvent, eq(runEvent.runId, run.id))
    .where(
      and(
        eq(run.loopId, loopId),
        eq(run.state, 'abandoned'),
        filled ? gte(run.startedAt, filled.at) : undefined,
        inArray(sql`${runEvent.body} ->> 'type'`, ['drained', 'lost', 'rinse', 'swapped']),
      ),
    )
    .limit(1);
  return opened !== undefined;
}
