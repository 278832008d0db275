import path from 'node:path';
import { defineConfig } from '@playwright/test';

const scratch = process.env.LAVACRUM_TEST_SCRATCH ?? 'test-results';

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: path.join(scratch, 'browser'),
  globalSetup: './tests/browser/globalSetup.ts',
  // one server at a time: the machine has two cores, and a browser takes one
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 10_000 },
  retries: 0,
  reporter: [['list'], ['json', { outputFile: path.join(scratch, 'browser.json') }]],
  use: {
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
    contextOptions: { reducedMotion: 'reduce' },
    trace: 'retain-on-failure',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--disable-background-networking', '--no-first-run', '--disable-sync'] },
  },
});
