import path from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';

/** Any number, the same on every server: only one of them migrates at a time. */
const MIGRATION_LOCK = 418_001;

/** Brings the database to the newest schema. @param folder holds the committed SQL files */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 4000 });
  // A connection lost midway rejects the running query; without a listener it would also end the process.
  client.on('error', () => undefined);
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await client.query("set client_min_messages = 'warning'");
    await migrate(drizzle(client), { migrationsFolder: folder });
  } finally {
    await client.end();
  }
}

/** The SQL files lie beside this file in the sources and beside the bundle after a build. */
export const migrationsFolder = (here: string): string => path.join(here, 'migrations');
