import { setTimeout as sleep } from 'node:timers/promises';
import type { Page } from '@playwright/test';
import { expect, signIn, test } from './app.js';

/** ms by which each further answer of a page comes later than the one before */
const LATER_MS = 80;
/** Share of the screen times the share it moves by, all of it together; "good" for the web at large is 0.1 (Web Vitals, CLS). */
const STILL = 0.02;

interface Moved {
  readonly value: number;
  readonly what: string[];
}
declare global {
  interface Window {
    moved: Moved[];
  }
}

/** Writes down what moves without having been asked to. */
const watchMoves = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    window.moved = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & { value: number; sources: { node: Node | null }[] })[])
        window.moved.push({ value: entry.value, what: entry.sources.map(({ node }) => (node?.textContent ?? '').trim().slice(0, 40)) });
    }).observe({ type: 'layout-shift', buffered: true });
  });

test('answers that come one after the other move nothing that stands already: a finger meets what it aimed at', async ({ page, app }) => {
  await signIn(page, app);
  const get = async <T>(path: string): Promise<T> => (await (await page.request.get(`${app.url}/api${path}`)).json()) as T;
  const { systems } = await get<{ systems: { id: string; name: string }[] }>('/systems?limit=50');
  const idOf = (name: string): string => systems.find((system) => system.name === name)?.id ?? '';
  const { loops } = await get<{ loops: { id: string }[] }>(`/systems/${idOf('Sim rig')}`);
  const { runs } = await get<{ runs: { id: string }[] }>('/benches');
  const pages: Record<string, { path: string; shows: string }> = {
    today: { path: '/today', shows: '.dues' },
    // its price, its next visit and what fell out of its liquid come with it
    machine: { path: `/systems/${idOf('Sim rig')}`, shows: '.due' },
    'take in': { path: `/systems/${idOf('Red studio')}/jobs/new`, shows: '.new-job' },
    loop: { path: `/loops/${loops[0]?.id}`, shows: '.twin' },
    drain: { path: `/loops/${loops[0]?.id}?show=drain`, shows: '.below' },
    run: { path: `/runs/${runs[0]?.id}`, shows: 'main h1, main h2' },
    plan: { path: '/plan', shows: '.bar' },
    store: { path: '/store', shows: '.cans' },
  };
  await watchMoves(page);
  let asked = 0;
  let onTheWay = 0;
  await page.route('**/api/**', async (route) => {
    // what never ends cannot come late
    if (route.request().headers().accept?.includes('text/event-stream') || route.request().url().includes('stream'))
      return route.continue();
    onTheWay += 1;
    await sleep(LATER_MS * (asked++ % 10));
    await route.continue().catch(() => undefined);
    onTheWay -= 1;
  });
  for (const [name, { path, shows }] of Object.entries(pages)) {
    asked = 0;
    await page.goto(`${app.url}${path}`);
    await expect(page.locator(shows).first()).toBeVisible();
    await expect.poll(() => onTheWay).toBe(0);
    await page.waitForTimeout(250);
    const moved = (await page.evaluate(() => window.moved)).filter(({ value }) => value > 0.001);
    const all = moved.reduce((sum, { value }) => sum + value, 0);
    expect(all, `${name}: ${JSON.stringify(moved)}`).toBeLessThanOrEqual(STILL);
  }
});
