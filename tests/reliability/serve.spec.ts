import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { clusterFolder } from '../../server/operations/cluster/cluster.js';
import { freePort, isAlive } from '../../server/operations/cluster/processes.js';
import { endDatabase } from './victims.js';

/** The service of a machine: what its unit runs. */
test('serve brings back a server and a database that were killed, and ends both when it is told to', { tag: '@thorough' }, async () => {
  const dataFolder = path.join(mkdtempSync(path.join(tmpdir(), 'lavacrum-serve-')), 'data');
  const port = await freePort();
  const env = { ...process.env, LAVACRUM_DATA: dataFolder, LAVACRUM_PORT: String(port), LAVACRUM_DEMO: '0', LAVACRUM_LOG: 'warn' };
  const command = (...words: string[]): ChildProcess =>
    spawn(process.execPath, ['dist/launcher.mjs', ...words], { env, stdio: ['ignore', 'pipe', 'pipe'] });
  const health = () =>
    fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(20_000) }).then(
      (answer) => answer.ok,
      () => false,
    );
  const well = () => expect.poll(health).toBe(true);
  /** 0 while there is none */
  const pidIn = (file: string, read: (text: string) => number): number => (existsSync(file) ? read(readFileSync(file, 'utf8')) : 0);
  const serverPid = (): number =>
    pidIn(path.join(dataFolder, 'server.json'), (text) => (JSON.parse(text || '{"pid":0}') as { pid: number }).pid);
  const databasePid = (): number => pidIn(path.join(clusterFolder(dataFolder), 'postmaster.pid'), (text) => Number(text.split('\n')[0]));
  const watch = (): Promise<number> => new Promise((resolve) => command('watch').once('exit', (code) => resolve(code ?? 1)));
  const service = command('serve');
  try {
    await well();
    await expect.poll(watch).toBe(0);

    const first = serverPid();
    process.kill(first, 'SIGKILL');
    await expect.poll(() => ![0, first].includes(serverPid()) && isAlive(serverPid())).toBe(true);
    await well();

    const postmaster = databasePid();
    await endDatabase(dataFolder);
    await expect.poll(() => ![0, postmaster].includes(databasePid()) && isAlive(databasePid())).toBe(true);
    await well();

    const server = serverPid();
    const ended = new Promise<number | null>((resolve) => service.once('exit', resolve));
    service.kill('SIGTERM');
    expect(await ended).toBe(0);
    expect([isAlive(server), databasePid()]).toEqual([false, 0]);
    expect(await watch()).toBe(1);
  } finally {
    service.kill('SIGKILL');
    execFileSync(process.execPath, ['dist/launcher.mjs', 'stop'], { env });
    rmSync(path.dirname(dataFolder), { recursive: true, force: true });
    rmSync(clusterFolder(dataFolder), { recursive: true, force: true });
  }
});
