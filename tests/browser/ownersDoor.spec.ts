import type { BrowserContext, Page } from '@playwright/test';
import { barriers, choose, drawnPicture, expect, pick, signIn, snap, test, watchConsole } from './app.js';
import { bleedAndPower, done, drainAsAdvised, measure, openMachine, refill, signOff, tickAll } from './benchHands.js';

/** The owner’s telephone: nobody signed in, a narrow screen. */
async function telephone(context: BrowserContext, address: string): Promise<{ owner: Page; complaints: string[] }> {
  const phone = await context.browser()?.newContext({ viewport: { width: 360, height: 740 }, serviceWorkers: 'block', reducedMotion: 'reduce' }); // prettier-ignore
  if (!phone) throw new Error('no browser');
  const owner = await phone.newPage();
  const complaints = watchConsole(owner);
  await owner.goto(address);
  return { owner, complaints };
}

/** A picture of a reservoir with its mark and its level, as a camera brings it. */
const levelPicture = (page: Page): Promise<Buffer> =>
  drawnPicture(
    page,
    [
      ['#3b4340', 0, 0, 900, 1100],
      ['#dfe6e3', 300, 80, 300, 940],
      ['#5b86b8', 300, 400, 300, 620],
      ['#111111', 300, 380, 300, 6],
    ],
    'image/jpeg',
  );

/** Does every step as it says, until one of this name stands there. */
async function upTo(page: Page, name: string): Promise<void> {
  const title = page.locator('.title h2');
  for (let was = await title.innerText(); was !== name; was = await title.innerText()) {
    await tickAll(page);
    await page.getByRole('button', { name: /^Done:/ }).click();
    await expect(title).not.toHaveText(was);
  }
}

test(
  'an owner at the door and the desk inside: letter, slot, estimate, more than was told, ready, report, level',
  { tag: '@thorough' },
  async ({ page, app, context, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Low bench');
    const machine = page.url();

    // a letter: its link is made as it leaves, and read in the owner's mailbox
    await page.getByRole('button', { name: 'Write', exact: true }).click();
    await expect(page.locator('.v-dialog')).toContainText('‹link›');
    await page.getByRole('button', { name: 'Send it' }).click();
    await expect(page.locator('.v-dialog')).toBeHidden();
    const mailbox = page.getByRole('listitem').filter({ hasText: 'Low bench' }).first();
    await expect(async () => {
      await page.goto(`${app.url}/messages`);
      await expect(mailbox).toBeVisible({ timeout: 3000 });
    }).toPass();
    await mailbox.getByText('Read it').click();
    const [link = ''] = /https?:\/\/\S+\/door\/#[\w-]{32}/.exec(await mailbox.innerText()) ?? [];
    const { owner, complaints: ownersComplaints } = await telephone(context, link);
    await expect(owner.getByRole('heading', { name: 'With you', exact: true })).toBeVisible();
    expect(await owner.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
    expect(await barriers(owner, 'door')).toEqual([]);

    // booked on the phone; the slot is chosen at the door
    await page.goto(machine);
    await page.getByRole('link', { name: 'Take it in' }).click();
    await page.getByRole('button', { name: /^dust, paste, fans/ }).first().click(); // prettier-ignore
    await page.getByLabel('It stands here now').uncheck();
    await page.getByRole('button', { name: 'Book it' }).click();
    await page.waitForURL('**/jobs/*');
    await page.getByRole('button', { name: /^Let .* choose$/ }).click();
    await expect(page.getByText('chooses among them')).toBeVisible();
    const job = page.url();
    await owner.reload();
    await expect(owner.getByRole('heading', { name: 'Booked', exact: true })).toBeVisible();
    await owner.locator('.offer').nth(1).click();
    await expect(owner.getByText('Chosen; the workshop confirms it.')).toBeVisible();
    await page.goto(`${app.url}/today`);
    await page.getByRole('button', { name: 'Keep that slot: Low bench' }).click();
    await expect(page.getByText('The slot is kept')).toBeVisible();
    await owner.reload();
    await expect(owner.getByRole('heading', { name: 'Awaited', exact: true })).toBeVisible();

    // the estimate is agreed to with a name
    await page
      .locator('.waiting')
      .getByRole('button', { name: /^All \d+$/ })
      .click();
    await expect(page.getByRole('listitem').filter({ hasText: 'Low bench' }).filter({ hasText: 'agrees to its estimate' })).toBeVisible();
    await owner.getByRole('button', { name: 'I agree' }).click();
    await expect(owner.getByText('Write your name: it stands under your answer.')).toBeVisible();
    await owner.getByLabel('Your name').fill('Edrik Elderby');
    await owner.getByRole('button', { name: 'I agree' }).click();
    await expect(owner.locator('.stamp').first()).toContainText(/Agreed .*, Edrik Elderby/);
    await page.goto(job);
    await expect(page.getByText('on the owner’s page')).toBeVisible();
    await page.getByRole('button', { name: 'It is here' }).click();

    // on the bench; what comes out asks for more than was told
    await page.getByRole('button', { name: 'Put it on the bench' }).click();
    await page.waitForURL('**/runs/*');
    await expect(page.locator('.title h2')).toHaveText('Lay out the kit');
    await tickAll(page);
    await done(page, 'Measure before');
    // what was ticked is on its way to the server for a moment
    await expect(async () => {
      await owner.reload();
      await expect(owner.getByText('Its temperatures are read under load.')).toBeVisible({ timeout: 3000 });
    }).toPass();
    await expect(owner.getByRole('heading', { name: 'On the bench' })).toBeVisible();
    await measure(page, '71');
    await done(page, 'Off at the wall');
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByText('Change scope').click();
    const dialog = page.locator('.v-dialog');
    await dialog.locator('.v-field').filter({ has: page.getByRole('combobox', { name: 'It becomes' }) }).click(); // prettier-ignore
    await pick(page, 'drain and refill');
    await choose(page, 'Leak test afterwards', 'Coolant only');
    await choose(page, 'Only the pump runs', '10 minutes');
    await dialog.getByLabel('What was found').fill('the liquid is cloudy');
    await dialog.getByRole('button', { name: 'Ask on the owner’s page' }).click();
    await expect(dialog.getByText('Not answered yet.')).toBeVisible();
    await owner.reload();
    await expect(owner.getByText('More was found than you agreed to.')).toBeVisible();
    await expect(owner.getByText('the liquid is cloudy')).toBeVisible();
    await owner.getByLabel('Your name').fill('Edrik Elderby');
    await owner.getByRole('button', { name: 'I agree' }).click();
    await expect(owner.locator('.stamp').first()).toContainText(/Agreed .*, Edrik Elderby/);
    await dialog.getByRole('button', { name: 'Look again' }).click();
    await dialog.getByRole('button', { name: 'The owner agreed; change the steps' }).click();
    await expect(dialog).toBeHidden();

    // to its end, and ready
    await upTo(page, 'Drain');
    await page.getByRole('button', { name: 'It cannot be read here' }).click();
    await drainAsAdvised(page);
    await done(page, 'Fill');
    await refill(page, app, 'L459');
    await bleedAndPower(page, app, '63');
    await signOff(page);
    await owner.reload();
    await expect(owner.getByRole('heading', { name: 'Ready', exact: true })).toBeVisible();

    // the report, as a page and as a file
    await owner.locator('.offer').filter({ hasText: 'Drain and refill' }).click();
    await expect(owner.locator('.paper')).toContainText('Drain and refill of Low bench');
    await expect(owner.locator('.paper')).toContainText('At the same load');
    await snap(owner, 'door-report');
    const [file] = await Promise.all([owner.waitForEvent('download'), owner.getByRole('button', { name: 'Keep it as a PDF' }).click()]);
    expect(file.suggestedFilename()).toBe('Drain and refill of Low bench.pdf');
    await page.getByRole('link', { name: 'Owner’s report' }).click();
    await expect(page.locator('.paper')).toContainText('Drain and refill of Low bench');
    await page.goto(job);
    await page.getByRole('button', { name: 'Fetched' }).click();

    // after three days: the level by a photograph, read with four touches
    app.pass(3 * 86_400);
    await owner.reload();
    await owner.locator('input[type=file][capture]').setInputFiles({ name: 'level.jpg', mimeType: 'image/jpeg', buffer: await levelPicture(page) }); // prettier-ignore
    await owner.getByRole('button', { name: 'Send it' }).click();
    await expect(owner.getByText('Your picture has arrived; the workshop reads it.')).toBeVisible();
    await page.goto(`${app.url}/today`);
    await page
      .locator('.sent')
      .getByRole('button', { name: /^All \d+$/ })
      .click();
    await page.getByRole('button', { name: 'Read the level: Low bench' }).click();
    const picture = page.locator('.v-dialog .picture');
    await expect(picture.locator('svg')).toBeAttached();
    const box = (await picture.boundingBox()) as { width: number; height: number };
    for (const [x, y] of [[450, 383], [450, 400], [300, 700], [600, 700]] as const) await picture.click({ position: { x: (x / 900) * box.width, y: (y / 1100) * box.height } }); // prettier-ignore
    await expect(page.locator('.v-dialog .big-number')).toHaveText(/^−[234] mm$/);
    await page.getByRole('button', { name: 'It has settled' }).click();
    await expect(page.locator('.v-dialog')).toBeHidden();
    await page.goto(machine);
    await expect(page.locator('.due').filter({ hasText: 'Settling check' })).toHaveCount(0);
    await owner.reload();
    await expect(owner.getByText('Nothing more is to be done.')).toBeVisible();

    // a link that was ended opens nothing, and says no more than one that never was
    await page.locator('.links summary').click();
    await page
      .locator('.links li')
      .filter({ hasText: /opened \d/ })
      .getByRole('button', { name: /^End the link/ })
      .click();
    await expect(page.getByText('That link opens nothing any more.')).toBeVisible();
    await owner.reload();
    await expect(owner.getByRole('heading', { name: 'Nothing opens here' })).toBeVisible();
    await owner.goto(link.slice(0, -4) + 'abcd');
    await owner.reload();
    await expect(owner.getByRole('heading', { name: 'Nothing opens here' })).toBeVisible();
    expect(complaints).toEqual([]);
    // the browser itself says what a link that opens nothing was answered
    expect(ownersComplaints.filter((each) => !each.includes('404'))).toEqual([]);
  },
);
