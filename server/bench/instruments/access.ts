import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { deviceName } from '../../../core/bench/instruments/topics.js';
import { hashPassword, passwordMatches } from '../../workshop/people/password.js';
import { bench } from '../../base/database/tables/people.js';
import { inWorkshop, type Database, type Scope } from '../../base/database/client.js';
import type { Account } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { benchAccess } from '../../base/database/tables/instruments.js';

/** What a device signs in with. The secret is shown once; only its hash is kept. */
export interface Credentials {
  readonly name: string;
  readonly secret: string;
}

/** A new secret for a bench; the one before stops working. */
export async function renewAccess(scope: Scope, account: Account, benchId: string, simulated: boolean): Promise<Credentials> {
  const [own] = await scope.select({ id: bench.id }).from(bench).where(eq(bench.id, benchId));
  if (!own) throw notFound('bench');
  const secret = randomBytes(18).toString('base64url');
  const values = { secretHash: await hashPassword(secret), personId: account.personId };
  await scope
    .insert(benchAccess)
    .values({ workshopId: account.workshopId, benchId, simulated, ...values })
    .onConflictDoUpdate({ target: [benchAccess.benchId, benchAccess.simulated], set: values });
  return { name: deviceName(account.workshopId, benchId), secret };
}

/** Whose secret it is, or null. Both of a bench's secrets are tried: the name is the same. */
export async function verifyAccess(
  database: Database,
  workshopId: string,
  benchId: string,
  secret: string,
): Promise<'device' | 'simulated' | null> {
  // the connection goes back before a password is tried: that takes its time
  const rows = await inWorkshop(database, workshopId, (scope) =>
    scope
      .select({ secretHash: benchAccess.secretHash, simulated: benchAccess.simulated })
      .from(benchAccess)
      .where(eq(benchAccess.benchId, benchId)),
  );
  // an unknown bench takes as long as a wrong secret
  if (rows.length === 0) await passwordMatches(secret, null);
  for (const { secretHash, simulated } of rows) if (await passwordMatches(secret, secretHash)) return simulated ? 'simulated' : 'device';
  return null;
}
