import { expect, signIn, test, timePasses, type RunningApp } from './app.js';
import type { Page } from '@playwright/test';
import { bleedAndPower, done, figure, goOn, letWait, openMachine, refill, signOff, tickAll } from './benchHands.js';
import { framed } from './frame.js';

/** Runs that wait off their bench, and go on at the same step with what is inside. */

async function gauge(page: Page, app: RunningApp, kpa: string): Promise<void> {
  await page.getByLabel('Gauge').fill(kpa);
  if ((await page.getByLabel('Room at the loop').inputValue()) === '') await page.getByLabel('Room at the loop').fill('21,0');
  await page.getByRole('button', { name: 'Enter reading' }).click();
  await expect(page.getByLabel('Gauge')).toHaveValue('');
  await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
  await timePasses(page, app, 120);
}

// what it shows of the server is told by integration tests at every change: the whole day at the screen is played every night
test(
  'a build with a leak waits for a part, is mended, tested again and handed over',
  { tag: '@thorough' },
  async ({ page, app, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Edit suite 2');
    await page
      .getByRole('button', { name: /commission/i })
      .first()
      .click();
    await page.getByRole('button', { name: 'change', exact: true }).click();
    await page.getByText('10 minutes').click();
    await page.getByRole('button', { name: 'Put it on the bench' }).click();
    await page.waitForURL('**/runs/*');
    const run = page.url();
    await expect(page.locator('.title h2')).toHaveText('Lay out the kit');
    for (const next of ['Flush the new parts', 'Put it together', 'Close the loop', 'Only the pump on power', 'Air test']) {
      await tickAll(page);
      await done(page, next);
    }
    await tickAll(page);

    // it falls: a leak, with its place touched on the picture or by its name
    for (let kpa = 50; kpa > 25 && (await figure(page).innerText()) !== 'leaks'; kpa -= 2.7) await gauge(page, app, kpa.toFixed(1));
    await expect(figure(page)).toHaveText('leaks');
    await framed(page, 'Air test, leaks');
    await page.getByRole('button', { name: /Something is wrong/ }).click();
    await page.getByRole('button', { name: 'A leak', exact: true }).click();
    await page.getByText('By name').click();
    await page.getByRole('group', { name: 'Part' }).getByRole('button', { name: 'roof radiator', exact: true }).click();
    await page.getByRole('button', { name: 'Put it on record' }).click();
    await expect(page.getByRole('heading', { name: 'Leak at roof radiator' })).toBeVisible();

    // the radiator is scrap: it waits off its bench, with its day on Today
    await letWait(page, 'Parts', {
      what: 'a roof radiator',
      until: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
      lies: 'shelf 2, radiator out',
    });
    await page.goto(`${app.url}/today`);
    await expect(page.getByRole('region', { name: 'Waiting, off the benches' })).toContainText('Edit suite 2');
    await page.goto(run);
    await expect(page.getByRole('region', { name: 'This run waits' })).toBeVisible();
    await framed(page, 'Waits for a part');
    await goOn(page, 'Air test');

    // its cause is found, the part exchanged, and the air test begun again passes
    const leak = page.getByRole('article').filter({ hasText: 'Leak at roof radiator' });
    await leak.getByText('A screw too long has split').click();
    await leak.getByLabel('What was done').fill('radiator exchanged, shorter screws');
    await leak.getByRole('button', { name: 'Mended' }).click();
    await leak.getByRole('button', { name: 'All looked at' }).click();
    // the test that it left is over: what stood aside for days is raised anew
    await expect(page.getByText('Test started again: the machine had waited off the bench')).toBeVisible();
    await gauge(page, app, '50,0');
    for (let n = 0; n < 14 && (await figure(page).innerText()) !== 'tight'; n += 1) await gauge(page, app, '49,1');
    await expect(figure(page)).toHaveText('tight');
    await leak.getByRole('button', { name: 'Tight now' }).click();
    await expect(leak).toHaveCount(0);
    await tickAll(page);
    await done(page, 'Fill');
    const lot = page.locator('.v-field').filter({ hasText: 'Lot' }).first();
    await lot.click();
    const first = page.getByRole('option').first();
    await expect(first).toHaveCSS('pointer-events', 'auto');
    const name = await first.innerText();
    await first.click();
    await refill(page, app, name);
    await bleedAndPower(page, app, '63');
    await signOff(page);
    await expect(page.getByText(/roof radiator, a drip, with air/)).toBeVisible();
    await expect(page.getByText(/a roof radiator/).first()).toBeVisible();
    expect(complaints).toEqual([]);
  },
);
