import { eq } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { practice } from '../../base/database/tables/practice.js';

/** ms that a practice run's clock is ahead of the workshop's. 0 for any other. */
export async function aheadOf(scope: Scope, runId: string): Promise<number> {
  const [row] = await scope.select({ aheadMs: practice.aheadMs }).from(practice).where(eq(practice.runId, runId));
  return row?.aheadMs ?? 0;
}

/** What a screen may know of a practice run: the fault stays hidden until the debrief. */
export async function practiceOf(scope: Scope, runId: string) {
  const [row] = await scope.select().from(practice).where(eq(practice.runId, runId));
  return row ? { aheadMs: row.aheadMs, scenario: row.debrief ? row.scenario : null, debrief: row.debrief, lesson: row.lesson } : null;
}
