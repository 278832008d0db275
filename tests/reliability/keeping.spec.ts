import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { expect, test } from '@playwright/test';
import pg from 'pg';
import PgBoss from 'pg-boss';
import { seeded } from '../../core/machine/loop-file/generatedLoops.js';
import { withClient } from '../../server/base/database/client.js';
import { differences, fingerprintsOf, type Fingerprints } from '../../server/operations/backup/fingerprints.js';
import { checkDatabase } from '../../server/operations/check/check.js';
import { createDatabase, urlOfDatabase } from '../../server/operations/cluster/cluster.js';
import { freePort, runToEnd } from '../../server/operations/cluster/processes.js';
import { QUEUES } from '../../server/operations/nightly/nightly.js';
import { RunningApp } from '../browser/app.js';
import { release1Database } from '../golden/release1.js';
import { AT_BENCH, Command, killDatabase, KILLS, ownCluster, patienceMs, report } from './victims.js';

/**
 * Kills the work that nobody watches: the night's queue, a backup, a restore, a change of tables. Each at a moment that a
 * seed decides, half of them by a crash of the database. Afterwards the same work is done once more, and what stands then
 * must be what stands where nobody was killed.
 */
// one after the other: they share a cluster, which some of them kill
test.describe.configure({ mode: 'default' });

const EACH = Math.max(1, Math.round((KILLS.runs * (1 - AT_BENCH)) / 4));
const random = seeded(KILLS.seed + 1);
/** ms; a worker looks for jobs every two seconds */
const QUEUE_WINDOW_MS = 4500;
const DAY_S = 86_400;
/** messages that wait every night beside those that it writes itself, so that a kill meets one on its way */
const WAITING = 40;

const folder = mkdtempSync(path.join(tmpdir(), 'lavacrum-keeping-'));
const dataFolder = path.join(folder, 'data');
const demoDatabase = (): string => process.env.LAVACRUM_TEST_DEMO as string;
const ownerOf = (database: string): string => urlOfDatabase(process.env.LAVACRUM_TEST_DATABASE as string, database);
const envOf = (database: string): NodeJS.ProcessEnv => ({
  NODE_ENV: 'production',
  DATABASE_URL: urlOfDatabase(process.env.LAVACRUM_TEST_SERVER as string, database),
  LAVACRUM_OWNER_URL: ownerOf(database),
  LAVACRUM_DATA: path.join(folder, 'work'),
  LAVACRUM_DEMO: '0',
  LAVACRUM_LOG: 'warn',
});
const printsOf = (database: string): Promise<Fingerprints> => withClient(ownerOf(database), fingerprintsOf);
const asAdmin = <T extends object>(query: string, values: unknown[] = []): Promise<T[]> =>
  withClient(ownerOf('postgres'), async (client) => (await client.query<T>(query, values)).rows);
const drop = (database: string): Promise<unknown> => asAdmin(`drop database if exists ${pg.escapeIdentifier(database)} with (force)`);
const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const startedMs = Date.now();
  await work();
  return Date.now() - startedMs;
};

/** Kills a command, what it started with it or not, or the database below it, somewhere on its way. @param ends by itself */
async function killOnTheWay(command: Command, usualMs: number, ends = true): Promise<void> {
  await sleep(random() * 1.05 * usualMs);
  const victim = random();
  if (victim < 0.4) return command.kill(false);
  if (victim < 0.6) return command.kill(true);
  await killDatabase(dataFolder);
  if (ends) await Promise.race([command.ended, sleep(60_000)]);
  await command.kill(false);
}

const POST_WAITS = `insert into message (workshop_id, owner_id, system_id, template, about, address, subject, body, created_at)
  select s.workshop_id, s.owner_id, s.id, 'ready', 'night ' || $1::int || ' ' || i, 'desk@owners.example', 'Ready, night ' || $1::int || ' ' || i, 'It can be fetched.', now()
  from (select * from system limit 1) s, generate_series(1, $2::int) i`;

test.beforeAll(async () => {
  await ownCluster(dataFolder);
  if (!process.env.LAVACRUM_TEST_DEMO) await RunningApp.writeDemo();
  mkdirSync(path.join(folder, 'work'));
});
test.afterAll(() => rmSync(path.join(folder, 'work'), { recursive: true, force: true }));

test(`${EACH} kills of a backup leave a whole one or none`, { tag: '@thorough' }, async () => {
  test.setTimeout(patienceMs(EACH));
  const file = path.join(folder, 'work', 'one.tar');
  const wanted = await printsOf(demoDatabase());
  const backup = (): Command => new Command(process.execPath, ['dist/launcher.mjs', 'backup', file], envOf(demoDatabase()));
  const usualMs = await timed(async () => expect(await backup().ended).toBe(0));
  const found = { none: 0, whole: 0, half: 0, left: 0 };
  /** the file's own words hold for its dump and for the rows that stand */
  const isWhole = async (): Promise<boolean> => {
    const open = mkdtempSync(path.join(folder, 'open-'));
    await runToEnd('tar', ['-xf', file, '-C', open]);
    const manifest = JSON.parse(readFileSync(path.join(open, 'manifest.json'), 'utf8')) as { dumpSha256: string; tables: Fingerprints };
    const dump = readFileSync(path.join(open, 'database.dump'));
    rmSync(open, { recursive: true });
    return createHash('sha256').update(dump).digest('hex') === manifest.dumpSha256 && differences(wanted, manifest.tables).length === 0;
  };
  for (let n = 0; n < EACH; n += 1) {
    rmSync(file, { force: true });
    await killOnTheWay(backup(), usualMs);
    if (!existsSync(file)) found.none += 1;
    else if (await isWhole()) found.whole += 1;
    else found.half += 1;
    const again = backup();
    expect([await again.ended, again.words]).toEqual([0, expect.stringContaining('Backed up')]);
    expect(await isWhole()).toBe(true);
    found.left += readdirSync(path.dirname(file)).filter((name) => name.startsWith('.backup')).length;
  }
  report([`backup | ${EACH} | none ${found.none}, whole ${found.whole}, half ${found.half} | scratch left after the next: ${found.left}`]);
  expect([found.half, found.left]).toEqual([0, 0]);
});

test(`${EACH} kills of a restore leave what was there, or all of what came`, { tag: '@thorough' }, async () => {
  test.setTimeout(patienceMs(EACH));
  const file = path.join(folder, 'work', 'come.tar');
  const made = new Command(process.execPath, ['dist/launcher.mjs', 'backup', file], envOf(demoDatabase()));
  expect([await made.ended, made.words]).toEqual([0, expect.stringContaining('Backed up')]);
  const [kept, target] = ['kept', 'restored_into'];
  await createDatabase(ownerOf('postgres'), kept, demoDatabase());
  await withClient(ownerOf(kept), (client) => client.query("update workshop set name = name || ' before'"));
  const [before, coming] = [await printsOf(kept), await printsOf(demoDatabase())];
  const restore = (): Command => new Command(process.execPath, ['dist/launcher.mjs', 'restore', file, '--replace'], envOf(target));
  const anew = async (): Promise<void> => {
    const made = await asAdmin<{ datname: string }>("select datname from pg_database where datname like $1 || '%'", [target]);
    for (const { datname } of made) await drop(datname);
    await createDatabase(ownerOf('postgres'), target, kept);
  };
  await anew();
  const usualMs = await timed(async () => expect(await restore().ended).toBe(0));
  const found = { before: 0, restored: 0, other: 0, left: 0, asideLost: 0 };
  for (let n = 0; n < EACH; n += 1) {
    await anew();
    await killOnTheWay(restore(), usualMs);
    const there = await printsOf(target);
    if (differences(before, there).length === 0) found.before += 1;
    else if (differences(coming, there).length === 0) found.restored += 1;
    else found.other += 1;
    const again = restore();
    expect([await again.ended, again.words]).toEqual([0, expect.stringContaining('Restored')]);
    expect(differences(coming, await printsOf(target))).toEqual([]);
    const names = (await asAdmin<{ datname: string }>('select datname from pg_database')).map(({ datname }) => datname);
    const aside = names.filter((name) => name.startsWith(`${target}_before`));
    const held = await Promise.all(aside.map(async (name) => differences(before, await printsOf(name)).length === 0));
    if (!held.includes(true)) found.asideLost += 1;
    const files = readdirSync(path.dirname(file)).filter((name) => name.startsWith('.restore'));
    found.left += files.length + names.filter((name) => /_(restoring|empty)$/.test(name)).length;
  }
  report([
    `restore | ${EACH} | as before ${found.before}, restored ${found.restored}, anything else ${found.other} | what was there lost: ${found.asideLost} | left over after the next: ${found.left}`,
  ]);
  expect([found.other, found.left, found.asideLost]).toEqual([0, 0, 0]);
});

test(`${EACH} kills of a change of tables end in the same rows`, async () => {
  test.setTimeout(patienceMs(EACH));
  const old = await release1Database(ownerOf('lavacrum'));
  const name = 'migrated';
  const port = await freePort();
  const start = (): Command => new Command(process.execPath, ['dist/main.mjs'], { ...envOf(name), LAVACRUM_PORT: String(port) });
  const ready = async (command: Command): Promise<void> => {
    const ask = (): Promise<boolean> => fetch(`http://127.0.0.1:${port}/api/health`).then((answer) => answer.ok, () => false); // prettier-ignore
    await expect.poll(ask, { intervals: [100], message: command.words }).toBe(true);
  };
  const anew = async (): Promise<void> => {
    await drop(name);
    await createDatabase(ownerOf('postgres'), name, old);
  };
  await anew();
  const first = start();
  const usualMs = await timed(() => ready(first));
  await first.kill(false);
  const wanted = await printsOf(name);
  const found = { before: 0, after: 0, wrong: 0 };
  for (let n = 0; n < EACH; n += 1) {
    await anew();
    await killOnTheWay(start(), usualMs, false);
    const changes = await withClient(ownerOf(name), (client) => client.query('select from drizzle.__drizzle_migrations'));
    const wasDone = changes.rowCount === readdirSync('dist/migrations').filter((each) => each.endsWith('.sql')).length;
    found[wasDone ? 'after' : 'before'] += 1;
    const again = start();
    await ready(again);
    await again.kill(false);
    const wrong = differences(wanted, await printsOf(name));
    if (wrong.length > 0) process.stdout.write(`${wrong.join('; ')}\n`);
    if (wrong.length > 0) found.wrong += 1;
  }
  report([
    `migration | ${EACH} | killed before its commit ${found.before}, after ${found.after} | other rows than without a kill: ${found.wrong}`,
  ]);
  expect(found.wrong).toBe(0);
});

test(`${EACH} kills of the night's work leave no message lost and no date wrong`, { tag: '@thorough' }, async () => {
  test.setTimeout(patienceMs(EACH));
  const app = await RunningApp.open(true);
  const { ownerUrl } = app;
  const workshops = await withClient(ownerUrl, async (client) => (await client.query<{ id: string }>('select id from workshop')).rows);
  /** a queue's own client for every sending: the database below it may have been killed since */
  const send = async (names: readonly string[]): Promise<() => Promise<boolean>> => {
    const boss = new PgBoss({ connectionString: ownerUrl, supervise: false, schedule: false, migrate: false, max: 1 });
    boss.on('error', () => undefined);
    await boss.start();
    const sent: string[] = [];
    for (const queue of names) for (const { id } of workshops) sent.push((await boss.send(queue, { workshopId: id })) as string);
    await boss.stop({ graceful: false });
    return () =>
      withClient(ownerUrl, async (client) => {
        const { rows } = await client.query<{ open: string }>("select count(*) as open from pgboss.job where id = any($1) and state <> 'completed'", [sent]); // prettier-ignore
        return rows[0]?.open === '0';
      });
  };
  const night = async (...names: string[]): Promise<void> => expect.poll(await send(names)).toBe(true);
  const count = (query: string): Promise<number> =>
    withClient(ownerUrl, async (client) => Number((await client.query<{ n: string }>(query)).rows[0]?.n));
  for (let n = 0; n < EACH; n += 1) {
    app.pass(DAY_S);
    await withClient(ownerUrl, (client) => client.query(POST_WAITS, [n, WAITING]));
    await send([QUEUES.redate, QUEUES.tell, QUEUES.post, ...(random() < 0.3 ? [QUEUES.backup] : [])]);
    await sleep(random() * QUEUE_WINDOW_MS);
    if (random() < 0.5) {
      await app.kill();
      await app.start();
    } else await killDatabase(dataFolder);
    await night(QUEUES.redate, QUEUES.tell, QUEUES.post);
  }
  await night(QUEUES.post);
  const dates = (await printsOf(app.database)).due_item;
  await night(QUEUES.redate);
  const differ = (await printsOf(app.database)).due_item?.hash === dates?.hash ? 0 : 1;
  const messages = await count('select count(*) as n from message');
  const lost = await count("select count(*) as n from message m where m.state <> 'sent' or not exists (select from stand_in_mail s where s.recipient = m.address and s.subject = m.subject)"); // prettier-ignore
  const twice = (await count('select count(*) as n from stand_in_mail')) - messages;
  const { findings } = await checkDatabase(ownerUrl, () => undefined);
  report([`night | ${EACH} | messages ${messages}, lost ${lost}, taken twice by the mail server ${twice} | dates that differ ${differ} | found by check ${findings.length}`]); // prettier-ignore
  await app.kill();
  expect([lost, differ, findings]).toEqual([0, 0, []]);
  expect(messages).toBeGreaterThan(0);
});
