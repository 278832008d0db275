import { existsSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { RunningApp } from '../browser/app.js';

test('the demo is written once, for every application that the tests start', async () => {
  await RunningApp.writeDemo();
  expect(process.env.LAVACRUM_TEST_DEMO).toBeTruthy();
  expect(existsSync(process.env.LAVACRUM_TEST_DEMO_FILE ?? '')).toBe(true);
});
