import { sql } from 'drizzle-orm';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';

export type Database = NodePgDatabase;
/** A transaction bound to one workshop. */
export type Scope = Parameters<Parameters<Database['transaction']>[0]>[0];

// A calendar day stays text: as a Date it would shift with the server's zone.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);

export function openPool(url: string, onError: (error: Error) => void, { max = 12, name = 'lavacrum' } = {}): pg.Pool {
  const pool = new pg.Pool({
    connectionString: url,
    max,
    connectionTimeoutMillis: 4000,
    idleTimeoutMillis: 30_000,
    application_name: name,
  });
  // Without a listener an idle connection that breaks would end the process.
  pool.on('error', onError);
  // The pool watches idle connections only: one that breaks between two queries of a transaction would end the process too.
  pool.on('connect', (client) => client.on('error', onError));
  return pool;
}

export const openDatabase = (pool: pg.Pool): Database => drizzle(pool);

/**
 * Runs work as one workshop, in one transaction: as the application role, so that row policies hide every other
 * workshop, whatever the query says. Everything is written, or nothing.
 */
export function inWorkshop<T>(database: Database, workshopId: string, work: (scope: Scope) => Promise<T>): Promise<T> {
  return database.transaction(async (scope) => {
    await scope.execute(sql`select set_config('lavacrum.workshop', ${workshopId}, true), set_config('role', 'lavacrum_app', true)`);
    return work(scope);
  });
}
