import { replay } from '../../core/bench/runs/replay.js';
import type { RunEvent } from '../../core/bench/runs/log.js';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { openOf, rowsOf } from '../../core/bench/runs/looks.js';
import type { Procedure } from '../../core/bench/runs/procedure.js';
import { seeded } from '../../core/machine/loop-file/generatedLoops.js';
import { listed, RunningApp, signIn } from '../browser/app.js';
import { AT_BENCH, endAtOnce, killDatabase, KILLS, ownCluster, patienceMs, report } from './victims.js';

/**
 * Kills the server, the database or the tab (SIGKILL) while somebody ticks and takes back at the bench, at moments that a
 * seed decides, and then counts: every entry that the screen showed as saved is there once, none twice, and what the
 * screen shows is the replay of what is stored.
 */
const RUNS = Math.round(KILLS.runs * AT_BENCH);
const SEED = KILLS.seed;
const VICTIMS = ['server', 'database', 'tab'] as const;
type Victim = (typeof VICTIMS)[number];

/** ms: within this time after the first key the kill falls */
const WINDOW_MS = 900;
/** ms between keys at most */
const PACE_MS = 90;

interface Tally {
  readonly victim: Victim;
  readonly shownSaved: number;
  readonly shownWaiting: number;
  lost: number;
  doubled: number;
  waitingLost: number;
  stateDiffers: boolean;
}

interface Run {
  run: { id: string; procedure: Procedure };
  events: RunEvent[];
}

const dataFolder = path.join(mkdtempSync(path.join(tmpdir(), 'lavacrum-kill-')), 'data');
let app: RunningApp;
let context: BrowserContext;
let page: Page;
/** ids that the screen has shown, and how */
const saved = new Set<string>();
const waiting = new Set<string>();

/** Whether a process was started by this one, over however many generations. */
function isOurs(pid: number): boolean {
  for (let at = pid, depth = 0; at > 1 && depth < 12; depth += 1) {
    if (at === process.pid) return true;
    const stat = existsSync(`/proc/${at}/stat`) ? readFileSync(`/proc/${at}/stat`, 'utf8') : '';
    at = Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1] ?? 0);
  }
  return false;
}

/** The renderer of our page, not the browser: what a crash of a tab takes. */
async function killTab(): Promise<void> {
  const gone = new Promise((resolve) => page.once('crash', resolve));
  const renderers = execFileSync('sh', ['-c', "pgrep -f -- '--type=renderer' || true"], { encoding: 'utf8' }).trim().split(/\s+/);
  for (const each of renderers.map(Number).filter((pid) => pid > 0 && isOurs(pid))) endAtOnce(each);
  await Promise.race([gone, sleep(3000)]);
  await page.close().catch(() => undefined);
}

async function openRun(url: string): Promise<void> {
  page = await context.newPage();
  await page.goto(url);
  await expect(page.locator('.title h2')).toBeVisible();
}

/** What the log of the screen shows right now. */
async function look(): Promise<void> {
  const shown = await page
    .locator('[data-entry]')
    .evaluateAll((items) => items.map((item) => [item.getAttribute('data-entry') ?? '', [...item.classList]] as const))
    .catch(() => []);
  // what is still on its way to the device's disk is called neither
  for (const [id, marks] of shown) if (!marks.includes('keeping')) (marks.includes('unsaved') ? waiting : saved).add(id);
}

/** The run as the server has it; null while it is not back yet. */
const readRun = (id: string): Promise<Run | null> =>
  page.evaluate(async (runId) => {
    const response = await fetch(`/api/runs/${runId}`).catch(() => null);
    return response?.ok ? ((await response.json()) as never) : null;
  }, id);

async function once(runId: string, url: string, random: () => number): Promise<Tally> {
  saved.clear();
  waiting.clear();
  const victim = VICTIMS[Math.floor(random() * VICTIMS.length)] as Victim;
  const killAt = Date.now() + random() * WINDOW_MS;
  // a kill before anything was saved would prove nothing, however slow the machine is
  while (Date.now() < killAt || saved.size === 0) {
    await page.keyboard.press(random() < 0.75 ? 'c' : 'z');
    await look();
    await sleep(random() * PACE_MS);
  }
  await look();
  if (victim === 'server') {
    await app.kill();
    await look();
    await app.start();
  } else if (victim === 'database') {
    await killDatabase(dataFolder);
  } else {
    await killTab();
    await openRun(url);
  }
  let answer: Run | null = null;
  await expect.poll(async () => (answer = await readRun(runId)) !== null).toBe(true);
  await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
  answer = await readRun(runId);
  const { run, events } = answer ?? { run: null, events: [] };
  if (!run) throw new Error('the server came back and went away again');
  const count = (id: string): number => events.filter((event) => event.id === id).length;
  const ids = [...saved];
  const marks = replay(run.procedure, events).steps[0]?.checks ?? {};
  const open = rowsOf(run.procedure.steps[0]?.checks ?? [], marks).filter((row) => openOf(row, marks).length > 0).length;
  // the screen that went on through it, or the one that was opened anew after its tab had gone
  const shouldSay = open === 0 ? 'all looked at' : `${open} to look at`;
  const says = page.locator('[data-region="figure"] .big-number');
  await expect(says)
    .toHaveText(shouldSay)
    .catch(() => undefined);
  const said = (await says.innerText()).replace(/\s+/g, ' ').trim();
  return {
    victim,
    shownSaved: ids.length,
    shownWaiting: waiting.size,
    lost: ids.filter((id) => count(id) === 0).length,
    doubled: new Set(events.map(({ id }) => id)).size === events.length && events.every(({ seq }, index) => seq === index + 1) ? 0 : 1,
    waitingLost: [...waiting].filter((id) => !saved.has(id) && count(id) === 0).length,
    stateDiffers: said !== shouldSay,
  };
}

test(`${RUNS} kills of server, database or tab lose nothing that was shown as saved`, async ({ browser }) => {
  test.setTimeout(patienceMs(RUNS));
  await ownCluster(dataFolder);
  app = await RunningApp.open(true);
  context = await browser.newContext({ serviceWorkers: 'block' });
  page = await context.newPage();
  await signIn(page, app, '/systems');
  await page.getByRole('button', { name: /^planned/ }).click();
  await listed(page);
  await page.locator('.life').first().click();
  await page
    .getByRole('button', { name: /Put it on a bench|Start|Commission/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL('**/runs/*');
  const url = page.url();
  const runId = url.split('/').at(-1) as string;
  const random = seeded(SEED);
  const tallies: Tally[] = [];
  for (let n = 0; n < RUNS; n += 1) tallies.push(await once(runId, url, random));
  const sum = (of: (tally: Tally) => number, among = tallies): number => among.reduce((total, tally) => total + of(tally), 0);
  const table = VICTIMS.map((victim) => {
    const own = tallies.filter((tally) => tally.victim === victim);
    return `| ${victim} | ${own.length} | ${sum(({ shownSaved }) => shownSaved, own)} | ${sum(({ lost }) => lost, own)} | ${sum(({ doubled }) => doubled, own)} | ${sum(({ shownWaiting }) => shownWaiting, own)} | ${sum(({ waitingLost }) => waitingLost, own)} | ${own.filter(({ stateDiffers }) => stateDiffers).length} |`;
  });
  report([`seed ${SEED}`, '| killed | times | shown as saved | lost | twice | shown as waiting | of these lost | screen is not the replay |', '|---|---|---|---|---|---|---|---|', ...table]); // prettier-ignore
  await app.kill();
  expect(sum(({ lost }) => lost)).toBe(0);
  expect(sum(({ doubled }) => doubled)).toBe(0);
  expect(sum(({ waitingLost }) => waitingLost)).toBe(0);
  expect(tallies.filter(({ stateDiffers }) => stateDiffers)).toEqual([]);
  expect(sum(({ shownSaved }) => shownSaved)).toBeGreaterThan(0);
});
