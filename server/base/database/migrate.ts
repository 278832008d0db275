import path from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';

import { forcePolicies, grantToCome, handQueueOver, makeRoles } from './roles.js';

/** Any number, the same on every server: only one of them migrates at a time. */
const MIGRATION_LOCK = 418_001;

/** The database was written by a newer program. This one does not know its tables: it would read them wrongly, so it writes nothing. */
export class NewerDatabase extends Error {
  constructor(known: number, found: number) {
    super(
      `This database was written by a newer Lavacrum: it has ${found} changes of its tables, this program knows ${known}. ` +
        'Start that newer program, or restore a backup that this one made. Nothing was changed.',
    );
    this.name = 'NewerDatabase';
  }
}

/**
 * @returns whether `folder` holds changes that the database does not have yet
 * @throws NewerDatabase where its last change is later than any in `folder`
 */
async function hasPending(client: pg.Client, folder: string): Promise<boolean> {
  const known = readMigrationFiles({ migrationsFolder: folder });
  const { rows: log } = await client.query<{ log: string | null }>("select to_regclass('drizzle.__drizzle_migrations') as log");
  if (!log[0]?.log) return true;
  const { rows } = await client.query<{ newest: string | null; found: string }>(
    'select max(created_at) as newest, count(*) as found from drizzle.__drizzle_migrations',
  );
  const newestKnown = Math.max(...known.map(({ folderMillis }) => folderMillis));
  const newest = Number(rows[0]?.newest ?? 0);
  if (newest > newestKnown) throw new NewerDatabase(known.length, Number(rows[0]?.found));
  return newest < newestKnown;
}

/** Brings the database to the newest schema. `url` signs in as the owner of the tables. @param folder holds the committed SQL files @throws NewerDatabase */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 4000 });
  // A connection lost midway rejects the running query; without a listener it would also end the process.
  client.on('error', () => undefined);
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await client.query("set client_min_messages = 'warning'");
    const isPending = await hasPending(client, folder);
    await makeRoles(client);
    await grantToCome(client);
    // at an ordinary start no table is locked, and no policy stands aside beside a server that works
    if (isPending) {
      await forcePolicies(client, false);
      await migrate(drizzle(client), { migrationsFolder: folder });
    }
    await handQueueOver(client);
    await forcePolicies(client, true);
  } finally {
    await client.end();
  }
}

/** The SQL files lie beside this file in the sources and beside the bundle after a build. */
export const migrationsFolder = (here: string): string => path.join(here, 'migrations');
