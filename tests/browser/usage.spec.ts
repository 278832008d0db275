import { choose, expect, signIn, test } from './app.js';
import { openMachine } from './benchHands.js';

/** How a machine is used, what its parts came out of, who waits for it: what moves its dates and its owner's days. */
test('a log moves a date, a bag is found again, a spare machine goes home with its owner @thorough', async ({ page, app, complaints }) => {
  await signIn(page, app);
  await openMachine(page, app, 'Survey station 2');

  // a warm log shortens the coolant's life, and the reason says whose log it was
  const lines = Array.from({ length: 9 }, (_, day) =>
    Array.from(
      { length: 60 },
      (__, minute) => `2026-05-0${day + 1} 18:${String(minute).padStart(2, '0')}:00;52,0;22,0;${70 + day};180`,
    ).join('\n'),
  );
  await page.getByRole('link', { name: 'Log and condition' }).click();
  await page.locator('.intake input[type="file"]').setInputFiles({
    name: 'summer.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Zeit;Kühlmittel °C;Raum °C;Prozessor °C;Prozessor Leistung W\n${lines.join('\n')}\n`),
  });
  await page.getByRole('button', { name: 'Read it', exact: true }).click();
  await expect(page.getByText('9 days of 9 with a steady load: a reading each')).toBeVisible();
  await expect(page.locator('.drift svg .point')).not.toHaveCount(0);
  await page.getByRole('button', { name: 'Keep this log' }).click();
  await expect(page.getByText('Kept: 9 readings')).toBeVisible();
  await page.getByRole('link', { name: 'Survey station 2', exact: true }).click();
  await expect(page.getByText('Coolant 52 °C on average by its log')).toBeVisible();
  await expect(page.locator('.due').filter({ hasText: 'Coolant service' })).toContainText('52 °C coolant by its log');
  await page.getByRole('button', { name: /^\d+ readings?$/ }).click();
  await page.getByRole('button', { name: 'strike out' }).last().click();
  await expect(page.getByText('Coolant 52 °C on average')).toHaveCount(0);

  // a lot on a bag, found again by everybody
  await page.getByRole('button', { name: 'Add a lot' }).click();
  await choose(page, 'Which part', 'pump');
  await page.getByLabel('Make on its bag').fill('Impeller, grey');
  await page.getByLabel('Lot on its bag').fill('IMP-041');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('lot IMP-041')).toBeVisible();
  await page.goto(`${app.url}/search?q=imp-041`);
  await expect(page.getByRole('link', { name: 'Survey station 2' })).toBeVisible();

  // the owner can do without it on some days only, and takes a spare machine home
  await openMachine(page, app, 'Survey station 2');
  await page.getByRole('link', { name: 'Take it in' }).click();
  await page.getByRole('button', { name: /^drain and refill/ }).click();
  await page.getByRole('button', { name: 'only on some days' }).click();
  await page.getByRole('button', { name: 'Book it' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]+$/);
  await expect(page.getByText('Owner can do without it')).toBeVisible();
  await page.getByRole('button', { name: 'Lend one' }).click();
  await page.getByRole('button', { name: 'Lent', exact: true }).click();
  await expect(page.getByText(/has Loan tower, small, back in/)).toBeVisible();
  await page.getByRole('button', { name: 'It is back' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/has Loan tower, small, back in/)).toBeVisible();
  expect(complaints).toEqual([]);
});

test('the lead’s own words lead the next service, and what protects stays @thorough', async ({ page, app, complaints }) => {
  await signIn(page, app, '/workshop/procedure/top-up');
  await page.getByRole('button', { name: /Fill/ }).first().click();
  await expect(page.getByRole('button', { name: 'Take the step out' })).toHaveCount(0);
  const lead = page.getByLabel('What the hands do, in one sentence');
  await lead.fill('Drop by drop, from the thin bottle.');
  await page.getByLabel('What changed, and why').fill('a guest poured too fast');
  await page.getByRole('button', { name: 'Save as version 1' }).click();
  await expect(page.getByText(/a guest poured too fast/)).toBeVisible();
  await expect(page.locator('.changes')).toContainText('Drop by drop');
  expect(complaints).toEqual([]);
});
