import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { createDatabase, urlOfDatabase } from '../../server/operations/cluster/cluster.js';

/** A database as release 1 left it after a year of work: made by that program, dumped without its owners. @returns its name */
export async function release1Database(adminUrl: string): Promise<string> {
  const name = `release1_${randomUUID().replaceAll('-', '')}`;
  await createDatabase(urlOfDatabase(adminUrl, 'postgres'), name, 'template0');
  // newer dump programs bracket their output with commands that older readers do not know
  const dump = gunzipSync(readFileSync('tests/golden/release-1/database.sql.gz'))
    .toString()
    .replace(/^\\(un)?restrict .*$/gm, '');
  const rights =
    'GRANT USAGE ON SCHEMA public TO lavacrum_app; GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO lavacrum_app;';
  const restored = spawnSync('psql', ['-q', '-v', 'ON_ERROR_STOP=1', urlOfDatabase(adminUrl, name)], {
    input: `${dump}\n${rights}`,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  if (restored.stderr !== '') throw new Error(`the dump of release 1 does not come in: ${restored.stderr}`);
  return name;
}
