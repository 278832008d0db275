import { existsSync } from 'node:fs';
import path from 'node:path';
import { defineConfig } from '@playwright/test';

/** Debian's headless browser: a window nobody sees costs a third of the time; where it is missing, the whole one. */
const BROWSER = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((program) => existsSync(program)) ?? '';
const LONG = /(simulatedBench|service|slice|views|waits)\.spec\.ts$/;
const scratch = process.env.LAVACRUM_TEST_SCRATCH ?? 'test-results';

export default defineConfig({
  testDir: 'tests/browser',
  // the longest first: what begins last ends alone
  projects: [
    { name: 'stories', testMatch: LONG },
    { name: 'pages', testIgnore: LONG },
  ],
  // what integration tests tell as well, or takes minutes: every night, not at every change (`./lavacrum reliability`, LAVACRUM_THOROUGH=1)
  grepInvert: process.env.LAVACRUM_THOROUGH ? undefined : /@thorough/,
  outputDir: path.join(scratch, 'browser'),
  globalSetup: './tests/browser/globalSetup.ts',
  // two at a time, each with an application and a database of its own: a third only slows the others down
  workers: 2,
  fullyParallel: true,
  // against hanging, and nothing else: a machine that others use as well stands still for half a minute at a time
  timeout: 1_800_000,
  expect: { timeout: 150_000 },
  retries: 0,
  reporter: [['list'], ['json', { outputFile: path.join(scratch, 'browser.json') }]],
  use: {
    browserName: 'chromium',
    actionTimeout: 150_000,
    navigationTimeout: 150_000,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
    contextOptions: { reducedMotion: 'reduce' },
    // a trace records every step of the page, which costs as much as the step: LAVACRUM_TRACE=1 to see one
    trace: process.env.LAVACRUM_TRACE ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: { executablePath: BROWSER, args: ['--disable-background-networking', '--no-first-run', '--disable-sync'] },
  },
});
