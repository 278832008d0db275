import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { spawn } from 'node:child_process';
import pg from 'pg';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { isAlive } from './processes.js';
import { removeCluster, startCluster, stopCluster, type Cluster } from './cluster.js';

const folders: string[] = [];
function scratch(): string {
  const folder = path.join(mkdtempSync(path.join(tmpdir(), 'lavacrum-cluster-')), 'data');
  folders.push(folder);
  return folder;
}
afterEach(() => {
  for (const folder of folders.splice(0)) removeCluster(folder);
});

async function query(cluster: Cluster, text: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  try {
    return (await client.query(text)).rows as unknown[];
  } finally {
    await client.end();
  }
}

/** Kills and waits of a quarter of a minute each: every night, not at every change (`./lavacrum reliability`). */
const atNight = (name: string, story: () => Promise<void>): void => {
  if (process.env.LAVACRUM_THOROUGH) it(name, story);
};

const start = (dataFolder: string): Promise<Cluster> => startCluster({ dataFolder, throwaway: true });

/** A child that saw its postmaster go has left by itself. */
function killIfThere(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ESRCH') throw error;
  }
}

describe('the private cluster', () => {
  it('is made at the first start, listens on loopback alone, and keeps its data over a stop', async () => {
    const folder = scratch();
    const cluster = await start(folder);
    await query(cluster, "create table kept as select 'water' as what");
    expect(await query(cluster, 'show listen_addresses')).toEqual([{ listen_addresses: '127.0.0.1' }]);
    expect(await query(cluster, 'show unix_socket_directories')).toEqual([{ unix_socket_directories: '' }]);
    expect(stopCluster(folder)).toBe(true);
    expect(stopCluster(folder)).toBe(false);
    expect(await query(await start(folder), 'select what from kept')).toEqual([{ what: 'water' }]);
  });

  atNight('of a test goes with the process that made it, even one that is killed', async () => {
    const folder = scratch();
    const made = path.join(path.dirname(folder), 'made.mjs');
    writeFileSync(
      made,
      `import { startCluster, clusterFolder } from ${JSON.stringify(path.resolve('server/operations/cluster/cluster.ts'))};
       await startCluster({ dataFolder: ${JSON.stringify(folder)}, throwaway: true });
       process.stdout.write(clusterFolder(${JSON.stringify(folder)}));
       setInterval(() => undefined, 1000);`,
    );
    const maker = spawn(process.execPath, ['--import', import.meta.resolve('tsx'), made], { stdio: ['ignore', 'pipe', 'inherit'] });
    const place = await new Promise<string>((resolve) => maker.stdout.once('data', (data: Buffer) => resolve(data.toString())));
    const pid = Number(readFileSync(path.join(place, 'postmaster.pid'), 'utf8').split('\n')[0]);
    maker.kill('SIGKILL');
    await vi.waitFor(() => expect([isAlive(pid), existsSync(place)]).toEqual([false, false]), { timeout: 120_000, interval: 100 });
  });

  it('started twice is the same cluster', async () => {
    const folder = scratch();
    expect(await start(folder)).toEqual(await start(folder));
  });

  it('starts after everything was killed, even when another program has the old process number', async () => {
    const folder = scratch();
    // with the disk waited for, as in real use: a crash must lose nothing
    const cluster = await startCluster({ dataFolder: folder });
    await query(cluster, 'create table kept as select 1 as one');
    const lock = path.join(cluster.folder, 'postmaster.pid');
    const text = readFileSync(lock, 'utf8');
    const pid = Number(text.split('\n')[0]);
    // a real crash: postmaster and all its children at once
    const children = readdirSync('/proc')
      .filter((each) => /^\d+$/.test(each) && readStatus(each) === pid)
      .map(Number);
    for (const each of [pid, ...children]) killIfThere(each);
    await vi.waitFor(() => expect([pid, ...children].filter(isAlive)).toEqual([]), { timeout: 120_000 });
    writeFileSync(lock, text.replace(String(pid), String(process.pid)));
    expect(await query(await startCluster({ dataFolder: folder }), 'select one from kept')).toEqual([{ one: 1 }]);
  });

  atNight('makes a creation anew that was interrupted', async () => {
    const folder = scratch();
    const first = await start(folder);
    stopCluster(folder);
    rmSync(path.join(first.folder, 'lavacrum-ready'));
    rmSync(path.join(first.folder, 'global'), { recursive: true });
    const cluster = await start(folder);
    expect(await query(cluster, 'select 1 as one')).toEqual([{ one: 1 }]);
  });

  it('never touches a finished cluster whose folder merely looks odd', async () => {
    const folder = scratch();
    const cluster = await start(folder);
    await query(cluster, 'create table kept as select 1 as one');
    stopCluster(folder);
    mkdirSync(path.join(cluster.folder, 'something-else'));
    expect(existsSync(path.join(cluster.folder, 'lavacrum-ready'))).toBe(true);
    expect(await query(await start(folder), 'select one from kept')).toEqual([{ one: 1 }]);
  });
});

/** Parent of a process, or null where it is gone. */
function readStatus(pid: string): number | null {
  try {
    return Number(/^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]);
  } catch {
    return null;
  }
}
