import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { readFileSync, readlinkSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import path from 'node:path';

/** A problem the newcomer can act on; printed without a stack. */
export class LaunchProblem extends Error {}

export const isRoot = (): boolean => process.getuid?.() === 0;

export interface Finished {
  readonly code: number;
  readonly stdout: string;
  readonly stderr: string;
}

/** Runs a short command to its end. `cwd` is the root folder, because another user may not read the present one. */
export function runQuietly(command: string, args: readonly string[]): Finished {
  const result = spawnSync(command, args, { cwd: '/', encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
  return { code: result.status ?? 1, stdout: result.stdout ?? '', stderr: result.stderr ?? result.error?.message ?? '' };
}

/** Runs a command that prints nothing of use. @throws LaunchProblem with what it said on standard error */
export function runToEnd(command: string, args: readonly string[], env: Record<string, string> = {}): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { env: { ...process.env, ...env }, stdio: ['ignore', 'ignore', 'pipe'] });
    let said = '';
    child.stderr.on('data', (part: Buffer) => (said = `${said}${part.toString()}`.slice(-MOST_SAID)));
    const fail = (why: string): void => reject(new LaunchProblem(`${path.basename(command)} failed: ${why}`));
    child.once('error', (error) => fail(error.message));
    child.once('close', (code) => (code === 0 ? resolve() : fail(said.trim() || `code ${code}`)));
  });
}

/** characters of what a command said that are kept */
const MOST_SAID = 2000;

/** Commands under way: they end with this process, however it is asked to. */
const underWay = new Set<ChildProcess>();

/** Ends what was started here when somebody ends this process. */
export function endChildrenWithMe(): void {
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
    process.once(signal, () => {
      for (const child of underWay) child.kill(signal);
      process.kill(process.pid, signal);
    });
  }
}

export interface LongRun {
  readonly cwd: string;
  readonly env?: NodeJS.ProcessEnv;
  /** shows what is printed as it comes, or once the command has ended: two at a time stay readable */
  readonly show: 'as it comes' | 'at its end';
}

/** Runs a long command and shows what it prints. @returns its exit code; 127 where it cannot be started */
export function runShown(command: string, args: readonly string[], { cwd, env, show }: LongRun): Promise<number> {
  return new Promise((resolve) => {
    const out = show === 'as it comes' ? 'inherit' : 'pipe';
    const child = spawn(command, args, { cwd, env: env ?? process.env, stdio: ['ignore', out, out] });
    const printed: Buffer[] = [];
    child.stdout?.on('data', (part: Buffer) => printed.push(part));
    child.stderr?.on('data', (part: Buffer) => printed.push(part));
    underWay.add(child);
    const end = (code: number): void => {
      underWay.delete(child);
      process.stdout.write(Buffer.concat(printed));
      resolve(code);
    };
    child.once('error', () => end(127));
    child.once('close', (code) => end(code ?? 1));
  });
}

export function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** Folder a process works in, or null where it is gone or not ours to see. */
export function cwdOf(pid: number): string | null {
  try {
    return readlinkSync(`/proc/${pid}/cwd`);
  } catch {
    return null;
  }
}

/** True when the process with this number is one of our servers and not a stranger that got the number later. */
export function commandContains(pid: number, text: string): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(text);
  } catch {
    return false;
  }
}

/** A port on loopback that nobody uses. */
export const freePort = (): Promise<number> => tryPort(0);

/** Whether nobody listens there. */
export const isPortFree = (port: number): Promise<boolean> => tryPort(port).then(() => true, () => false); // prettier-ignore

/** Listens for a moment. @throws where somebody else does */
function tryPort(wanted: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.on('error', reject);
    probe.listen(wanted, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}
