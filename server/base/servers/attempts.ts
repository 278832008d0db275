import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { ClientRateLimitInfo, Store } from 'express-rate-limit';
import type { Database } from '../database/client.js';

/**
 * Tries counted over all servers on a database: who guesses at two of them has no more tries than at one. What is counted is kept as a
 * hash: nobody's address lies here.
 */
export class SharedAttempts implements Store {
  readonly localKeys = false;
  /** so that one request may be counted under several names */
  readonly prefix: string;

  constructor(
    private readonly database: Database,
    /** what is counted; two limits of one name count together */
    private readonly what: string,
    private readonly windowMs: number,
  ) {
    this.prefix = what;
  }

  private keyOf(key: string): string {
    return createHash('sha256').update(`${this.what} ${key}`).digest('base64url');
  }

  async increment(key: string): Promise<ClientRateLimitInfo> {
    const { rows } = await this.database.execute<{ hits: number; until: string }>(sql`
      insert into server.attempt as a (key, hits, until) values (${this.keyOf(key)}, 1, now() + make_interval(secs => ${this.windowMs / 1000}))
      on conflict (key) do update set
        hits = case when a.until <= now() then 1 else a.hits + 1 end,
        until = case when a.until <= now() then excluded.until else a.until end
      returning hits, until`);
    const [row] = rows as [{ hits: number; until: string }];
    return { totalHits: row.hits, resetTime: new Date(row.until) };
  }

  /** A try that was none: it succeeded. The answer is out by then; a database that went away forgets it a little later. */
  async decrement(key: string): Promise<void> {
    await this.database
      .execute(sql`update server.attempt set hits = greatest(hits - 1, 0) where key = ${this.keyOf(key)}`)
      .catch(() => undefined);
  }

  async resetKey(key: string): Promise<void> {
    await this.database.execute(sql`delete from server.attempt where key = ${this.keyOf(key)}`);
  }
}

/** Tries whose window is over. */
export const pruneAttempts = (database: Database): Promise<unknown> =>
  database.execute(sql`delete from server.attempt where until < now()`);
