import { existsSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { RunningApp } from '../browser/app.js';

test('the demo is written once, for every application that the tests start', async () => {
  test.setTimeout(120_000);
  await RunningApp.writeDemo();
  expect(process.env.LAVACRUM_TEST_DEMO).toBeTruthy();
  expect(existsSync(process.env.LAVACRUM_TEST_DEMO_FILE ?? '')).toBe(true);
});
