import { RunningApp } from '../browser/app.js';
import { execFileSync, spawn } from 'node:child_process';
import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { clusterFolder, startCluster } from '../../server/operations/cluster/cluster.js';

/** How many kills, and from which seed; a few belong to every test. */
export const KILLS = { runs: Number(process.env.LAVACRUM_KILL_RUNS ?? '3'), seed: Number(process.env.LAVACRUM_KILL_SEED ?? '1') };
/** ms for so many kills: against hanging, on a machine that others use as well */
export const patienceMs = (kills: number): number => 1_800_000 + kills * 120_000;
/** share of all kills that fall at the bench; the others are spread over the work that nobody watches */
export const AT_BENCH = 0.6;

export function endAtOnce(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // already gone
  }
}

/** Every process of the database, as a crash of the machine takes them. */
export async function endDatabase(dataFolder: string): Promise<void> {
  const [pid] = readFileSync(path.join(clusterFolder(dataFolder), 'postmaster.pid'), 'utf8').split('\n');
  const children = execFileSync('sh', ['-c', `ps -o pid= --ppid ${Number(pid)} || true`], { encoding: 'utf8' })
    .trim()
    .split(/\s+/);
  const all = [pid, ...children].map(Number).filter((id) => id > 0);
  all.forEach(endAtOnce);
  // children of a killed postmaster go by themselves; a new one must not meet them
  while (all.some((each) => existsSync(`/proc/${each}`))) await sleep(20);
}

/** It is killed and starts again. */
export async function killDatabase(dataFolder: string): Promise<void> {
  await endDatabase(dataFolder);
  await startCluster({ dataFolder, endsWithMe: true });
}

/**
 * A cluster that may be killed, for every application that is opened from here on.
 * @param demo brought back from its file where there is one; `anew`: each application writes its own, as on a disk that has no room twice
 */
export async function ownCluster(dataFolder: string, demo: 'kept' | 'anew' = 'kept'): Promise<void> {
  const { url, serverUrl } = await startCluster({ dataFolder, endsWithMe: true });
  process.env.LAVACRUM_TEST_DATABASE = url;
  process.env.LAVACRUM_TEST_SERVER = serverUrl;
  // a worker that ran another file before this one has a demo elsewhere
  delete process.env.LAVACRUM_TEST_DEMO;
  if (demo === 'kept' && existsSync(process.env.LAVACRUM_TEST_DEMO_FILE ?? '')) await RunningApp.writeDemo();
}

/** A command in a group of its own, so that what it started can be killed with it. */
export class Command {
  readonly ended: Promise<number | null>;
  private said = '';
  private readonly pid: number;

  constructor(program: string, args: readonly string[], env: NodeJS.ProcessEnv) {
    const child = spawn(program, args, { env: { ...process.env, ...env }, detached: true, stdio: ['ignore', 'pipe', 'pipe'] });
    this.pid = child.pid as number;
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => (this.said += part.toString()));
    this.ended = new Promise((resolve) => child.once('exit', resolve));
  }

  get words(): string {
    return this.said;
  }

  /** @param alone the command alone goes, and what it started is left to itself */
  async kill(alone: boolean): Promise<void> {
    endAtOnce(alone ? this.pid : -this.pid);
    await this.ended;
  }
}

/** Prints a table of figures, and leaves it where somebody asked for it. */
export function report(lines: readonly string[]): void {
  const text = `${lines.join('\n')}\n`;
  process.stdout.write(text);
  if (process.env.LAVACRUM_KILL_REPORT) appendFileSync(process.env.LAVACRUM_KILL_REPORT, text);
}
