import { createHash } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync, readFileSync, renameSync, statfsSync, statSync, writeFileSync } from 'node:fs';
import { open } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { withClient } from '../../base/database/client.js';
import { migrateDatabase } from '../../base/database/migrate.js';
import { makeRoles } from '../../base/database/roles.js';
import { createDatabase, postgresProgram, urlOfDatabase } from '../cluster/cluster.js';
import { LaunchProblem, runToEnd } from '../cluster/processes.js';
import { differences, fingerprintsOf, type Fingerprints } from './fingerprints.js';
import { withScratch } from './scratch.js';

/** What a backup says of itself. It lies beside the dump, so that anybody can read it. */
export interface Manifest {
  readonly format: 'lavacrum-backup';
  readonly formatVersion: 1;
  readonly madeAt: string;
  /** ms; the newest change of tables that the database knew */
  readonly newestMigration: number;
  readonly dumpSha256: string;
  readonly tables: Fingerprints;
}

export interface BackupPlace {
  /** a login that sees past row policies */
  readonly ownerUrl: string;
  readonly file: string;
  readonly now: Date;
}

const MANIFEST = 'manifest.json';
const DUMP = 'database.dump';
/** what a dump leaves out: sessions and keys, so that nobody is signed in by a stolen copy, what else is the servers' own, and the queue, which is made anew */
const LEFT_OUT = ['--exclude-table-data=public.session', '--exclude-table-data=server.*', '--exclude-schema=pgboss'];

/**
 * Writes everything into one file: an uncompressed tar of a manifest and a dump in PostgreSQL's own format, photographs
 * and row policies with it. Rows are counted and hashed in the very snapshot that is dumped. The file appears whole or not at all.
 */
export async function makeBackup({ ownerUrl, file, now }: BackupPlace): Promise<Manifest> {
  mkdirSync(path.dirname(file), { recursive: true });
  return withScratch('backup', file, (scratch) => dumpInto(scratch, { ownerUrl, file, now }));
}

async function dumpInto(scratch: string, { ownerUrl, file, now }: BackupPlace): Promise<Manifest> {
  const client = new pg.Client({ connectionString: ownerUrl });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await demandSight(client);
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query<{ snapshot: string }>('select pg_export_snapshot() as snapshot');
    const dump = path.join(scratch, DUMP);
    await runProgram('pg_dump', ownerUrl, ['-Fc', `--snapshot=${rows[0]?.snapshot}`, ...LEFT_OUT, '-f', dump]);
    const tables = await fingerprintsOf(client);
    const { rows: log } = await client.query<{ newest: string }>('select max(created_at) as newest from drizzle.__drizzle_migrations');
    await client.query('commit');
    const manifest: Manifest = {
      format: 'lavacrum-backup',
      formatVersion: 1,
      madeAt: now.toISOString(),
      newestMigration: Number(log[0]?.newest),
      dumpSha256: await sha256Of(dump),
      tables,
    };
    writeFileSync(path.join(scratch, MANIFEST), `${JSON.stringify(manifest, null, 1)}\n`);
    const whole = path.join(scratch, 'whole.tar');
    await runToEnd('tar', ['-cf', whole, '-C', scratch, MANIFEST, DUMP]);
    await toDisk(whole);
    renameSync(whole, file);
    return manifest;
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** A login that row policies bind would dump tables without their rows, or nothing at all. */
async function demandSight(client: pg.Client): Promise<void> {
  const { rows } = await client.query<{ sees: boolean }>(
    'select rolsuper or rolbypassrls as sees from pg_roles where rolname = current_user',
  );
  if (!rows[0]?.sees)
    throw new LaunchProblem(
      'This database login cannot see past the row policies. Set LAVACRUM_OWNER_URL to a superuser, or to a login with BYPASSRLS.',
    );
}

/** The bytes are on the disk, not on their way to it. */
async function toDisk(file: string): Promise<void> {
  const handle = await open(file, 'r+');
  try {
    await handle.chmod(0o600);
    await handle.sync();
  } finally {
    await handle.close();
  }
}

async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

/** PostgreSQL's own programs: the password goes by the environment, where no other user's list of processes shows it. */
function runProgram(name: string, url: string, args: readonly string[]): Promise<void> {
  const { hostname, port, username, password, pathname } = new URL(url);
  return runToEnd(
    postgresProgram(name),
    [
      ...args,
      '-h',
      hostname,
      '-p',
      port || '5432',
      '-U',
      decodeURIComponent(username),
      ...(name === 'pg_dump' ? [] : ['-d']),
      pathname.slice(1),
    ],
    {
      PGPASSWORD: decodeURIComponent(password),
    },
  );
}

function readManifest(scratch: string, file: string): Manifest {
  const refused = (why: string): LaunchProblem => new LaunchProblem(`${file} is no backup of Lavacrum: ${why}. Nothing was changed.`);
  const manifest = path.join(scratch, MANIFEST);
  if (!existsSync(manifest) || !existsSync(path.join(scratch, DUMP))) throw refused(`it holds no ${MANIFEST} and ${DUMP}`);
  let read: Partial<Manifest>;
  try {
    read = JSON.parse(readFileSync(manifest, 'utf8')) as Partial<Manifest>;
  } catch {
    throw refused(`its ${MANIFEST} cannot be read`);
  }
  if (read.format !== 'lavacrum-backup' || typeof read.tables !== 'object' || typeof read.newestMigration !== 'number')
    throw refused(`its ${MANIFEST} is not one`);
  if (read.formatVersion !== 1)
    throw refused(`its format is ${String(read.formatVersion)}, this program reads 1; use the program that made it`);
  return read as Manifest;
}

export interface RestorePlace {
  readonly ownerUrl: string;
  readonly file: string;
  readonly migrations: string;
  /** what is there goes aside, under another name, once the backup stands complete */
  readonly replace: boolean;
  readonly now: Date;
}

export interface Restored {
  readonly manifest: Manifest;
  /** the database that stood there before; null: there was nothing in it */
  readonly aside: string | null;
}

/**
 * Brings a backup into an empty place. It is restored into a database beside the present one, every table counted and
 * hashed against the manifest, brought to this program's tables, and only then takes the present one's name: what fails or
 * is cut off on the way leaves the present one as it was.
 */
export async function restoreBackup(place: RestorePlace): Promise<Restored> {
  const { ownerUrl, file, replace, migrations, now } = place;
  if (!existsSync(file)) throw new LaunchProblem(`There is no file ${file}.`);
  return withScratch('restore', file, async (scratch) => {
    await runToEnd('tar', ['-xf', file, '-C', scratch, MANIFEST, DUMP]).catch(() => undefined);
    const manifest = readManifest(scratch, file);
    refuseNewerBackup(manifest, migrations);
    if ((await sha256Of(path.join(scratch, DUMP))) !== manifest.dumpSha256)
      throw new LaunchProblem(`${file} is damaged: its dump is not the one that was written. Nothing was changed.`);
    const name = new URL(ownerUrl).pathname.slice(1);
    const taken = await holdsRows(ownerUrl);
    if (taken && !replace)
      throw new LaunchProblem(
        `The database ${name} is not empty: it holds ${taken}. Nothing was changed. Restore into an empty LAVACRUM_DATA, or add --replace: what is there then goes aside under another name.`,
      );
    const adminUrl = urlOfDatabase(ownerUrl, 'postgres');
    const beside = `${name}_restoring`;
    const aside = taken ? `${name}_before_${now.toISOString().replace(/\D/g, '').slice(0, 14)}` : null;
    try {
      await fillBeside(adminUrl, urlOfDatabase(ownerUrl, beside), { scratch, manifest, migrations });
      await swap(adminUrl, { name, beside, aside });
    } catch (error) {
      // on a disk that is full the half of it would be in the way of everything else
      await dropDatabase(adminUrl, beside).catch(() => undefined);
      throw error;
    }
    return { manifest, aside };
  });
}

const dropDatabase = (adminUrl: string, name: string): Promise<unknown> =>
  withClient(adminUrl, (client) => client.query(`drop database if exists ${pg.escapeIdentifier(name)} with (force)`));

/** A new database from the dump, every table compared with the manifest, and brought to this program's tables. */
async function fillBeside(
  adminUrl: string,
  besideUrl: string,
  { scratch, manifest, migrations }: { scratch: string; manifest: Manifest; migrations: string },
): Promise<void> {
  const beside = new URL(besideUrl).pathname.slice(1);
  await dropDatabase(adminUrl, beside);
  await createDatabase(adminUrl, beside, 'template0');
  await withClient(besideUrl, makeRoles);
  const dump = path.join(scratch, DUMP);
  const list = path.join(scratch, 'list');
  // rights of tables to come name the owner that made the dump; they are given anew
  await runToEnd(postgresProgram('pg_restore'), ['-l', '-f', list, dump]);
  const entries = readFileSync(list, 'utf8').split('\n');
  writeFileSync(list, entries.filter((line) => !line.includes(' DEFAULT ACL ')).join('\n'));
  await runProgram('pg_restore', besideUrl, ['--no-owner', '--exit-on-error', '--single-transaction', '-L', list, dump]);
  const wrong = differences(manifest.tables, await withClient(besideUrl, fingerprintsOf));
  if (wrong.length > 0) throw new LaunchProblem(`The backup did not come back whole, so nothing was changed: ${wrong.join('; ')}.`);
  await migrateDatabase(besideUrl, migrations);
}

function refuseNewerBackup({ newestMigration }: Manifest, folder: string): void {
  const known = Math.max(...readMigrationFiles({ migrationsFolder: folder }).map(({ folderMillis }) => folderMillis));
  if (newestMigration > known)
    throw new LaunchProblem(
      'This backup was made by a newer Lavacrum. Start that newer program and restore it there. Nothing was changed.',
    );
}

/** In words, what a database holds; null: nothing that anybody made. */
async function holdsRows(url: string): Promise<string | null> {
  return withClient(url, async (client) => {
    const { rows } = await client.query<{ there: string | null }>("select to_regclass('public.workshop') as there");
    if (!rows[0]?.there) return null;
    await client.query('set row_security = off');
    const { rows: counted } = await client.query<{ workshops: string; systems: string }>(
      'select (select count(*) from workshop) as workshops, (select count(*) from system) as systems',
    );
    const { workshops = '0', systems = '0' } = counted[0] ?? {};
    return workshops === '0' ? null : `${workshops} ${workshops === '1' ? 'workshop' : 'workshops'} with ${systems} machines`;
  });
}

/** The restored database takes the name; both renames in one transaction, so that there is always one of that name. */
async function swap(adminUrl: string, { name, beside, aside }: { name: string; beside: string; aside: string | null }): Promise<void> {
  const old = aside ?? `${name}_empty`;
  await withClient(adminUrl, async (client) => {
    // one that was killed between the renames and the last line left it
    if (aside === null) await client.query(`drop database if exists ${pg.escapeIdentifier(old)} with (force)`);
    await client.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = any($1)', [[name, beside]]);
    await client.query('begin');
    await client.query(`alter database ${pg.escapeIdentifier(name)} rename to ${pg.escapeIdentifier(old)}`);
    await client.query(`alter database ${pg.escapeIdentifier(beside)} rename to ${pg.escapeIdentifier(name)}`);
    await client.query('commit');
    if (aside === null) await client.query(`drop database ${pg.escapeIdentifier(old)} with (force)`);
  });
}

/** bytes free below which a disk counts as nearly full: some nights' backups and a day's work */
export const LOW_DISK_BYTES = 1e9;

/** bytes free where a file would be written */
export function freeBytes(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}

export const sizeOf = (file: string): number => statSync(file).size;
