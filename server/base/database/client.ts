import { sql } from 'drizzle-orm';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';

export type Database = NodePgDatabase;
/** A transaction bound to one workshop. */
export type Scope = Parameters<Parameters<Database['transaction']>[0]>[0];

// A calendar day stays text: as a Date it would shift with the server's zone.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);

/** The role that the server works as outside a workshop: no owner, no superuser. */
export const SERVER_ROLE = 'lavacrum_server';

/** The role of a visitor at the owner's door. */
export const DOOR_ROLE = 'lavacrum_door';

/** ms; one statement, one wait for a row that somebody else holds, one pause inside a transaction */
const PATIENCE = { statementMs: 20_000, lockMs: 4000, pauseMs: 15_000 } as const;

interface PoolOptions {
  readonly max?: number;
  readonly name?: string;
  /** for work that may take its time: nothing ends a statement or a pause of it */
  readonly patient?: boolean;
}

/** What every connection begins with. A login that is not the server's own role takes it on at once. */
export function settingsOf(url: string, patient: boolean): string {
  // no question here runs long enough to earn back what compiling it costs
  const role = `${new URL(url).username === SERVER_ROLE ? '' : `-c role=${SERVER_ROLE}`} -c jit=off`.trim();
  const { statementMs, lockMs, pauseMs } = PATIENCE;
  const limits = `-c statement_timeout=${statementMs} -c lock_timeout=${lockMs} -c idle_in_transaction_session_timeout=${pauseMs}`;
  return patient ? role : `${role} ${limits}`.trim();
}

/** Connections that work as the server's narrow role. */
export function openPool(
  url: string,
  onError: (error: Error) => void,
  { max = 12, name = 'lavacrum', patient = false }: PoolOptions = {},
): pg.Pool {
  const pool = new pg.Pool({
    connectionString: url,
    max,
    connectionTimeoutMillis: 4000,
    idleTimeoutMillis: 30_000,
    application_name: name,
    options: settingsOf(url, patient),
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
    await enterWorkshop(scope, workshopId);
    return work(scope);
  });
}

/** Asks a database something outside every pool: a connection of its own, closed whatever happens. */
export async function withClient<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  try {
    await client.connect();
    return await work(client);
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** Every workshop of this server, for work that goes through them one by one. */
export async function workshopIds(database: Database): Promise<readonly string[]> {
  const { rows } = await database.execute<{ id: string }>(sql`select id from workshop order by id`);
  return rows.map(({ id }) => id);
}

/** From here to its end a transaction sees one workshop. */
export const enterWorkshop = (scope: Scope, workshopId: string): Promise<unknown> =>
  scope.execute(sql`select set_config('lavacrum.workshop', ${workshopId}, true), set_config('role', 'lavacrum_app', true)`);
