import path from 'node:path';
import { checkDatabase } from '../check/check.js';
import { LaunchProblem } from '../cluster/processes.js';
import { makeBackup, restoreBackup, sizeOf } from './archive.js';
import { backupName } from './keep.js';

/** Where commands find the database and leave their files. */
export interface Keeping {
  readonly ownerUrl: string;
  readonly dataFolder: string;
  readonly migrations: string;
  readonly now: Date;
  readonly say: (words: string) => void;
}

const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;
const rowsOf = (tables: Readonly<Record<string, { rows: number }>>): number =>
  Object.values(tables).reduce((sum, { rows }) => sum + rows, 0);

export const backupFolder = (dataFolder: string): string => process.env.LAVACRUM_BACKUPS ?? path.join(dataFolder, 'backups');

/** `./lavacrum backup [FILE]` */
export async function backupCommand({ ownerUrl, dataFolder, now, say }: Keeping, [given]: readonly string[]): Promise<void> {
  const file = given ? path.resolve(given) : path.join(backupFolder(dataFolder), backupName(now));
  const { tables } = await makeBackup({ ownerUrl, file, now });
  say(`Backed up ${rowsOf(tables)} rows of ${Object.keys(tables).length} tables to ${file} (${megabytes(sizeOf(file))}).`);
}

/** `./lavacrum restore FILE [--replace]` */
export async function restoreCommand({ ownerUrl, migrations, now, say }: Keeping, words: readonly string[]): Promise<void> {
  const [file] = words.filter((each) => !each.startsWith('--'));
  if (!file) throw new LaunchProblem('say which file: ./lavacrum restore FILE [--replace]');
  const { manifest, aside } = await restoreBackup({
    ownerUrl,
    file: path.resolve(file),
    migrations,
    replace: words.includes('--replace'),
    now,
  });
  say(
    `Restored ${rowsOf(manifest.tables)} rows of ${Object.keys(manifest.tables).length} tables, each counted and hashed, as they were on ${manifest.madeAt}.`,
  );
  if (aside !== null) say(`What stood there before is kept as the database ${aside}.`);
  say('Start it with  ./lavacrum start');
}

/** `./lavacrum check` @returns whether everything holds */
export async function checkCommand({ ownerUrl, say }: Keeping): Promise<boolean> {
  const { looked, findings } = await checkDatabase(ownerUrl, (progress) => say(`  ${progress}`));
  for (const [what, count] of Object.entries(looked)) say(`  ${String(count).padStart(8)}  ${what}`);
  for (const { what, where } of findings) say(`WRONG  ${where}: ${what}`);
  say(findings.length === 0 ? 'Everything holds.' : `${findings.length} ${findings.length === 1 ? 'thing does' : 'things do'} not hold.`);
  return findings.length === 0;
}
