import { existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';

/** Name of a backup that is made by itself, so that a folder lists them in their order. */
const NAMED = /^lavacrum-\d{4}-\d{2}-\d{2}T\d{6}Z\.tar$/;

export const backupName = (now: Date): string => `lavacrum-${now.toISOString().slice(0, 19).replaceAll(':', '')}Z.tar`;

/** Backups of a folder, newest first; files of other names are somebody's own. */
export const backupsIn = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder)
        .filter((each) => NAMED.test(each))
        .sort()
        .reverse()
        .map((each) => path.join(folder, each))
    : [];

/** Instant at which a backup was made, by its name. */
export function madeAtOf(file: string): Date {
  const [day, time = ''] = path.basename(file, '.tar').slice('lavacrum-'.length).split('T');
  return new Date(`${day}T${time.slice(0, 2)}:${time.slice(2, 4)}:${time.slice(4, 6)}Z`);
}

/** Removes the oldest beyond so many. @returns what went */
export function keepNewest(folder: string, kept: number): string[] {
  const gone = backupsIn(folder).slice(kept);
  gone.forEach((file) => rmSync(file, { force: true }));
  return gone;
}
