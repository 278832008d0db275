import { defineConfig } from '@playwright/test';
import base from './playwright.config.js';

/** Kills of server, database and tab. It starts a cluster of its own, so that it may kill that too. */
export default defineConfig({ ...base, testDir: 'tests/reliability', globalSetup: undefined, reporter: 'list' });
