import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test as base, type Page, type Request } from '@playwright/test';
import { DEMO_SIGN_IN } from '../../demo/people.js';
import { makeBackup, restoreBackup } from '../../server/operations/backup/archive.js';
import { createDatabase, urlOfDatabase } from '../../server/operations/cluster/cluster.js';
import { freePort } from '../../server/operations/cluster/processes.js';

/** The application as it is started for people: its own process, its own database, a clock that tests set ahead. */
export class RunningApp {
  private child: ChildProcess | null = null;
  private aheadMs = 0;

  private constructor(
    readonly url: string,
    private readonly env: NodeJS.ProcessEnv,
    private readonly clockFile: string,
    readonly database: string,
  ) {}

  /**
   * The demo is written once; every application begins with a copy of it. Where LAVACRUM_TEST_DEMO_FILE says so it is kept as a backup for
   * clusters to come: writing it costs ten times as much as bringing it back.
   */
  static async writeDemo(): Promise<void> {
    const file = process.env.LAVACRUM_TEST_DEMO_FILE;
    const admin = process.env.LAVACRUM_TEST_DATABASE as string;
    if (file && existsSync(file)) {
      const name = `browser_${randomUUID().replaceAll('-', '')}`;
      const ownerUrl = urlOfDatabase(admin, name);
      await createDatabase(urlOfDatabase(admin, 'postgres'), name, 'template0');
      await restoreBackup({ ownerUrl, file, replace: false, migrations: 'server/base/database/migrations', now: new Date() });
      process.env.LAVACRUM_TEST_DEMO = name;
      return;
    }
    const app = await RunningApp.open(true);
    // nobody may be connected to what is copied
    await app.end('SIGTERM');
    if (file) await makeBackup({ ownerUrl: app.ownerUrl, file, now: new Date() });
    process.env.LAVACRUM_TEST_DEMO = app.database;
  }

  static async open(demo: boolean): Promise<RunningApp> {
    const admin = process.env.LAVACRUM_TEST_DATABASE as string;
    const name = `browser_${randomUUID().replaceAll('-', '')}`;
    await createDatabase(urlOfDatabase(admin, 'postgres'), name, demo ? process.env.LAVACRUM_TEST_DEMO : undefined);
    const folder = mkdtempSync(path.join(tmpdir(), 'lavacrum-app-'));
    const clockFile = path.join(folder, 'clock');
    writeFileSync(clockFile, '0');
    const port = await freePort();
    const env = {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: urlOfDatabase(process.env.LAVACRUM_TEST_SERVER as string, name),
      LAVACRUM_OWNER_URL: urlOfDatabase(admin, name),
      LAVACRUM_PORT: String(port),
      LAVACRUM_DATA: folder,
      LAVACRUM_DEMO: demo ? '1' : '0',
      LAVACRUM_CLOCK_AHEAD_FILE: clockFile,
      LAVACRUM_LOG: 'warn',
    };
    const app = new RunningApp(`http://localhost:${port}`, env, clockFile, name);
    await app.start();
    return app;
  }

  /** Another server on the same database, as behind a proxy; both go by one clock. */
  async beside(): Promise<RunningApp> {
    const port = await freePort();
    const folder = mkdtempSync(path.join(tmpdir(), 'lavacrum-app-'));
    const env = { ...this.env, LAVACRUM_PORT: String(port), LAVACRUM_DATA: folder };
    const app = new RunningApp(`http://localhost:${port}`, env, this.clockFile, this.database);
    await app.start();
    return app;
  }

  /** as the owner of its tables */
  get ownerUrl(): string {
    return this.env.LAVACRUM_OWNER_URL as string;
  }

  async start(): Promise<void> {
    this.child = spawn(process.execPath, ['dist/main.mjs'], { env: this.env, stdio: 'ignore' });
    for (let attempt = 0; attempt < 1500; attempt += 1) {
      const ready = await fetch(`${this.url.replace('localhost', '127.0.0.1')}/api/health`).then(
        (response) => response.ok,
        () => false,
      );
      if (ready) return;
      await sleep(200);
    }
    throw new Error('the application does not get ready');
  }

  /** Ends the process at once, as a power cut would. */
  kill = (): Promise<void> => this.end('SIGKILL');

  private async end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    const gone = new Promise((resolve) => this.child?.once('exit', resolve));
    this.child?.kill(signal);
    await gone;
  }

  /** Lets time pass for the server; the screen follows the server's clock. */
  pass(seconds: number): void {
    this.aheadMs += seconds * 1000;
    // in one piece: read half written, the clock would jump back to the real one
    writeFileSync(`${this.clockFile}.next`, String(this.aheadMs));
    renameSync(`${this.clockFile}.next`, this.clockFile);
  }
}

export const PICTURES = path.join(process.env.LAVACRUM_TEST_SCRATCH ?? 'test-results', 'screenshots');

/** Leaves a picture of what stands on the screen in the temporary folder, where somebody wants to look: LAVACRUM_PICTURES=1. */
export async function snap(page: Page, name: string): Promise<void> {
  if (!process.env.LAVACRUM_PICTURES) return;
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: path.join(PICTURES, `${name}.png`) });
}

/** What a page may not do: complain on its console, or fail silently. */
export function watchConsole(page: Page): string[] {
  const complaints: string[] = [];
  page.on('console', (message) => {
    // the test tool's own words, not the app's
    if (message.text() === 'Service Worker registration blocked by Playwright') return;
    if (['error', 'warning'].includes(message.type())) complaints.push(message.text());
  });
  page.on('pageerror', (error) => complaints.push(error.message));
  return complaints;
}

/** A picture as a camera brings it, of plain areas: colour, left, top, width, height in px; the first is its ground. */
export async function drawnPicture(
  page: Page,
  areas: readonly (readonly [string, number, number, number, number])[],
  type = 'image/png',
): Promise<Buffer> {
  const text = await page.evaluate(
    ({ areas: given, type: as }) => {
      const [, , , width, height] = given[0] as readonly [string, number, number, number, number];
      const canvas = Object.assign(document.createElement('canvas'), { width, height });
      const pen = canvas.getContext('2d') as CanvasRenderingContext2D;
      for (const [colour, x, y, wide, high] of given) {
        pen.fillStyle = colour;
        pen.fillRect(x, y, wide, high);
      }
      return canvas.toDataURL(as).split(',')[1] as string;
    },
    { areas, type },
  );
  return Buffer.from(text, 'base64');
}

/** Signed in before the first page opens; the form itself is a story of its own. */
export async function signIn(page: Page, app: RunningApp, to = '/today'): Promise<void> {
  const response = await page.request.post(`${app.url}/api/session`, { data: DEMO_SIGN_IN });
  expect(response.ok(), await response.text()).toBe(true);
  await page.goto(`${app.url}${to}`);
  // the keys of the application lie with its frame
  await expect(page.getByRole('link', { name: 'Today' })).toBeVisible();
}

type Violations = Awaited<ReturnType<AxeBuilder['analyze']>>['violations'];

const asWords = (violations: Violations, name: string): string[] =>
  violations.map(({ id, nodes }) => {
    const places = nodes.slice(0, 3).map(({ target }) => target.join(' '));
    return `${name}: ${id} ${places.join(' | ')}`;
  });

/** Only what is wrong is worked out to the last node, and in the page itself: the pages have no frames of others. */
const axe = (page: Page): AxeBuilder =>
  new AxeBuilder({ page }).options({ resultTypes: ['violations'], preload: false, iframes: false }).setLegacyMode(true);

/** What keeps somebody from reading or using the page (WCAG 2.2 AA, as far as a program can tell). */
export async function barriers(page: Page, name: string): Promise<string[]> {
  const builder = axe(page).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']);
  // half of what a look costs: colours.test.ts holds the colours against one another at every change, and every page is looked at every night
  const { violations } = await (process.env.LAVACRUM_THOROUGH ? builder : builder.disableRules(['color-contrast'])).analyze();
  return asWords(violations, name);
}

/** Words that stand out too little: what another look of the same page can change. */
export async function faintWords(page: Page, name: string): Promise<string[]> {
  const { violations } = await axe(page).withRules(['color-contrast']).analyze();
  return asWords(violations, name);
}

/** Everything that was asked is answered and drawn. The event stream stays open, so that the network is never idle. */
export class Quiet {
  private readonly open = new Set<Request>();

  constructor(private readonly page: Page) {
    page.on('request', (request) => {
      if (request.resourceType() !== 'eventsource') this.open.add(request);
    });
    page.on('requestfinished', (request) => this.open.delete(request));
    page.on('requestfailed', (request) => this.open.delete(request));
  }

  private answered = (): Promise<void> => expect.poll(() => [...this.open].map((request) => request.url())).toEqual([]);

  async now(): Promise<void> {
    await this.page.waitForLoadState('load');
    await this.answered();
    await this.page.evaluate(() => Promise.race([document.fonts.ready, new Promise((resolve) => setTimeout(resolve, 2000))]));
    await drawn(this.page);
    await this.answered();
  }
}

/**
 * Time passes, and the screen of a run follows as it does when a tablet wakes up. It goes on once the page itself has taken
 * the answer in: what is touched before that would still bear the old time.
 */
export async function timePasses(page: Page, app: RunningApp, seconds: number): Promise<void> {
  // a run that is still on its way to the screen follows nothing yet
  await expect(page.locator('.title h2')).toBeVisible();
  app.pass(seconds);
  await page.evaluate(
    () =>
      new Promise<void>((taken) => {
        const fetched = window.fetch;
        window.fetch = async (input, init) => {
          const response = await fetched(input, init);
          if (typeof input !== 'string' || !/^\/api\/runs\/[0-9a-f-]+$/.test(input)) return response;
          window.fetch = fetched;
          const read = response.json.bind(response);
          response.json = async () => {
            const body: unknown = await read();
            // behind everything that waits for this answer
            setTimeout(taken);
            return body;
          };
          return response;
        };
        document.dispatchEvent(new Event('visibilitychange'));
      }),
  );
  await drawn(page);
}

/** What has come is drawn: with the frame after next. A page that is not painted has no frames. */
const drawn = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    for (let frame = 0; frame < 3; frame += 1)
      await Promise.race([new Promise((resolve) => setTimeout(resolve, 200)), new Promise(requestAnimationFrame)]);
  });

/** The list of machines shows what was asked for last. */
export const listed = (page: Page): Promise<void> =>
  expect(page.getByRole('list', { name: 'Machines, most urgent first' })).toHaveAttribute('aria-busy', 'false');

/** Searches the list of machines; only when the answer is here does a row stay where it is pressed. */
export async function search(page: Page, words: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Name, owner, phone, coolant' }).fill(words);
  // the address says that the words were asked for
  await page.waitForURL((url) => url.searchParams.get('q') === words);
  await listed(page);
}

export async function choose(page: Page, label: string, option: string): Promise<void> {
  // the framework's input lies under the field it belongs to: the field is what a finger meets
  await page
    .locator('.v-field')
    .filter({ has: page.getByRole('combobox', { name: label }) })
    .first()
    .click();
  await pick(page, option);
}

/**
 * One row of an open list. While a list opens it takes no touches; a click that comes then makes the runner scroll the
 * page in search of a free spot, and the list moves away under the click that follows.
 */
export async function pick(page: Page, option: string | RegExp): Promise<void> {
  const row = page.getByRole('option', { name: option, exact: true });
  await expect(row).toHaveCSS('pointer-events', 'auto');
  await row.click();
}

export const test = base.extend<{ complaints: string[] }, { app: RunningApp }>({
  app: [
    async ({}, use) => {
      const app = await RunningApp.open(true);
      await use(app);
      await app.kill();
    },
    { scope: 'worker', timeout: 600_000 },
  ],
  complaints: async ({ page }, use) => {
    await use(watchConsole(page));
  },
});

export { expect };
