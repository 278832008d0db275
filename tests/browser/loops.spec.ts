import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, signIn, test, type RunningApp } from './app.js';

const example = readFileSync('examples/two-radiators.json', 'utf8');

async function newSystem(page: Page, app: RunningApp, name: string): Promise<void> {
  await signIn(page, app, '/systems/new');
  await page.getByLabel('Owner', { exact: true }).fill(`Owner of ${name}`);
  await page.getByLabel('What the owner calls the machine').fill(name);
  await page.getByRole('button', { name: 'Save and lay out its loop' }).click();
  await expect(page.getByRole('heading', { name: /Lay out the loop/ })).toBeVisible();
}

const drop = (page: Page, name: string, text: string): Promise<void> =>
  page.locator('main').evaluate(
    (main, [fileName, content]) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([content as string], fileName as string, { type: 'application/json' }));
      main.dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }));
    },
    [name, text],
  );

test('a loop file is dropped in, edited, and goes out as it came, unknown fields included', async ({ page, app, complaints }) => {
  await newSystem(page, app, 'Import case');
  const foreign = JSON.stringify({ ...(JSON.parse(example) as object), author: 'somewhere else' });
  await drop(page, 'foreign.json', foreign);
  await expect(page.getByText('foreign.json laid out: 6 parts, 6 tubes.')).toBeVisible();
  await expect(page.getByLabel('Loop volume')).toContainText('806');
  await page.getByRole('button', { name: 'Save the loop' }).click();
  await expect(page.getByText(/, revision 1 of/)).toBeVisible();
  await page.waitForURL(/loops\/[0-9a-f-]{36}$/);
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Export' }).click()]);
  const out = JSON.parse(readFileSync(await download.path(), 'utf8')) as Record<string, unknown>;
  expect(out).toEqual(JSON.parse(foreign));
  expect(complaints).toEqual([]);
});

test('a file that is no loop is refused with the place of its fault, and nothing changes', async ({ page, app }) => {
  await newSystem(page, app, 'Refusal case');
  await drop(page, 'broken.json', example.replace('"volume_ml": 25', '"volume_ml": -25'));
  await expect(page.getByRole('alert')).toContainText(
    'At components[1].volume_ml: components[1].volume_ml must be greater than or equal to 0 (got -25)',
  );
  await expect(page.getByRole('heading', { name: /Lay out the loop/ })).toBeVisible();
});

// screens tell the same of drafts and revisions (web/machine/loop): every night, not at every change
test('edits are undone and redone, survive a reload, and become revisions @thorough', async ({ page, app }) => {
  await newSystem(page, app, 'Draft case');
  await page.getByRole('button', { name: 'Processor, one radiator' }).click();
  await page.getByRole('button', { name: 'Save the loop' }).click();
  await page.waitForURL(/loops\/[0-9a-f-]{36}$/);
  const volume = page.getByLabel('Loop volume');
  const whole = await volume.innerText();
  await page.getByRole('button', { name: /240 × 30 radiator/ }).click();
  await page.getByLabel('Volume', { exact: true }).fill('320');
  await expect(volume).not.toHaveText(whole);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(volume).toHaveText(whole);
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.reload();
  await expect(page.getByText('Unsaved changes from this device were put back.')).toBeVisible();
  await expect(volume).not.toHaveText(whole);
  await page.getByRole('button', { name: 'Save revision' }).click();
  await page.getByLabel('What changed and why').fill('thicker radiator');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/, revision 2 of/)).toBeVisible();
  await expect(page.getByText(/2 planned,[^]*: thicker radiator/)).toBeVisible();
});

test('a save made from an older revision shows both loops and loses neither @thorough', async ({ page, app, context }) => {
  await newSystem(page, app, 'Stale case');
  await page.getByRole('button', { name: 'Processor, one radiator' }).click();
  await page.getByRole('button', { name: 'Save the loop' }).click();
  await page.waitForURL(/loops\/[0-9a-f-]{36}$/);
  const other = await context.newPage();
  await other.goto(page.url());
  const rename = async (where: Page, name: string): Promise<void> => {
    await where.getByLabel('Name of the loop').fill(name);
    await where.getByLabel('Name of the loop').blur();
    await where.getByRole('button', { name: 'Save revision' }).click();
    await where.getByRole('button', { name: 'Save', exact: true }).click();
  };
  await rename(other, 'Theirs');
  await expect(other.getByText(/, revision 2 of/)).toBeVisible();
  await rename(page, 'Mine');
  const stale = page.getByRole('alert');
  await expect(stale).toContainText('Somebody saved this after you opened it');
  await expect(stale).toContainText('Mine');
  await expect(stale).toContainText('Theirs');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Save mine over it' }).click();
  await expect(page.getByText(/, revision 3 of/)).toBeVisible();
});
