import { eq, sql } from 'drizzle-orm';
import type { Ask } from '../../base/http/context.js';
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
