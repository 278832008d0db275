import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { hostname } from 'node:os';
import path from 'node:path';
import { isAlive } from '../cluster/processes.js';

/** of which machine and process; the folder may be shared with other machines */
const MADE_BY = `${hostname().replace(/[^a-zA-Z0-9]/g, '')}-${process.pid}`;
const NAMED = /^\.(?:backup|restore)-(?:([a-zA-Z0-9]*)-(\d+)-)?/;
/** ms; older than any backup takes: whoever made it is gone, and its number may belong to another process by now */
const SURELY_LEFT_MS = 24 * 3_600_000;

/**
 * Works in a folder of its own beside `file`, on the same disk, and removes it. What a killed process left there goes first:
 * half a backup every night would fill the disk.
 */
export async function withScratch<T>(kind: 'backup' | 'restore', file: string, work: (folder: string) => Promise<T>): Promise<T> {
  const beside = path.dirname(path.resolve(file));
  readdirSync(beside)
    .filter((name) => isLeft(beside, name))
    .forEach((name) => rmSync(path.join(beside, name), { recursive: true, force: true }));
  const folder = mkdtempSync(path.join(beside, `.${kind}-${MADE_BY}-`));
  try {
    return await work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Whether a name is a scratch folder that nobody works in any more. */
function isLeft(folder: string, name: string): boolean {
  const made = NAMED.exec(name);
  if (!made) return false;
  const [host] = MADE_BY.split('-');
  const isHere = made[1] === host && made[2] !== undefined;
  if (isHere && !isAlive(Number(made[2]))) return true;
  // another one may have taken it away since the folder was read
  const at = statSync(path.join(folder, name), { throwIfNoEntry: false });
  return at !== undefined && at.isDirectory() && Date.now() - at.mtimeMs > SURELY_LEFT_MS;
}
