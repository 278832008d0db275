import { sql } from 'drizzle-orm';
import type { Scope } from '../database/client.js';

/** Something that colleagues who look at it should fetch anew. Ids only: what it holds is asked for under its own rights. */
export type PushNotice = { readonly kind: 'run'; readonly runId: string; readonly seq: number };

export const PUSH_CHANNEL = 'lavacrum_push';

/**
 * Tells every server process, once the transaction is committed: a notice of what was rolled back is never sent.
 */
export async function pushNotice(scope: Scope, workshopId: string, notice: PushNotice): Promise<void> {
  await scope.execute(sql`select pg_notify(${PUSH_CHANNEL}, ${JSON.stringify({ workshopId, ...notice })})`);
}
