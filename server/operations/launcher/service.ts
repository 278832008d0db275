import { spawn } from 'node:child_process';
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { HealthAnswer } from '../../../core/base/health/parts.js';
import { partLines } from '../../../core/edge/words/health.js';
import { commandContains, isAlive, isPortFree, LaunchProblem } from '../cluster/processes.js';

/** The app's own process: one server, detached from the terminal that started it. */
export interface ServiceOptions extends Logins {
  readonly root: string;
  readonly dataFolder: string;
  readonly port: number;
}

/** How the server and the owner of its tables sign in to the database. */
export interface Logins {
  readonly databaseUrl: string;
  /** as the tables' owner, for migrations; the same where one login does both */
  readonly ownerUrl: string;
}

export const serverEnvironment = ({ dataFolder, port, databaseUrl, ownerUrl }: Omit<ServiceOptions, 'root'>): NodeJS.ProcessEnv => ({
  ...process.env,
  NODE_ENV: 'production',
  DATABASE_URL: databaseUrl,
  LAVACRUM_OWNER_URL: ownerUrl,
  LAVACRUM_PORT: String(port),
  LAVACRUM_DATA: dataFolder,
});

export const SERVER_FILE = path.join('dist', 'main.mjs');
/** ms until the first health answer is given up; a first start also writes the demo year */
const READY_TIMEOUT_MS = 180_000;

interface PidFile {
  readonly pid: number;
  readonly port: number;
}

export const pidFile = (dataFolder: string): string => path.join(dataFolder, 'server.json');

/** The running server, or null. A number left by `kill -9` counts only if that process is really ours. */
export function runningService(dataFolder: string): PidFile | null {
  if (!existsSync(pidFile(dataFolder))) return null;
  try {
    const found = JSON.parse(readFileSync(pidFile(dataFolder), 'utf8')) as PidFile;
    if (isAlive(found.pid) && commandContains(found.pid, SERVER_FILE)) return found;
  } catch {
    // an unreadable file says nothing about a running server
  }
  rmSync(pidFile(dataFolder), { force: true });
  return null;
}

/** When the running server was started. */
export const startedAtMs = (dataFolder: string): number => statSync(pidFile(dataFolder)).mtimeMs;

export type Health = 'ok' | 'not-ready' | 'away';

export async function healthAt(port: number): Promise<Health> {
  try {
    const response = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(3000) });
    return response.ok ? 'ok' : 'not-ready';
  } catch {
    return 'away';
  }
}

/** How the server does, in one word or a few: "well", or what is not. */
export async function healthWords(port: number): Promise<string> {
  try {
    const response = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(5000) });
    const health = (await response.json()) as HealthAnswer;
    if (health.status === 'ok') return 'well';
    if (health.status === 'unavailable') return health.database;
    return partLines(health.parts)
      .filter(({ well }) => !well)
      .map(({ name, says }) => `${name}: ${says}`)
      .join('; ');
  } catch {
    return `nobody answers on port ${port}`;
  }
}

/** @throws LaunchProblem where somebody listens on the port already: a stranger's answer there would pass for the new server's own */
export async function demandPort(port: number): Promise<void> {
  if (await isPortFree(port)) return;
  throw new LaunchProblem(
    `Port ${port} is taken: by another program, or by a Lavacrum with another data folder. Stop that one, or set LAVACRUM_PORT.`,
  );
}

/** Starts the server and waits until it is ready for people. */
export async function startService({ root, dataFolder, port, databaseUrl, ownerUrl }: ServiceOptions): Promise<void> {
  mkdirSync(dataFolder, { recursive: true });
  await demandPort(port);
  const logFile = path.join(dataFolder, 'server.log');
  const log = openSync(logFile, 'a');
  const child = spawn(process.execPath, [path.join(root, SERVER_FILE)], {
    cwd: root,
    detached: true,
    stdio: ['ignore', log, log],
    env: serverEnvironment({ dataFolder, port, databaseUrl, ownerUrl }),
  });
  closeSync(log);
  let exited = false;
  child.on('exit', () => {
    exited = true;
  });
  child.unref();
  if (child.pid === undefined) throw new LaunchProblem('the server process could not be started');
  writeFileSync(pidFile(dataFolder), JSON.stringify({ pid: child.pid, port } satisfies PidFile));
  const until = Date.now() + READY_TIMEOUT_MS;
  while (Date.now() < until) {
    if (exited) {
      rmSync(pidFile(dataFolder), { force: true });
      throw new LaunchProblem(`The server stopped at once. The end of ${logFile}:\n${tail(logFile)}`);
    }
    if ((await healthAt(port)) === 'ok') return;
    await sleep(200);
  }
  throw new LaunchProblem(`The server does not get ready. The end of ${logFile}:\n${tail(logFile)}`);
}

const tail = (file: string): string => readFileSync(file, 'utf8').trimEnd().split('\n').slice(-6).join('\n');

/** Stops the server and waits for it to end. */
export async function stopService(dataFolder: string): Promise<boolean> {
  const running = runningService(dataFolder);
  if (!running) return false;
  process.kill(running.pid, 'SIGTERM');
  for (let attempt = 0; isAlive(running.pid) && attempt < 60; attempt += 1) await sleep(100);
  if (isAlive(running.pid)) process.kill(running.pid, 'SIGKILL');
  rmSync(pidFile(dataFolder), { force: true });
  return true;
}
