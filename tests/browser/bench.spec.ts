import { expect, listed, signIn, test } from './app.js';

test('the bench keeps what is entered while the network is away, and delivers it once', async ({ page, app, context }) => {
  await signIn(page, app);
  await page.getByRole('article').filter({ hasText: 'Moss tower' }).getByRole('link').click();
  await expect(page.locator('.title h2')).toHaveText('Air test');
  const before = Number((await page.getByText(/\d+ readings/).innerText()).match(/(\d+) readings/)?.[1]);
  await context.setOffline(true);
  await page.getByText('Enter another reading').click();
  await page.getByLabel('Gauge').fill('48.6');
  await page.getByLabel('Room at the loop').fill('21.3');
  await page.getByRole('button', { name: 'Enter reading' }).click();
  await expect(page.getByText('1 entry is on this device only')).toBeVisible();
  await expect(page.getByText(`${before + 1} readings`)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('1 entry is on this device only')).toBeHidden();
  await page.reload();
  await expect(page.getByText(`${before + 1} readings`)).toBeVisible();
});

test('hands can stay on the keyboard or a pedal: tick, note, take back', async ({ page, app }) => {
  await signIn(page, app);
  await page.getByRole('article').filter({ hasText: 'Edit suite' }).getByRole('link').click();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  const open = page.locator('.checks .check.open');
  const count = await open.count();
  // a finger leaves the cursor in the box that it ticked: keys go on
  await open.first().locator('label').click();
  await expect(open).toHaveCount(count - 1);
  await page.keyboard.press('z');
  await expect(open).toHaveCount(count);
  await page.keyboard.press('c');
  await expect(open).toHaveCount(count - 1);
  await page.keyboard.press('z');
  await expect(open).toHaveCount(count);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('"Wet test" is not done');
  await page.keyboard.press('m');
  await page.getByLabel('What you saw or did').fill('typed c and z here');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.locator('.notes')).toContainText('typed c and z here');
});

test('a step that must not be skipped cannot be, and says why', async ({ page, app }) => {
  await signIn(page, app, '/systems');
  await page.getByRole('button', { name: /^planned/ }).click();
  await listed(page);
  await page.locator('.life').first().click();
  await page.getByRole('button', { name: 'Start commissioning' }).click();
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL('**/runs/*');
  for (const next of ['Flush the new parts', 'Put it together', 'Close the loop']) {
    await page.getByRole('button', { name: 'Go on with a reason' }).click();
    await page.getByLabel('Why, for the record').fill('done yesterday evening');
    await page.getByRole('button', { name: 'Go on', exact: true }).click();
    await expect(page.locator('.title h2')).toHaveText(next);
  }
  await page.getByRole('button', { name: 'Go on with a reason' }).click();
  await page.getByLabel('Why, for the record').fill('no time');
  await page.getByRole('button', { name: 'Go on', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('cannot be passed over: the loop must be closed before air or liquid goes in');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByText('Off the bench without a record').click();
  await page.getByLabel('Why', { exact: true }).fill('only a test');
  for (const line of await page.getByRole('dialog').locator('fieldset input').all()) await line.check();
  await page.getByRole('dialog').getByRole('button', { name: 'Off the bench' }).click();
  await page.waitForURL('**/systems/*');
  await expect(page.getByText('Commissioning, abandoned')).toBeVisible();
});
