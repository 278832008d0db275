import { expect, signIn, snap, test } from './app.js';
import { openMachine } from './benchHands.js';

test('the plan is arranged, moved by keys, undone, confirmed, and goes out as a calendar', async ({ page, app, complaints }) => {
  await signIn(page, app, '/plan');
  await expect(page.locator('g.bar').first()).toBeVisible();

  // a new job waits in the backlog until somebody arranges
  await openMachine(page, app, 'Lamp box');
  await page.getByRole('link', { name: 'Take it in' }).click();
  await page.getByRole('button', { name: /^drain and refill/ }).click();
  await page.getByRole('button', { name: 'Book it' }).click();
  await page.waitForURL('**/jobs/*');
  await expect(page.getByRole('heading', { name: 'As it came in' })).toBeVisible();
  await page.goto(`${app.url}/plan`);
  await expect(page.getByText('Lamp box').first()).toBeVisible();
  await page.getByRole('button', { name: 'Arrange' }).click();
  await expect(page.getByRole('heading', { name: 'It would change' })).toBeVisible();
  await expect(page.locator('.changes')).toContainText('Lamp box');
  await snap(page, 'plan-arranged');
  await page.getByRole('button', { name: 'Take this plan' }).click();
  await expect(page.locator('.changes')).toHaveCount(0);

  // a bar goes where it is moved to, and comes back
  const own = page.getByRole('button', { name: /^Lamp box, drain and refill/ });
  await expect(own).toBeVisible();
  const before = await own.getAttribute('aria-label');
  await own.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(own).not.toHaveAttribute('aria-label', before as string);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(own).toHaveAttribute('aria-label', before as string);

  // told to the owner, it stays
  await own.focus();
  await page.getByRole('button', { name: 'Confirmed with the owner' }).click();
  await expect(page.getByRole('button', { name: /^Lamp box, drain and refill.*confirmed/ })).toBeVisible();

  await page.goto(`${app.url}/workshop/hours`);
  await page.getByRole('button', { name: /^Make an address for the whole workshop/i }).click();
  const address = await page.locator('code').innerText();
  const feed = await (await page.request.get(address)).text();
  expect(feed).toContain('Lamp box: drain and refill');
  expect(complaints).toEqual([]);
});

test('an owner is written to, the stand-in keeps the letter, and a word of it is found again', async ({ page, app, complaints }) => {
  await signIn(page, app);
  await openMachine(page, app, 'Cellar press');
  await page.getByRole('button', { name: 'Write' }).click();
  await page.locator('.v-dialog .v-select').first().click();
  await page.getByRole('option', { name: 'It is ready' }).click();
  await page.getByLabel('What more').fill('It runs quieter than a moth.');
  await expect(page.locator('.letter')).toContainText('Cellar press is ready to be picked up');
  await page.getByRole('button', { name: 'Send it' }).click();
  await expect(page.locator('.history')).toContainText('Message waits');
  await page.goto(`${app.url}/messages`);
  await expect(page.getByText('Cellar press is ready').first()).toBeVisible();
  await page.keyboard.press('f');
  await page.getByRole('textbox', { name: 'A name, a lot, a word of a note' }).fill('white paste');
  await expect(page.getByText(/white paste between the fins/).first()).toBeVisible();
  expect(complaints).toEqual([]);
});
