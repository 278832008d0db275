import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';
import { removeCluster, startCluster, urlOfDatabase, type Cluster } from '../cluster/cluster.js';
import { runToEnd } from '../cluster/processes.js';
import { makeBackup, restoreBackup, type Manifest } from './archive.js';
import { differences, fingerprintsOf, type Fingerprints } from './fingerprints.js';
import { backupName, backupsIn, keepNewest, madeAtOf } from './keep.js';

const MIGRATIONS = 'server/base/database/migrations';
const NOW = new Date('2026-03-10T09:00:00Z');
const folder = mkdtempSync(path.join(tmpdir(), 'lavacrum-backup-'));
const file = path.join(folder, 'one.tar');

let bench: TestBench;
let lead: Visitor;
let ownerUrl: string;
/** another machine: a cluster that has none of the first one's roles */
let elsewhere: Cluster;
const elsewhereData = path.join(folder, 'elsewhere');
let made: Manifest;

async function on<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}
const restore = (given: string, replace = false) =>
  restoreBackup({ ownerUrl: elsewhere.url, file: given, migrations: MIGRATIONS, replace, now: NOW });

beforeAll(async () => {
  bench = await TestBench.open();
  ownerUrl = urlOfDatabase(process.env.LAVACRUM_TEST_DATABASE as string, bench.databaseName);
  lead = await bench.workshop('Kept');
  await commissioned(bench, lead, 'Owl', await lotOf(lead, 'K1'));
  made = await makeBackup({ ownerUrl, file, now: NOW });
  elsewhere = await startCluster({ dataFolder: elsewhereData, throwaway: true });
});
afterAll(async () => {
  await bench.close();
  removeCluster(elsewhereData);
  rmSync(folder, { recursive: true, force: true });
});

describe('a backup', () => {
  it('is one file for its owner’s eyes: what it holds, counted and hashed, beside a dump', async () => {
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect(made.tables.run_event?.rows).toBeGreaterThan(20);
    expect(made.tables.session).toBeUndefined();
    const open = path.join(folder, 'open');
    await runToEnd('mkdir', [open]);
    await runToEnd('tar', ['-xf', file, '-C', open]);
    expect(readdirSync(open).sort()).toEqual(['database.dump', 'manifest.json']);
    expect(JSON.parse(readFileSync(path.join(open, 'manifest.json'), 'utf8'))).toEqual(made);
    // nothing half made stays behind
    expect(readdirSync(folder).filter((each) => each.startsWith('.'))).toEqual([]);
  });

  it('takes away what a killed one left, and nothing that somebody works in', async () => {
    const host = hostname().replace(/[^a-zA-Z0-9]/g, '');
    const gone = spawnSync('true').pid;
    const names = {
      killed: `.backup-${host}-${gone}-a1`,
      mine: `.backup-${host}-${process.pid}-b2`,
      elsewhere: '.restore-otherhost-1-c3',
      old: '.backup-d4',
    };
    for (const name of Object.values(names)) mkdirSync(path.join(folder, name));
    utimesSync(path.join(folder, names.old), 0, 0);
    await makeBackup({ ownerUrl, file: path.join(folder, 'two.tar'), now: NOW });
    expect(readdirSync(folder).filter((each) => each.startsWith('.'))).toEqual([names.mine, names.elsewhere]);
    for (const name of [names.mine, names.elsewhere]) rmSync(path.join(folder, name), { recursive: true });
  });

  it('is refused to a login that row policies bind, which would leave out rows in silence', async () => {
    const bound = bench.databaseUrl;
    await expect(makeBackup({ ownerUrl: bound, file: path.join(folder, 'none.tar'), now: NOW })).rejects.toThrow(
      'cannot see past the row policies',
    );
    expect(readdirSync(folder)).not.toContain('none.tar');
  });

  it('comes back on another machine row by row, under the same policies, and people sign in there', async () => {
    const { manifest, aside } = await restore(file);
    expect([manifest, aside]).toEqual([made, null]);
    const there = await on(elsewhere.url, fingerprintsOf);
    expect(differences(made.tables, there)).toEqual([]);
    expect(there).toEqual(await on(ownerUrl, fingerprintsOf));
    const roles = await on(elsewhere.serverUrl, async (client) => {
      await expect(client.query('select * from owner')).rejects.toMatchObject({ code: '42501' });
      return (await client.query<{ email: string }>('select email from person')).rows;
    });
    expect(roles).toEqual([{ email: lead.email }]);
    const policies = (url: string) =>
      on(
        url,
        async (client) => (await client.query('select tablename, policyname, roles::text, qual from pg_policies order by 1, 2')).rows,
      );
    expect(await policies(elsewhere.url)).toEqual(await policies(ownerUrl));
  });

  it('overwrites nothing unless it is told to, and then keeps what was there', async () => {
    await expect(restore(file)).rejects.toThrow('is not empty: it holds 1 workshop with 1 machines. Nothing was changed');
    const { aside } = await restore(file, true);
    expect(aside).toBe('lavacrum_before_20260310090000');
    const before = await on(urlOfDatabase(elsewhere.url, aside as string), fingerprintsOf);
    expect(differences(made.tables, before)).toEqual([]);
  });

  it('that is damaged, none, or of a newer program is refused before anything is touched', async () => {
    const whole = readFileSync(file);
    const damaged = path.join(folder, 'damaged.tar');
    const at = whole.length - 20_000;
    writeFileSync(damaged, Buffer.concat([whole.subarray(0, at), Buffer.from([(whole[at] ?? 0) ^ 1]), whole.subarray(at + 1)]));
    await expect(restore(damaged, true)).rejects.toThrow('is damaged');
    writeFileSync(damaged, whole.subarray(0, 60_000));
    await expect(restore(damaged, true)).rejects.toThrow(/is damaged|is no backup/);
    writeFileSync(damaged, 'a letter');
    await expect(restore(damaged, true)).rejects.toThrow('is no backup of Lavacrum');
    await expect(restore(path.join(folder, 'gone.tar'))).rejects.toThrow('There is no file');
    const newer = path.join(folder, 'newer');
    await runToEnd('mkdir', [newer]);
    await runToEnd('tar', ['-xf', file, '-C', newer]);
    writeFileSync(path.join(newer, 'manifest.json'), JSON.stringify({ ...made, newestMigration: 9e12 }));
    await runToEnd('tar', ['-cf', damaged, '-C', newer, 'manifest.json', 'database.dump']);
    await expect(restore(damaged, true)).rejects.toThrow('made by a newer Lavacrum');
    expect(differences(made.tables, await on(elsewhere.url, fingerprintsOf))).toEqual([]);
  });

  it('that would not come back whole takes nobody’s place', async () => {
    const other = path.join(folder, 'other');
    await runToEnd('mkdir', [other]);
    await runToEnd('tar', ['-xf', file, '-C', other]);
    const lied: Fingerprints = { ...made.tables, owner: { rows: 7, hash: '0' } };
    writeFileSync(path.join(other, 'manifest.json'), JSON.stringify({ ...made, tables: lied }));
    const tar = path.join(folder, 'lied.tar');
    await runToEnd('tar', ['-cf', tar, '-C', other, 'manifest.json', 'database.dump']);
    await expect(restore(tar, true)).rejects.toThrow('owner has 1 rows, the backup says 7');
    expect(differences(made.tables, await on(elsewhere.url, fingerprintsOf))).toEqual([]);
  });
});

describe('fingerprints of tables', () => {
  it('tell a row that changed from one that is missing', () => {
    const one: Fingerprints = { a: { rows: 2, hash: '1:1' }, b: { rows: 1, hash: '2:2' } };
    expect(differences(one, one)).toEqual([]);
    expect(differences(one, { ...one, a: { rows: 2, hash: '1:3' } })).toEqual(['a has 2 rows, but not the same ones']);
    expect(differences(one, { a: one.a as never })).toEqual(['b is missing']);
    expect(differences({ a: one.a as never }, one)).toEqual(['b is not in the backup']);
  });
});

describe('a folder of backups', () => {
  it('keeps the newest, and never touches a file of another name', () => {
    const own = mkdtempSync(path.join(tmpdir(), 'lavacrum-kept-'));
    const days = ['2026-03-08', '2026-03-09', '2026-03-10'].map((day) => new Date(`${day}T02:45:00Z`));
    for (const day of days) writeFileSync(path.join(own, backupName(day)), '');
    writeFileSync(path.join(own, 'by hand.tar'), '');
    expect(backupsIn(own).map((each) => madeAtOf(each).toISOString().slice(0, 10))).toEqual(['2026-03-10', '2026-03-09', '2026-03-08']);
    expect(keepNewest(own, 2).map((each) => path.basename(each))).toEqual(['lavacrum-2026-03-08T024500Z.tar']);
    expect(readdirSync(own).sort()).toEqual(['by hand.tar', backupName(days[1] as Date), backupName(days[2] as Date)].sort());
    rmSync(own, { recursive: true });
  });
});
