import { expect, signIn, test } from './app.js';

test.use({ serviceWorkers: 'allow' });

test('once opened, the bench works through a reload without the network, and nothing is lost or doubled', async ({
  page,
  app,
  context,
  complaints,
}) => {
  await signIn(page, app);
  await page.getByRole('article').filter({ hasText: 'Edit suite' }).getByRole('link').click();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  // one load under the worker, so that every file of this page is in its keeping
  await page.reload();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 500)));

  await context.setOffline(true);
  await page.reload();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  await expect(page.getByText('The server cannot be reached')).toBeVisible();
  await page.keyboard.press('m');
  await page.getByLabel('What you saw or did').fill('typed in the cellar');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('1 entry is on this device only; they go when the server is back')).toBeVisible();
  await page.reload();
  await expect(page.locator('.notes')).toContainText('typed in the cellar');

  await context.setOffline(false);
  await expect(page.getByText(/on this device only/)).toBeHidden({ timeout: 20_000 });
  await page.reload();
  await expect(page.locator('.notes li').filter({ hasText: 'typed in the cellar' })).toHaveCount(1);
  expect(complaints.filter((text) => !/ERR_INTERNET_DISCONNECTED|ERR_FAILED|no-response/.test(text))).toEqual([]);
});

test('two people on one run see each other’s entries at once', async ({ page, app, browser }) => {
  await signIn(page, app);
  await page.getByRole('article').filter({ hasText: 'Edit suite' }).getByRole('link').click();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  const other = await (await browser.newContext()).newPage();
  await signIn(other, app);
  await other.goto(page.url());
  await expect(other.locator('.title h2')).toHaveText('Wet test');
  await page.keyboard.press('m');
  await page.getByLabel('What you saw or did').fill('drop under the card');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(other.locator('.notes')).toContainText('drop under the card', { timeout: 2000 });
  await other.context().close();
});
