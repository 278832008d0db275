import { existsSync, statSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import pg from 'pg';
import { DEMO_SIGN_IN } from '../../../demo/people.js';
import { freeBytes, LOW_DISK_BYTES } from '../backup/archive.js';
import { serve } from './serve.js';
import { licencePage, licencesOf } from '../licences/licences.js';
import { backupCommand, checkCommand, restoreCommand, type Keeping } from '../backup/commands.js';
import { growCommand } from '../grow/commands.js';
import { keyCommand, passwordCommand, workshopCommand } from '../people/commands.js';
import { isRunning, startCluster, stopCluster } from '../cluster/cluster.js';
import { readPort } from './port.js';
import { LaunchProblem } from '../cluster/processes.js';
import { demandPort, healthWords, type Logins, healthAt, runningService, startedAtMs, startService, stopService } from './service.js';
import { runTests } from './tests.js';

const root = process.env.LAVACRUM_ROOT ?? process.cwd();

interface Settings {
  readonly port: number;
  readonly dataFolder: string;
  /** a server of the user's own, or null for the private cluster */
  readonly ownDatabase: string | null;
  readonly demo: boolean;
}

function settings(): Settings {
  return {
    port: readPort(process.env.LAVACRUM_PORT ?? '4180'),
    dataFolder: path.resolve(root, process.env.LAVACRUM_DATA ?? '.data'),
    ownDatabase: process.env.DATABASE_URL ?? null,
    demo: process.env.LAVACRUM_DEMO !== '0',
  };
}

const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** True when the programs were built after the running server was started: it would go on with the old ones. */
function builtSince(dataFolder: string): boolean {
  const stamp = path.join(root, 'dist', '.programs');
  return existsSync(stamp) && statSync(stamp).mtimeMs > startedAtMs(dataFolder);
}

async function start(): Promise<void> {
  const own = settings();
  const running = runningService(own.dataFolder);
  if (running && !builtSince(own.dataFolder) && (await healthAt(running.port)) === 'ok')
    return announce(running.port, own.demo, 'Lavacrum is already running');
  if (running) await stopService(own.dataFolder);
  // before a cluster is made for a server that cannot listen
  await demandPort(own.port);
  const hadDatabase = own.ownDatabase !== null || isRunning(own.dataFolder);
  try {
    await startService({ root, dataFolder: own.dataFolder, port: own.port, ...(await logins(own)) });
  } catch (error) {
    // what did not start leaves nothing running behind it
    await stopService(own.dataFolder);
    if (!hadDatabase) stopCluster(own.dataFolder);
    throw error;
  }
  announce(own.port, own.demo, 'Lavacrum is running');
}

/** How the server and the owner of its tables sign in: to the private cluster, which starts if need be, or to the user's own. */
async function logins({ ownDatabase, dataFolder }: Settings): Promise<Logins> {
  if (ownDatabase !== null) return { databaseUrl: ownDatabase, ownerUrl: process.env.LAVACRUM_OWNER_URL ?? ownDatabase };
  const { url, serverUrl } = await startCluster({ dataFolder });
  return { databaseUrl: serverUrl, ownerUrl: url };
}

function announce(port: number, demo: boolean, words: string): void {
  say(`\n  ${words}:  http://localhost:${port}`);
  say(
    demo
      ? `  Demo sign-in:         ${DEMO_SIGN_IN.email}  /  ${DEMO_SIGN_IN.password}`
      : '  No demo data: the first visit creates the workshop and its lead.',
  );
  say('  Stop it with          ./lavacrum stop\n');
}

async function stop(): Promise<void> {
  const { dataFolder, ownDatabase } = settings();
  const server = await stopService(dataFolder);
  const cluster = ownDatabase === null && stopCluster(dataFolder);
  say(server || cluster ? 'Stopped. The data stay where they are.' : 'Nothing was running.');
}

/** Erases everything in the database and writes the demo anew, after asking. */
async function resetDemo(): Promise<void> {
  const own = settings();
  const { databaseUrl, ownerUrl } = await logins(own);
  const { host, pathname } = new URL(databaseUrl);
  if (!process.argv.includes('--yes')) {
    const prompt = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await Promise.race([
      prompt.question(
        `This erases every owner, system and record in ${host}${pathname} and writes the demo anew.\nType  erase  to go on: `,
      ),
      new Promise<string>((resolve) => prompt.on('close', () => resolve(''))),
    ]);
    prompt.close();
    if (answer.trim() !== 'erase') return say('Nothing was changed.');
  }
  await stopService(own.dataFolder);
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  await client.query(
    'drop schema if exists drizzle cascade; drop schema if exists server cascade; drop schema public cascade; create schema public',
  );
  await client.end();
  await startService({ root, dataFolder: own.dataFolder, port: own.port, databaseUrl, ownerUrl });
  announce(own.port, own.demo, 'The demo was written anew. Lavacrum is running');
}

/** What commands on the database work with; the private cluster starts if need be, and stops again if it was not running. */
async function keeping<T>(work: (place: Keeping) => Promise<T>): Promise<T> {
  const own = settings();
  const wasRunning = own.ownDatabase !== null || isRunning(own.dataFolder);
  const { ownerUrl } = await logins(own);
  try {
    return await work({ ownerUrl, dataFolder: own.dataFolder, migrations: path.join(root, 'dist', 'migrations'), now: new Date(), say });
  } finally {
    if (!wasRunning) stopCluster(own.dataFolder);
  }
}

const words = process.argv.slice(3);

async function restore(): Promise<void> {
  await keeping(async (place) => {
    await stopService(place.dataFolder);
    await restoreCommand(place, words);
  });
}

async function check(): Promise<void> {
  if (!(await keeping(checkCommand))) process.exitCode = 1;
}

/** One look for a timer of the machine: fails, with words, where the server is not well or its disk fills up. */
async function watch(): Promise<void> {
  const { port, dataFolder } = settings();
  const health = await healthWords(port);
  const free = freeBytes(dataFolder);
  say(`${health}; ${(free / 1e9).toFixed(1)} GB free`);
  if (health !== 'well' || free < LOW_DISK_BYTES) process.exitCode = 1;
}

/** Writes the list of dependencies with their licences. */
async function licences(): Promise<void> {
  const rows = licencesOf(JSON.parse(readFileSync(path.join(root, 'package-lock.json'), 'utf8')) as Parameters<typeof licencesOf>[0]);
  writeFileSync(path.join(root, 'docs', 'licences.md'), licencePage(rows));
  say(`docs/licences.md lists ${rows.length} packages.`);
}

const COMMANDS: Record<string, () => Promise<void>> = {
  start,
  stop,
  'reset-demo': resetDemo,
  backup: () => keeping((place) => backupCommand(place, words)),
  restore,
  check,
  serve: () => {
    const own = settings();
    return serve({ root, ...own, logins: () => logins(own), say });
  },
  watch,
  licences,
  password: () => keeping((place) => passwordCommand(place, words)),
  workshop: () => keeping((place) => workshopCommand(place, words)),
  key: () => keeping((place) => keyCommand(place, words)),
  grow: () => keeping((place) => growCommand(place, words)),
  test: async () => {
    process.exitCode = await runTests(root, words);
  },
};

try {
  const command = COMMANDS[process.argv[2] ?? ''];
  if (!command) throw new LaunchProblem(`unknown command; use one of ${Object.keys(COMMANDS).join(', ')}, calc`);
  await command();
} catch (error) {
  if (!(error instanceof LaunchProblem)) throw error;
  process.stderr.write(`\nlavacrum: ${error.message}\n`);
  process.exitCode = 1;
}
