import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { migrateDatabase } from '../../server/base/database/migrate.js';
import { createDatabase, removeCluster, startCluster, urlOfDatabase } from '../../server/operations/launcher/cluster.js';

export const TEMPLATE = 'lavacrum_template';

/** A PostgreSQL for the tests: the one `./lavacrum test` started, or a throwaway one. One migrated database is the template of all. */
export default async function setup(): Promise<() => void> {
  const given = process.env.LAVACRUM_TEST_DATABASE;
  const folder = given ? null : mkdtempSync(path.join(tmpdir(), 'lavacrum-integration-'));
  const url = given || (await startCluster({ dataFolder: path.join(folder as string, 'data'), throwaway: true })).url;
  process.env.LAVACRUM_TEST_DATABASE = url;
  await createDatabase(urlOfDatabase(url, 'postgres'), TEMPLATE);
  await migrateDatabase(urlOfDatabase(url, TEMPLATE), 'server/base/database/migrations');
  return () => {
    if (folder) removeCluster(path.join(folder, 'data'));
  };
}
