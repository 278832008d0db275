import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { isRunning, stopCluster } from '../cluster/cluster.js';
import { LaunchProblem } from '../cluster/processes.js';
import { pidFile, SERVER_FILE, serverEnvironment, type Logins } from './service.js';

/** ms; between looks at the database, and before what ended is started again: doubled at each failure, back at once after a good while */
const SERVE = { lookMs: 2000, firstWaitMs: 1000, mostWaitMs: 60_000, goodWhileMs: 60_000 } as const;

export interface Served {
  readonly root: string;
  readonly dataFolder: string;
  readonly port: number;
  /** null: the private cluster, which is looked after as well */
  readonly ownDatabase: string | null;
  /** brings the database up where it is down, and says how to sign in to it */
  readonly logins: () => Promise<Logins>;
  readonly say: (words: string) => void;
}

/** Waits longer after each failure, and not at all after something that held for a while. */
class Patience {
  private waitMs: number = SERVE.firstWaitMs;
  private sinceMs = Date.now();

  async after(): Promise<void> {
    if (Date.now() - this.sinceMs > SERVE.goodWhileMs) this.waitMs = SERVE.firstWaitMs;
    await sleep(this.waitMs);
    this.waitMs = Math.min(SERVE.mostWaitMs, 2 * this.waitMs);
    this.sinceMs = Date.now();
  }
}

/**
 * Runs database and server in the foreground until it is told to stop, and brings back whichever ends: for a service unit
 * of the machine. Neither waits for the other: the server goes on by itself once the database is back.
 */
export async function serve({ root, dataFolder, port, ownDatabase, logins, say }: Served): Promise<void> {
  let stopping = false;
  let child: ChildProcess | null = null;
  const stop = (): void => {
    stopping = true;
    child?.kill('SIGTERM');
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);

  const keepDatabase = async (): Promise<void> => {
    const patience = new Patience();
    while (!stopping && ownDatabase === null) {
      await sleep(SERVE.lookMs);
      if (stopping || isRunning(dataFolder)) continue;
      say('The database is down; starting it again.');
      await logins().catch((error: unknown) => say(error instanceof LaunchProblem ? error.message : 'The database does not start.'));
      if (!isRunning(dataFolder)) await patience.after();
    }
  };

  const keepServer = async (): Promise<void> => {
    const patience = new Patience();
    while (!stopping) {
      const given = await logins().catch((error: unknown) => {
        say(error instanceof LaunchProblem ? error.message : 'The database does not start.');
        return null;
      });
      if (given && !stopping) {
        const started = spawn(process.execPath, [path.join(root, SERVER_FILE)], {
          cwd: root,
          stdio: 'inherit',
          env: serverEnvironment({ dataFolder, port, ...given }),
        });
        child = started;
        if (started.pid !== undefined) writeFileSync(pidFile(dataFolder), JSON.stringify({ pid: started.pid, port }));
        await new Promise<void>((resolve) => {
          started.once('exit', () => resolve());
          started.once('error', () => resolve());
        });
        child = null;
        rmSync(pidFile(dataFolder), { force: true });
        if (!stopping) say('The server ended; starting it again.');
      }
      if (!stopping) await patience.after();
    }
  };

  await Promise.all([keepServer(), keepDatabase()]);
  if (ownDatabase === null) stopCluster(dataFolder);
}
