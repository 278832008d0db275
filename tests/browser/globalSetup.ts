import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { RunningApp } from './app.js';
import { removeCluster, startCluster } from '../../server/operations/cluster/cluster.js';

/** The browser tests run against the built application: the one that `./lavacrum` starts. */
export default async function setup(): Promise<() => void> {
  if (!existsSync('dist/main.mjs') || !existsSync('dist/web/index.html')) throw new Error('build first: ./lavacrum test browser');
  const isOwn = !process.env.LAVACRUM_TEST_DATABASE;
  const dataFolder = path.join(mkdtempSync(path.join(tmpdir(), 'lavacrum-browser-')), 'data');
  if (isOwn) {
    const { url, serverUrl } = await startCluster({ dataFolder, throwaway: true });
    process.env.LAVACRUM_TEST_DATABASE = url;
    process.env.LAVACRUM_TEST_SERVER = serverUrl;
  }
  await RunningApp.writeDemo();
  return () => (isOwn ? removeCluster(dataFolder) : undefined);
}
