import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { migrateDatabase } from '../server/base/database/migrate.js';
import { createDatabase, removeCluster, startCluster, urlOfDatabase } from '../server/operations/cluster/cluster.js';

export const MIGRATIONS = 'server/base/database/migrations';

export interface OwnDatabase {
  /** as the owner of its tables */
  readonly url: string;
  /** a folder for whatever else is needed, which goes with it */
  readonly root: string;
}

/** Work on a database that nobody else uses, in a cluster of its own; both are gone afterwards. @param migrations makes the folder of its tables */
export async function inOwnDatabase<T>(
  work: (own: OwnDatabase) => Promise<T>,
  migrations = (_root: string): string => MIGRATIONS,
): Promise<T> {
  const root = mkdtempSync(path.join(tmpdir(), 'lavacrum-bench-'));
  const folder = path.join(root, 'data');
  const { url: clusterUrl } = await startCluster({ dataFolder: folder, throwaway: true });
  try {
    const url = urlOfDatabase(clusterUrl, 'bench');
    await createDatabase(urlOfDatabase(clusterUrl, 'postgres'), 'bench');
    await migrateDatabase(url, migrations(root));
    return await work({ url, root });
  } finally {
    removeCluster(folder);
    rmSync(root, { recursive: true, force: true });
  }
}

/** How long something takes, in ms. */
export async function milliseconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}
