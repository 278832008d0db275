import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { isAlive } from '../cluster/processes.js';

/** of which kind, and made by which process */
const NAMED = /^\.(?:backup|restore)-(\d+)-/;
/** ms; older than any backup takes: its number may belong to another process by now */
const SURELY_LEFT_MS = 24 * 3_600_000;

/**
 * Works in a folder of its own beside `file`, on the same disk, and removes it. What a killed process left there goes first:
 * half a backup every night would fill the disk.
 */
export async function withScratch<T>(kind: 'backup' | 'restore', file: string, work: (folder: string) => Promise<T>): Promise<T> {
  const beside = path.dirname(path.resolve(file));
  removeLeft(beside);
  const folder = mkdtempSync(path.join(beside, `.${kind}-${process.pid}-`));
  try {
    return await work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function removeLeft(folder: string): void {
  for (const name of readdirSync(folder)) {
    const pid = Number(NAMED.exec(name)?.[1] ?? '0');
    if (pid === 0) continue;
    const full = path.join(folder, name);
    const isLeft = pid !== process.pid && (!isAlive(pid) || Date.now() - statSync(full).mtimeMs > SURELY_LEFT_MS);
    if (isLeft) rmSync(full, { recursive: true, force: true });
  }
}
