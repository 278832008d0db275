import { setTimeout as sleep } from 'node:timers/promises';
import type pg from 'pg';
import { openPool } from '../../base/database/client.js';
import { isDatabaseAway } from '../../base/http/errors.js';

/** ms between two tries while the database is away */
const RETRY_MS = 1000;
/** connections; queue work is short, and never takes those of requests */
const CONNECTIONS = 3;

/**
 * The queue's own way to the database. The queue library does not await the answer when it marks a job as done: a database
 * that goes away at that moment would reject a promise that nobody holds, and end the process. Here a statement waits until
 * the database is back, so that nothing rejects for its absence and what was done is marked done.
 */
export class QueueDatabase {
  private readonly pool: pg.Pool;
  private closed = false;
  private away = 0;

  /** @param onAway told each time the database does not answer */
  constructor(
    databaseUrl: string,
    private readonly onAway: (error: unknown) => void,
  ) {
    this.pool = openPool(databaseUrl, onAway, { max: CONNECTIONS, name: 'lavacrum-nightly', patient: true });
  }

  /** As the library wants it. A statement that the database itself refuses is still an error. */
  async executeSql(text: string, values: unknown[] = []): Promise<{ rows: unknown[] }> {
    while (!this.closed) {
      try {
        const answer = await this.pool.query(text, values);
        this.away = 0;
        return answer;
      } catch (error) {
        // a pool that was ended while the statement waited refuses with words of its own
        if (this.closed) break;
        if (!isDatabaseAway(error)) throw error;
        this.away += 1;
        this.onAway(error);
        await sleep(RETRY_MS, undefined, { ref: false });
      }
    }
    return { rows: [] };
  }

  /** the last statement was answered */
  get reached(): boolean {
    return this.away === 0;
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.pool.end().catch(() => undefined);
  }
}
