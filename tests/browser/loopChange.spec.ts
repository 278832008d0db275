import { expect, signIn, test } from './app.js';
import { done, drainAsAdvised, openMachine, tickAll, upToDrain } from './benchHands.js';
import { framed } from './frame.js';

test(
  'one more block: drawn as wanted, booked with its work and its parts, led, and only then what is inside',
  { tag: '@thorough' },
  async ({ page, app, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Glass cube');
    await page.getByRole('link', { name: 'Open the loop' }).click();
    await page.getByRole('button', { name: /^graphics card block/ }).click();
    await page.getByText('Blocks', { exact: true }).click();
    await page.getByRole('listitem').filter({ hasText: 'memory block' }).getByRole('button', { name: 'on the board' }).click();
    // the work stands there while it is drawn
    const work = page.getByRole('region', { name: 'The work between the two drawings' });
    await expect(work).toContainText('2 tubes to join and test');
    // what stands behind the card is the demo's: a meter, or the next block
    await expect(work).toContainText(/tube graphics → (processor|meter)/);
    await page.getByRole('button', { name: 'Save revision' }).click();
    await page.getByLabel('What changed and why').fill('memory gets its own block');
    await page.getByRole('button', { name: 'Save', exact: true }).click();

    // it leads to its job: hours, parts and tube follow from the drawing
    await page.waitForURL('**/jobs/new?**');
    await expect(page.getByRole('region', { name: 'The work between the two drawings' })).toContainText('block board (memory block)');
    await page.getByRole('button', { name: 'Book it' }).click();
    await page.waitForURL(/\/jobs\/[0-9a-f-]+$/);
    await expect(page.getByRole('heading', { name: /^What it shall become/ })).toBeVisible();
    await page.getByLabel('In what words').fill('yes, go on');
    await page.getByRole('button', { name: 'The owner agreed' }).click();
    await page.getByRole('button', { name: 'Put it on the bench' }).click();
    await page.waitForURL('**/runs/*');
    await expect(page.locator('.title h2')).toHaveText('Lay out the kit');

    await upToDrain(page, '71');
    // nobody has looked since it was last here: the level first
    await page.getByRole('button', { name: 'It cannot be read here' }).click();
    await drainAsAdvised(page);
    await done(page, 'Change the loop');
    await framed(page, 'Change the loop');
    await tickAll(page);
    await page.getByRole('button', { name: 'It is built as it was wanted' }).click();
    await done(page, 'Close the loop');
    // from here on it is the other loop: seven tubes, the new block on the picture
    await expect(page.getByText('Both joints of each tube made, gripped and pulled')).toBeVisible();
    await expect(page.locator('.picture')).toContainText('block board');
    expect(complaints).toEqual([]);
  },
);
