import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { migrateDatabase } from '../../server/base/database/migrate.js';
import { createDatabase, removeCluster, startCluster, urlOfDatabase } from '../../server/operations/cluster/cluster.js';

export const TEMPLATE = 'lavacrum_template';

/** A PostgreSQL for the tests: the one `./lavacrum test` started, or a throwaway one. One migrated database is the template of all. */
export default async function setup(): Promise<() => void> {
  const given = process.env.LAVACRUM_TEST_DATABASE;
  const folder = given ? null : mkdtempSync(path.join(tmpdir(), 'lavacrum-integration-'));
  if (folder) {
    const cluster = await startCluster({ dataFolder: path.join(folder, 'data'), throwaway: true });
    process.env.LAVACRUM_TEST_DATABASE = cluster.url;
    process.env.LAVACRUM_TEST_SERVER = cluster.serverUrl;
  }
  const url = process.env.LAVACRUM_TEST_DATABASE as string;
  await createDatabase(urlOfDatabase(url, 'postgres'), TEMPLATE);
  await migrateDatabase(urlOfDatabase(url, TEMPLATE), 'server/base/database/migrations');
  return () => {
    if (folder) removeCluster(path.join(folder, 'data'));
  };
}
