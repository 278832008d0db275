import { DEMO_SIGN_IN } from '../../demo/people.js';
import { expect, signIn, test, Quiet } from './app.js';

test.use({ serviceWorkers: 'allow' });

test('once opened, the bench works through a reload without the network, and nothing is lost or doubled', async ({
  page,
  app,
  context,
  complaints,
}) => {
  const quiet = new Quiet(page);
  await signIn(page, app);
  await page.getByRole('article').filter({ hasText: 'Edit suite' }).getByRole('link').click();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  // one load under the worker, so that every file of this page is in its keeping
  await page.reload();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  await quiet.now();

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
  await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
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
  await expect(other.locator('.notes')).toContainText('drop under the card');
  await other.context().close();
});

test('what waits goes under the name of who made it, whatever page is open and whoever is signed in by then @thorough', async ({
  page,
  app,
  complaints,
}) => {
  await signIn(page, app);
  await page.getByRole('article').filter({ hasText: 'Edit suite' }).getByRole('link').click();
  await expect(page.locator('.title h2')).toHaveText('Wet test');
  const run = page.url();
  const entries = '**/api/runs/*/events';
  await page.route(entries, (route) => (route.request().method() === 'POST' ? route.abort() : route.fallback()));
  await page.keyboard.press('m');
  await page.getByLabel('What you saw or did').fill('seen before the shift ended');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('1 entry is on this device only')).toBeVisible();

  // another page, another person; the entry is still in the edge of every page
  await page.keyboard.press('2');
  await expect(page.locator('.edge-waits')).toContainText('1 waits on this device');
  await page.getByRole('button', { name: /account and look/ }).click();
  await page.getByText('Sign out', { exact: true }).click();
  await expect(page.getByRole('heading', { name: '1 entry waits on this device' })).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Sign out' }).click();
  await page.waitForURL('**/sign-in');
  await page.getByLabel('E-mail').fill('ilse@fernhollow.example');
  await page.getByLabel('Password').fill(DEMO_SIGN_IN.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/today');

  await page.unroute(entries);
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  await expect(page.locator('.edge-waits')).toBeHidden();
  await page.goto(run);
  const note = page.locator('.notes li').filter({ hasText: 'seen before the shift ended' });
  await expect(note).toHaveCount(1);
  const kept = await page.evaluate(
    async (address) => {
      const answer = (await (await fetch(address)).json()) as { events: { by: string; deliveredBy?: string; body: { text?: string } }[] };
      return answer.events.filter(({ body }) => body.text === 'seen before the shift ended');
    },
    run.replace('/runs/', '/api/runs/'),
  );
  expect(kept).toMatchObject([{ by: 'Maruna Osk', deliveredBy: 'Ilse Darrow' }]);
  expect(complaints.filter((text) => !/ERR_FAILED/.test(text))).toEqual([]);
});
