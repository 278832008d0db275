import type { Page } from '@playwright/test';
import { choose, expect, search, signIn, snap, test } from './app.js';

/** The loop drawn in the case: dragging, nudging, bending, joining, taking back. */
const node = (page: Page, name: string) => page.locator('.vue-flow__node-part').filter({ hasText: name });
const x = (page: Page) => page.locator('.panel').getByLabel('x', { exact: true }).first();
const xOf = async (page: Page): Promise<number> => Number(await x(page).inputValue());

test('a part is nudged, dragged and taken back; a tube is bent, taken out and drawn again', async ({ page, app, complaints }) => {
  await signIn(page, app, '/systems');
  await search(page, 'Glass cube 2');
  await page.locator('.life').filter({ hasText: 'Glass cube 2' }).click();
  await page.getByRole('link', { name: 'Open the loop' }).click();
  await page.getByRole('button', { name: 'Drawing', exact: true }).click();
  await expect(node(page, 'cpu')).toBeVisible();
  await snap(page, 'drawing');

  // figures in the drawing: the same flow all round a series loop
  await choose(page, 'Written in the drawing', 'flow');
  const flows = page.locator('.vue-flow__edge-tube .figure');
  await expect(flows.first()).toContainText('L/h');
  expect(new Set(await flows.allInnerTexts()).size).toBe(1);
  await choose(page, 'Written in the drawing', 'no figures');

  // by key
  await node(page, 'cpu').click();
  const start = await xOf(page);
  await page.locator('.drawing').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => xOf(page)).toBe(start + 1);
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(() => xOf(page)).toBe(start + 21);

  // by hand: the volume of its tubes follows the drawing
  const whole = await page.getByLabel('Loop volume').innerText();
  const box = (await node(page, 'cpu').boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2 + 40, { steps: 6 });
  await page.mouse.up();
  await expect.poll(() => xOf(page)).toBeLessThan(start);
  await expect(page.getByLabel('Loop volume')).not.toHaveText(whole);
  for (let press = 0; press < 3; press += 1) await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => xOf(page)).toBe(start);

  // a tube: one bend more, then out, then drawn again from port to port
  const tubes = page.locator('.vue-flow__edge-tube');
  const count = await tubes.count();
  await tubes.nth(2).locator('.reach').dblclick({ force: true });
  await expect(page.getByText(/^bend 2/)).toBeVisible();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(tubes).toHaveCount(count - 1);
  await expect(page.getByText('No tube feeds cpu.')).toBeVisible();
  await node(page, 'gpu').locator('[data-handleid="out"]').dragTo(node(page, 'cpu').locator('[data-handleid="in"]'), { force: true });
  await expect(tubes).toHaveCount(count);
  await expect(page.getByText('No tube feeds cpu.')).toBeHidden();
  expect(complaints).toEqual([]);
});
