import { expect, search, signIn, test } from './app.js';

const asFile = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text, 'latin1') });

// server/workshop/importing tells the same over the routes: every night, not at every change
test('a workshop moves in from its own tables: the due list stands, a loop is laid out, the history follows, and one is taken back @thorough', async ({
  page,
  app,
  complaints,
}) => {
  await signIn(page, app, '/systems');
  await page.getByRole('link', { name: 'From a table' }).click();
  const machines =
    'Kunde;Telefon;Rechner;Seriennummer;Letzter Wechsel;Kühlmittel;Füllmenge;Std/Tag\nLisbet Härrow;(0351) 811;Loft rig;LH-1;3.4.2025;Hausblau;1,2 L;5,5\nLisbet Härrow;(0351) 811;Small white;LH-2;;;;2\nOtto Vell;call me;Desk box;;1.2.2026;Hausblau;;\n;;Nobody’s;;;;;\n';
  await page.setInputFiles('input[type="file"]', asFile('list.csv', machines.replace('’', "'")));
  await expect(page.getByText('3.4.2025 → 3 Apr 2025')).toBeVisible();
  await expect(page.getByText('Hausblau 2 rows')).toBeVisible();
  await page.getByRole('button', { name: 'Try it, write nothing' }).click();
  await expect(page.getByText('line 5')).toBeVisible();
  await expect(page.getByText('“call me” is no phone number')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 3 machines' }).click();
  await expect(page.getByText('machines brought in', { exact: true })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'The due list stands' })).toBeVisible();

  await page.getByRole('button', { name: 'Bring their history' }).click();
  await page.setInputFiles(
    'input[type="file"]',
    asFile('history.csv', 'Tag;Date;What;Coolant;mL;By\nLH-2;2025-11-05;Flush and refill;Hausblau;900;Rui\n'),
  );
  await page.getByRole('button', { name: 'Try it, write nothing' }).click();
  await page.getByRole('button', { name: 'Bring in 1 entry' }).click();
  await expect(page.getByText('entry brought in', { exact: true })).toBeVisible();

  await page.goto(`${app.url}/systems`);
  await search(page, 'lisbet harrow');
  await expect(page.locator('.life')).toHaveCount(2);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As a table' }).click();
  expect((await download).suggestedFilename()).toMatch(/^systems-\d{4}-\d\d-\d\d\.csv$/);
  await page.locator('.life').filter({ hasText: 'Small white' }).first().click();
  await expect(page.getByText('Flush and refill').first()).toBeVisible();
  await page.getByRole('link', { name: 'Lay out the loop' }).click();
  await page.getByRole('button', { name: 'Processor, one radiator' }).click();
  await page.getByRole('button', { name: 'Save revision' }).click();
  await page.getByRole('dialog').getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText(/, revision 2 of/)).toBeVisible();

  await page.goto(`${app.url}/systems/import`);
  await page.getByRole('button', { name: 'Take back history.csv' }).click();
  await expect(page.getByText('Taken back: 1 entry.')).toBeVisible();
  await page.getByRole('button', { name: 'Take back list.csv' }).click();
  await expect(page.getByText(/Worked with since, so they stay: Small white/)).toBeVisible();
  expect(complaints).toEqual([]);
});

test('a limit that comes out after the fill dates every machine anew, with whom to call @thorough', async ({ page, app }) => {
  await signIn(page, app, '/store');
  await page.locator('.shelf li').filter({ hasText: 'Distilled + biocide' }).getByRole('button', { name: 'its limit changed' }).click();
  await page.getByLabel('Life by its sheet').last().fill('3');
  // asked first: nothing is written before it is said how many move
  await page.getByRole('button', { name: 'What would move' }).click();
  await expect(page.getByText('Nothing is written yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Date all anew' }).click();
  await expect(page.getByText(/dates? moves?\./)).toBeVisible();
  const first = page.locator('.calls li').first();
  const day = (await first.locator('.figures').innerText()).split('\n').at(-1) ?? '';
  await first.getByRole('link').click();
  await expect(page.getByText('Distilled + biocide: 3 months by its sheet').first()).toBeVisible();
  expect(day).not.toBe('');
});
