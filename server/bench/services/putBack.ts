import { and, desc, eq, gte, inArray, sql } from 'drizzle-orm';
import { run, runEvent, fill } from '../../base/database/tables/runs.js';
import type { Ask } from '../../base/http/context.js';
import type { Scope } from '../../base/database/client.js';
import { loopRevision } from '../../base/database/tables/loops.js';
import { slot } from '../../base/database/tables/planning.js';
import { job } from '../../base/database/tables/machines.js';

/** A service that was broken off is booked again: nothing it was booked for is lost, and the plan gives it another slot. */
export async function putBack({ scope, today }: Ask, jobId: string, reason: string): Promise<void> {
  await scope
    .update(job)
    .set({ state: 'booked', note: sql`trim(both E'\n' from ${job.note} || E'\n' || ${`Off the bench on ${today}: ${reason}`}::text)` })
    .where(eq(job.id, jobId));
  await scope.delete(slot).where(eq(slot.jobId, jobId));
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
