import { expect, signIn, test } from './app.js';

test('a workshop’s list comes in from a table, row by row, and goes out as one', async ({ page, app, complaints }) => {
  await signIn(page, app, '/systems');
  await page.getByRole('link', { name: 'From a table' }).click();
  const text =
    'Customer;Phone;Machine;Hours per day\nLisbet Harrow;+351 555 811;Loft rig;5,5\nLisbet Harrow;+351 555 811;Small white;2\nOtto Vell;call me;Desk box;\n';
  await page.setInputFiles('input[type="file"]', { name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await page.getByRole('button', { name: 'Try it, write nothing' }).click();
  await expect(page.getByText('line 4')).toBeVisible();
  await expect(page.getByText('must be a phone number of digits')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 2 machines' }).click();
  await expect(page.getByText('machines brought in', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'To the machines' }).click();
  await page.getByRole('textbox', { name: 'Name, owner, phone, coolant' }).fill('lisbet harrow');
  await expect(page.locator('.life')).toHaveCount(2);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As a table' }).click();
  expect((await download).suggestedFilename()).toMatch(/^systems-\d{4}-\d\d-\d\d\.csv$/);
  expect(complaints).toEqual([]);
});

test('a limit that comes out after the fill dates every machine anew, with whom to call', async ({ page, app }) => {
  await signIn(page, app, '/workshop');
  await page.locator('.shelf li').filter({ hasText: 'Distilled + biocide' }).getByRole('button', { name: 'its limit changed' }).click();
  await page.getByLabel('Life by its sheet').last().fill('3');
  await page.getByRole('button', { name: 'Date all anew' }).click();
  await expect(page.getByText(/dates? moves?\./)).toBeVisible();
  const first = page.locator('.calls li').first();
  const day = (await first.locator('.figures').innerText()).split('\n').at(-1) ?? '';
  await first.getByRole('link').click();
  await expect(page.getByText('Distilled + biocide: 3 months by its sheet').first()).toBeVisible();
  expect(day).not.toBe('');
});
