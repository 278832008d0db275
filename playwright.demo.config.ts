import { defineConfig } from '@playwright/test';
import path from 'node:path';
import base from './playwright.config.js';

/** Writes the demo before others need it. */
export default defineConfig({
  ...base,
  testDir: 'tests/demo',
  outputDir: path.join(process.env.LAVACRUM_TEST_SCRATCH ?? 'test-results', 'demo'),
  globalSetup: undefined,
  projects: undefined,
  reporter: 'list',
});
