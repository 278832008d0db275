import type { Locator, Page } from '@playwright/test';
import { choose, expect, search, timePasses, type RunningApp } from './app.js';
import { framed } from './frame.js';

/** The number that a text begins with: a thousand has a thin space in it. */
const numberOf = (words: string): string => (/^[\d.\u202f]+/.exec(words)?.[0] ?? '0').replace(/\u202f/g, '');

/** The one figure of the step on screen. */
export const figure = (page: Page): Locator => page.locator('[data-region="figure"] .big-number');

/**
 * Ticks everything that is open in the step on screen: the first row as a finger would, the others by their key. What belongs after a
 * clock is open only once the page shows that clock as over.
 */
export async function tickAll(page: Page): Promise<void> {
  // what belongs later is pale: nobody can tick it yet
  const open = page.locator('.checks .check.open:not(:has(.later))');
  const first = await open.count();
  if (first === 0) return;
  // a row that moves under the finger, because the page scrolls for it, is touched again
  await expect(async () => {
    if ((await open.count()) === first) await open.first().locator('label').click();
    await expect.poll(() => open.count(), { timeout: 3000 }).toBeLessThan(first);
  }).toPass();
  await expect(async () => {
    const left = await open.count();
    // a key typed into a field is no tick
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    for (let n = 0; n < left; n += 1) await page.keyboard.press('c');
    await expect(open).toHaveCount(0, { timeout: 5000 });
  }).toPass();
}

/** @param look also looks at the frame of the step that comes, on both sizes of screen */
export async function done(page: Page, next: string, look = false): Promise<void> {
  const act = page.getByRole('button', { name: /^Done:/ });
  await expect(act, `what is left before ${next} comes`).toBeVisible();
  await act.click();
  await expect(page.locator('.title h2')).toHaveText(next);
  if (look) await framed(page, next);
}

/** One reading under the usual load, with the conditions that make it comparable. */
export async function measure(page: Page, partC: string): Promise<void> {
  await page.getByLabel('Workload').fill('render and graphics together');
  await page.getByLabel('Power into that part').fill('400');
  await page.getByLabel('Part', { exact: true }).fill(partC);
  await page.getByLabel('Room', { exact: true }).fill('22');
  await page.getByRole('button', { name: 'Enter reading' }).click();
  await expect(page.locator('.baseline .big-number')).toBeVisible();
}

/** What ran into the jug, by what the screen says should come. */
export async function cameOut(page: Page, ml: string): Promise<void> {
  await page.getByLabel('In the jug').fill(ml);
  await page.getByRole('button', { name: 'Came out' }).click();
  // the field empties, or goes where a rinse is out again
  const jug = page.getByLabel('In the jug');
  await expect.poll(async () => ((await jug.count()) === 0 ? '' : jug.inputValue())).toBe('');
}

/** Drains stand by stand, as much as the screen says should come. */
export async function drainAsAdvised(page: Page): Promise<void> {
  const big = figure(page);
  for (let stand = 0; stand < 5; stand += 1) {
    const words = await big.innerText();
    if (!words.includes('should come')) break;
    await cameOut(page, numberOf(words));
    await expect(big).not.toHaveText(words);
  }
  await tickAll(page);
}

const field = (page: Page, name: string): Locator => page.getByLabel(name, { exact: true });

/** The field empties, or goes with its order: the next order shows that it was taken. */
async function pourNow(page: Page, ml: string, button: string): Promise<void> {
  await field(page, 'Poured just now').fill(ml);
  await page.getByRole('button', { name: button }).click();
}

/** The pump for as long as the order says; what is poured meanwhile goes in in one go. @returns mL poured */
async function pumpAsOrdered(page: Page, app: RunningApp, big: string): Promise<number> {
  const figure = numberOf(big);
  await expect(page.getByRole('button', { name: /^Pump on/ })).toBeEnabled();
  await page.getByRole('button', { name: /^Pump on/ }).click();
  await expect(page.getByRole('button', { name: /^Pump off/ })).toBeVisible();
  const pours = big.includes('while the pump runs');
  if (pours) await pourNow(page, figure, 'Poured while it runs');
  await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
  const orderedS = Math.ceil(Number(figure) > 90 ? 20 : Number(figure));
  // a hand takes a moment longer than the figure says; the page's clock lags behind the server's by the way of an answer
  await timePasses(page, app, orderedS + (orderedS >= 30 ? 8 : 1));
  await expect(page.getByRole('button', { name: /^Pump off/ })).toBeVisible();
  const back = page.getByRole('button', { name: 'Liquid comes back at the return' });
  const toGo = page.locator('.fill-order').getByText(/^About \d+ mL to go/);
  const left = (await toGo.count()) > 0 ? Number((await toGo.innerText()).match(/About (\d+)/)?.[1]) : 0;
  if ((await back.count()) > 0 && (pours || left < 60)) await back.click();
  await page.getByRole('button', { name: /^Pump off/ }).click();
  await expect(page.getByRole('button', { name: /^Pump on/ })).toBeVisible();
  return pours ? Number(figure) : 0;
}

/** mL by which the level is seen to have sunk */
const SUNK_ML = 100;

/** Follows the orders of a fill until nothing more goes in. @returns mL poured */
export async function fillAsOrdered(page: Page, app: RunningApp, until: (pouredMl: number) => boolean = () => false): Promise<number> {
  const order = page.locator('.fill-order');
  let poured = 0;
  let pumped = false;
  // once it is full a rinse has no order of filling any more
  const now = async (): Promise<string> => ((await order.count()) === 0 ? 'finish' : ((await order.getAttribute('data-order')) ?? ''));
  for (let n = 0; n < 40 && !until(poured); n += 1) {
    const what = await now();
    const big = await figure(page).innerText();
    if (what === 'finish') break;
    if (what === 'pour') {
      const most = (await order.getAttribute('data-most')) as string;
      await pourNow(page, most, 'Poured up to the mark');
      poured += Number(most);
    } else if (what === 'read-level') {
      // what the pump took into a loop that lacked some is missing in the reservoir
      const mark = Number(await order.getAttribute('data-mark'));
      if (pumped && poured === 0) {
        await field(page, 'Level in the reservoir').fill(String(mark - SUNK_ML));
        await page.getByRole('button', { name: 'Level read' }).click();
      } else await page.getByRole('button', { name: 'It stands at the mark' }).click();
    } else if (what === 'pump-on') {
      poured += await pumpAsOrdered(page, app, big);
      pumped = true;
      // the next run may be as long as this one: the same words again
      continue;
    } else throw new Error(`no hand follows the order ${what}: ${big}`);
    await expect.poll(async () => `${await now()} ${await figure(page).innerText()}`).not.toBe(`${what} ${big}`);
  }
  return poured;
}

/** A rinse: in as ordered, round with the pump, out into the jug. */
export async function rinseOnce(page: Page, app: RunningApp): Promise<void> {
  const ml = await fillAsOrdered(page, app, (poured) => poured > 400);
  await cameOut(page, String(ml));
  // nothing stands in it any more: the next one goes in
  await expect(page.getByLabel('In the jug')).toHaveCount(0);
}

/** The refill and its wet test, up to the last look at the joints. */
export async function refill(page: Page, app: RunningApp, lot: string): Promise<void> {
  await choose(page, 'Lot', lot);
  await page.getByRole('button', { name: 'This one' }).click();
  await fillAsOrdered(page, app);
  await tickAll(page);
  await done(page, 'Wet test');
  await clock(page, app, 700);
  await tickAll(page);
}

/** Starts the step's clock, lets it run out and comes back. */
export async function clock(page: Page, app: RunningApp, seconds: number): Promise<void> {
  await page.getByRole('button', { name: 'Start the clock' }).click();
  await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
  await timePasses(page, app, seconds);
  await expect(page.getByRole('timer')).toContainText('done');
}

export async function bleedAndPower(page: Page, app: RunningApp, partC: string): Promise<void> {
  await done(page, 'Bleed');
  for (const stopped of ['120', '120', '120']) {
    await page.getByLabel('Level, pump running').fill('119.5');
    await page.getByLabel('Level, pump stopped').fill(stopped);
    await page.getByRole('button', { name: 'Cycle done' }).click();
    await expect(page.getByLabel('Level, pump stopped')).toHaveValue('');
  }
  await done(page, 'Return to power');
  await tickAll(page);
  await clock(page, app, 1000);
  await tickAll(page);
  await done(page, 'Hand-over baseline');
  await measure(page, partC);
  await tickAll(page);
  await done(page, 'Sign off');
}

export async function signOff(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Sign off', exact: true }).last().click();
  await page.waitForURL('**/record');
}

/** Opens a machine of the list by its name. */
export async function openMachine(page: Page, app: RunningApp, name: string): Promise<void> {
  await page.goto(`${app.url}/systems`);
  await search(page, name);
  // the very machine: which of its namesakes stands first changes with the day
  await page
    .locator('.life')
    .filter({ has: page.getByText(name, { exact: true }) })
    .first()
    .click();
  await expect(page.getByRole('heading', { name, level: 1, exact: true })).toBeVisible();
}

/** Takes a machine in for a job, has the owner agree, and puts it on a bench. */
export async function takeIn(page: Page, kind: RegExp, leak = 'Coolant only'): Promise<void> {
  await page.getByRole('button', { name: kind }).first().click();
  await page.getByRole('button', { name: 'Book it' }).click();
  await page.waitForURL('**/jobs/*');
  await expect(page.getByRole('button', { name: 'Put it on the bench' })).toBeDisabled();
  await page.getByLabel('In what words').fill('yes, go on');
  await page.getByRole('button', { name: 'The owner agreed' }).click();
  await expect(page.getByRole('button', { name: 'Put it on the bench' })).toBeEnabled();
  if (leak) {
    await choose(page, 'Leak test afterwards', leak);
    await choose(page, 'Only the pump runs', '10 minutes');
  }
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL('**/runs/*');
  await expect(page.locator('.title h2')).toHaveText('Lay out the kit');
}

/** The first steps of every opened loop, up to its drain: kit, the reading before, dust, only the pump on power. */
export async function upToDrain(page: Page, beforeC: string): Promise<void> {
  await tickAll(page);
  await done(page, 'Measure before');
  await measure(page, beforeC);
  await done(page, 'Dust first');
  await tickAll(page);
  await done(page, 'Only the pump on power');
  await tickAll(page);
  await done(page, 'Drain');
}

/** Leaves a run to wait off its bench, as its dialog asks for it. @param until a day; missing: as it proposes */
export async function letWait(page: Page, why: string, how: { what?: string; until?: string; lies: string }): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByText('Let it wait, off the bench').click();
  const dialog = page.locator('.v-dialog');
  await dialog.getByText(why, { exact: true }).click();
  if (how.what) await dialog.getByLabel(/Which part|What comes next|For what|What the owner/).fill(how.what);
  if (how.until) await dialog.getByRole('textbox', { name: 'Somebody looks again on' }).fill(how.until);
  await dialog.getByLabel('Where it lies, with what came off it').fill(how.lies);
  for (const line of await dialog.locator('fieldset input').all()) await line.check();
  await dialog.getByRole('button', { name: 'It waits; the bench is free' }).click();
  await expect(page.getByRole('region', { name: 'This run waits' })).toBeVisible();
}

/** Back on a free bench, at the step that it left. */
export async function goOn(page: Page, step: string): Promise<void> {
  const panel = page.getByRole('region', { name: 'This run waits' });
  for (const line of await panel.locator('fieldset input').all()) await line.check();
  await page.getByRole('button', { name: 'Back on the bench, go on' }).click();
  await expect(panel).toBeHidden();
  await expect(page.locator('.title h2')).toHaveText(step);
}
