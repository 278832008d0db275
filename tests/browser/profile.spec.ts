import { choose, expect, search, signIn, snap, test } from './app.js';

/** The loop twin on screen: turning, opening, the advised plan, filling, and the way there by hand. */
test('turning the case and a handle answer at once; the advised plan is stepped through', async ({ page, app, complaints }) => {
  await signIn(page, app, '/systems');
  await search(page, 'Slate tower');
  await page.locator('.life').filter({ hasText: 'Slate tower 2' }).click();
  await page.getByRole('link', { name: 'What drains' }).click();

  const big = page.locator('.big-number').first();
  await expect(big).toContainText('mL come as it stands');
  await snap(page, 'profile-drain');
  const advised = await big.innerText();

  // a handle by keyboard: from over the bowl to closed, and nothing runs any more
  const handle = page.getByRole('button', { name: /open over the jug/ });
  await handle.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Touch a handle in the drawing')).toBeVisible();
  // the plan brings it back
  await page.getByRole('button', { name: /Leave it upright/ }).click();
  await expect(big).toHaveText(advised);
  // free tilt: every step of the slider gets its answer
  const slider = page.getByLabel(/Front down/);
  await slider.fill('35');
  await expect(page.getByText('35°')).toBeVisible();
  await expect(big).not.toHaveText(advised);
  await page.getByRole('button', { name: 'upright', exact: true }).click();
  // set by hand it is what the full loop gives; the plan begins at the mark
  await expect(big).toContainText('mL run out');
  await page.getByRole('button', { name: /Leave it upright/ }).click();
  await expect(big).toHaveText(advised);
  // the next stand of the plan
  await page.getByRole('button', { name: /^2 / }).first().click();
  await expect(big).toContainText('mL more in this stand');
  await snap(page, 'profile-plan');

  // what comes when one part is taken out
  await choose(page, 'Which part', 'graphics block');
  await expect(page.getByText('comes out of the part when you tilt it')).toBeVisible();

  // filling, pulse by pulse
  await page.getByRole('button', { name: 'Fill', exact: true }).click();
  await expect(big).toContainText('mL to the fill mark');
  await page.getByRole('button', { name: 'Next pulse' }).click();
  await expect(big).toContainText(/s of pump moves/);
  await snap(page, 'profile-fill');

  // gas and flow: less pump, less flow
  await page.getByRole('button', { name: 'Air and flow' }).click();
  const flow = async (): Promise<number> => Number(/(\d+) L\/h/.exec(await page.locator('.speed').innerText())?.[1]);
  await expect(page.locator('.speed')).toContainText('L/h');
  const fast = await flow();
  await snap(page, 'profile-air');
  await page.getByLabel('Pump speed').fill('0.4');
  await expect.poll(flow).toBeLessThan(fast);

  // heat: the quiet point; then two variants side by side
  await page.getByRole('button', { name: 'Heat' }).click();
  await expect(big).toContainText(/°C|K over its limit/);
  await page.getByLabel('Fan speed').fill('0.8');
  await snap(page, 'profile-heat');
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByLabel('Fan speed of B').fill('1');
  await expect(page.getByText(/^−\d+\.\d K$/).first()).toBeVisible();
  await snap(page, 'profile-compare');
  expect(complaints).toEqual([]);
});

test('sums are two keys away, and the parts sheet lists every cut @thorough', async ({ page, app, complaints }) => {
  await signIn(page, app);
  await page.keyboard.press('r');
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { name: 'Fan screws' })).toBeVisible();
  await expect(page.getByText('mm fit')).toBeVisible();
  await snap(page, 'sums');
  await page.getByRole('button', { name: 'Close' }).click();

  await page.goto(`${app.url}/systems`);
  await search(page, 'Small black');
  await page.locator('.life').filter({ hasText: 'Small black' }).first().click();
  await page.getByRole('link', { name: 'Open the loop' }).click();
  await page.getByRole('link', { name: 'Parts and cuts to print' }).click();
  await expect(page.getByRole('heading', { name: 'Parts and cuts' })).toBeVisible();
  await expect(page.getByRole('row')).not.toHaveCount(0);
  await expect(page.getByText('compression fittings')).toBeVisible();
  await snap(page, 'parts');
  expect(complaints).toEqual([]);
});
