import { execFileSync } from 'node:child_process';
import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import type { Procedure } from '../../core/bench/runs/procedure.js';
import { DEMO_SIGN_IN } from '../../demo/people.js';
import { withClient } from '../../server/base/database/client.js';
import { differences, fingerprintsOf } from '../../server/operations/backup/fingerprints.js';
import { checkDatabase } from '../../server/operations/check/check.js';
import { createDatabase, removeCluster, startCluster, urlOfDatabase } from '../../server/operations/cluster/cluster.js';
import { RunningApp } from '../browser/app.js';
import { Visitor } from '../integration/bench.js';
import { Command, ownCluster, report } from './victims.js';

/** A small disk of its own, filled up while somebody writes at the bench. Mounting one needs root, as CI has it. */
const DISK_MB = 260;
/** what is left for a restore: enough to begin, too little to end */
const ROOM_MB = 8;
/** entries tried on a full disk before it must have refused some */
const TRIES = 400;

const folder = mkdtempSync(path.join(tmpdir(), 'lavacrum-disk-'));
const disk = path.join(folder, 'disk');
const dataFolder = path.join(disk, 'data');
const ballast = path.join(disk, 'ballast');
let mounted = false;

test.beforeAll(() => {
  // the database's own user passes through it
  chmodSync(folder, 0o755);
  mkdirSync(disk);
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m,mode=755`, 'tmpfs', disk], { stdio: 'ignore' });
    mounted = true;
  } catch {
    // said by the test that is left out
  }
});
test.afterAll(() => {
  if (!mounted) return;
  removeCluster(dataFolder);
  execFileSync('umount', ['-l', disk]);
  rmSync(folder, { recursive: true });
});

/** Not a byte is left for anybody. */
function fill(): void {
  for (let size = 1 << 20; size >= 1024; size /= 4) {
    for (;;) {
      try {
        writeFileSync(ballast, randomBytes(size), { flag: 'a' });
      } catch {
        break;
      }
    }
  }
  expect(statfsSync(disk).bavail).toBe(0);
}

interface Stored {
  readonly events: { id: string; body: { type: string } }[];
}

test('a disk that fills up refuses in words, keeps what was taken, and goes on once there is room', { tag: '@thorough' }, async () => {
  test.skip(!mounted, 'a disk of its own cannot be mounted here');
  await ownCluster(dataFolder, 'anew');
  const app = await RunningApp.open(true);
  const lead = new Visitor(app.url);
  await lead.signIn(DEMO_SIGN_IN.email, DEMO_SIGN_IN.password);
  const { body: benches } = await lead.get<{ runs: { id: string }[] }>('/benches');
  const run = benches.runs[0]?.id as string;
  const { procedure } = (await lead.get<{ run: { procedure: Procedure } }>(`/runs/${run}`)).body.run;
  const write = (id: string) =>
    lead.send<{ error?: { code: string; message: string } }>('POST', `/api/runs/${run}/events`, {
      id,
      at: new Date().toISOString(),
      body: { type: 'note', step: procedure.steps[0]?.id, text: randomBytes(330).toString('base64') },
    });
  const taken = [randomUUID()];
  expect(await write(taken[0] as string)).toMatchObject({ status: 201 });

  fill();
  const refused: string[] = [];
  for (let n = 0; n < TRIES && refused.length < 5; n += 1) {
    const id = randomUUID();
    const { status, body } = await write(id);
    if (status < 300) taken.push(id);
    else {
      expect([status, body.error?.code, body.error?.message]).toEqual([503, 'database-away', expect.stringMatching(/disk|database/)]);
      refused.push(id);
    }
  }
  expect(refused.length).toBeGreaterThan(0);
  const env = { DATABASE_URL: 'postgres://none', LAVACRUM_OWNER_URL: app.ownerUrl, LAVACRUM_DATA: path.join(disk, 'work') };
  const command = async (...words: string[]): Promise<string> => {
    const made = new Command(process.execPath, ['dist/launcher.mjs', ...words], env);
    return `${await made.ended} ${made.words}`;
  };
  // a backup that does not fit says so, and leaves no half of itself
  const file = path.join(disk, 'kept', 'one.tar');
  const failed = await command('backup', file);
  expect(failed).toMatch(/^1 .*(No space left on device|could not)/s);
  expect(readdirSync(path.dirname(file))).toEqual([]);

  rmSync(ballast);
  // a database that gave up is brought back by whoever watches it
  await startCluster({ dataFolder });
  await expect.poll(async () => (await write(refused[0] as string)).status).toBeLessThan(300);
  for (const id of refused) expect((await write(id)).status).toBeLessThan(300);
  const { events } = (await lead.get<Stored>(`/runs/${run}`)).body;
  const times = (id: string): number => events.filter((event) => event.id === id).length;
  const lost = taken.filter((id) => times(id) === 0).length;
  const twice = [...taken, ...refused].filter((id) => times(id) > 1).length;
  const { findings } = await checkDatabase(app.ownerUrl, () => undefined);
  report([
    `disk full | taken ${taken.length}, refused ${refused.length} | lost ${lost}, twice ${twice} | found by check ${findings.length}`,
  ]);
  await app.kill();
  expect([lost, twice, findings]).toEqual([0, 0, []]);
  expect(refused.map(times)).toEqual(refused.map(() => 1));

  // nor does a restore that does not fit touch what stands, or leave its half in the way
  const whole = path.join(folder, 'whole.tar');
  expect(await command('backup', whole)).toContain('0 Backed up');
  const target = 'restored_into';
  await createDatabase(urlOfDatabase(app.ownerUrl, 'postgres'), target, app.database);
  const into = { ...env, LAVACRUM_OWNER_URL: urlOfDatabase(app.ownerUrl, target) };
  const before = await withClient(into.LAVACRUM_OWNER_URL, fingerprintsOf);
  const room = randomBytes(1 << 20);
  while (statfsSync(disk).bavail * statfsSync(disk).bsize > ROOM_MB << 20) writeFileSync(ballast, room, { flag: 'a' });
  const restore = (): Command => new Command(process.execPath, ['dist/launcher.mjs', 'restore', whole, '--replace'], into);
  const first = restore();
  expect([await first.ended, first.words]).toEqual([1, expect.stringContaining('failed')]);
  rmSync(ballast);
  await startCluster({ dataFolder });
  expect(differences(before, await withClient(into.LAVACRUM_OWNER_URL, fingerprintsOf))).toEqual([]);
  // where the database itself gave up, the half is still there: the next one takes it away
  const second = restore();
  expect([await second.ended, second.words]).toEqual([0, expect.stringContaining('Restored')]);
  const names = await withClient(app.ownerUrl, async (client) => (await client.query<{ name: string }>('select datname as name from pg_database')).rows); // prettier-ignore
  expect(names.filter(({ name }) => name.endsWith('_restoring'))).toEqual([]);
});
