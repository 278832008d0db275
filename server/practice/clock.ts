import { eq } from 'drizzle-orm';
import type { Scope } from '../database/client.js';
import { practice } from './tables.js';

/** ms that a practice run's clock is ahead of the workshop's. 0 for any other. */
export async function aheadOf(scope: Scope, runId: string): Promise<number> {
  const [row] = await scope.select({ aheadMs: practice.aheadMs }).from(practice).where(eq(practice.runId, runId));
  return row?.aheadMs ?? 0;
}
