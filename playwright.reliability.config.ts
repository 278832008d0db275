import { defineConfig } from '@playwright/test';
import path from 'node:path';
import base from './playwright.config.js';

/** Kills of server, database and tab. It starts a cluster of its own, so that it may kill that too. */
export default defineConfig({
  ...base,
  testDir: 'tests/reliability',
  outputDir: path.join(process.env.LAVACRUM_TEST_SCRATCH ?? 'test-results', 'kills'),
  globalSetup: undefined,
  projects: undefined,
  reporter: 'list',
});
