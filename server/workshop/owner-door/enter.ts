import { sql } from 'drizzle-orm';
import { SECRET_PATTERN } from '../../../core/workshop/owner-door/address.js';
import { DOOR_ROLE, type Database, type Scope } from '../../base/database/client.js';
import { hashOf } from '../owner-links/secret.js';
import { ownerLink } from '../../base/database/tables/owner-door.js';

/** A link that opens. */
export type OpenLink = Pick<typeof ownerLink.$inferSelect, 'id' | 'workshopId' | 'systemId' | 'jobId'>;

/**
 * Runs work as the visitor with this secret, in one transaction: as the door's role, which sees the link with its hash, what hangs on it,
 * and nothing else. Wrong, old and ended links are the same: none.
 * @returns null without a link that opens
 */
export async function atDoor<T>(
  database: Database,
  secret: string,
  now: Date,
  work: (scope: Scope, link: OpenLink) => Promise<T>,
): Promise<T | null> {
  if (!SECRET_PATTERN.test(secret)) return null;
  return database.transaction(async (scope) => {
    await scope.execute(sql`select set_config('lavacrum.door', ${hashOf(secret)}, true), set_config('role', ${DOOR_ROLE}, true)`);
    const [link] = await scope.select().from(ownerLink);
    if (!link || link.endedAt !== null || link.expiresAt.getTime() <= now.getTime()) return null;
    return work(scope, link);
  });
}
