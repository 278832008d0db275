import { choose, drawnPicture, expect, pick, signIn, snap, test, timePasses } from './app.js';
import {
  bleedAndPower,
  done,
  drainAsAdvised,
  goOn,
  letWait,
  measure,
  openMachine,
  refill,
  rinseOnce,
  signOff,
  takeIn,
  tickAll,
  upToDrain,
} from './benchHands.js';
import { framed } from './frame.js';

test.describe.configure({ mode: 'serial' });

test(
  'a yearly flush: taken in with its signs, led, balanced, compared and closed',
  { tag: '@thorough' },
  async ({ page, app, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Orchard rig');
    await page.getByRole('link', { name: 'Take it in' }).click();

    // liquid and sample on one photograph: touched twice, it moves the advice
    const picture = await drawnPicture(page, [
      ['#dcd8ce', 0, 0, 640, 400],
      ['#7a2c30', 140, 120, 100, 240],
      ['#8a4a2c', 400, 120, 100, 240],
    ]);
    await page.getByRole('button', { name: 'Photograph it beside its sample' }).click();
    await page.locator('.v-overlay input[type=file]').setInputFiles({ name: 'glasses.png', mimeType: 'image/png', buffer: picture }); // prettier-ignore
    await expect(page.getByText('Touch the retained sample.')).toBeVisible();
    const canvas = page.locator('canvas');
    const box = (await canvas.boundingBox()) as { width: number; height: number };
    for (const x of [190, 450]) await canvas.click({ position: { x: (x / 640) * box.width, y: (240 / 400) * box.height } });
    await expect(page.getByText('no longer the colour of its retained sample')).toBeVisible();
    await page.getByRole('button', { name: 'Write it down' }).click();
    await expect(page.locator('.advised')).toContainText('flush and refill');
    await page.getByRole('button', { name: 'Leave it out' }).click();
    await expect(page.locator('.advised')).toContainText('loop stays closed');
    // signs move the advice; a hand may overrule it
    await page.getByLabel('In the owner’s words').fill('smells a little since spring');
    await page.getByText('It smells').click();
    await expect(page.locator('.advised')).toContainText('flush and refill');
    await expect(page.locator('.advised')).toContainText('A smell means growth');
    await snap(page, 'take-in');
    await takeIn(page, /flush and refill/);
    await upToDrain(page, '71');
    await expect(page.getByText(/this loop keeps/)).toBeVisible();
    await drainAsAdvised(page);
    await expect(page.getByText('The book balances')).toBeVisible();
    await page.evaluate(() => window.scrollTo(0, 0));
    await snap(page, 'bench-drain');
    await done(page, 'Rinse');

    // rinses until the old liquid is thin enough and the water is clear
    for (let n = 0; n < 3; n += 1) {
      await rinseOnce(page, app);
    }
    await page.getByRole('button', { name: 'still tinted' }).click();
    await page.getByRole('button', { name: 'Read', exact: true }).click();
    await expect(page.getByText(/the last water is still tinted/)).toBeVisible();
    await page.getByRole('button', { name: 'clear', exact: true }).click();
    await page.getByRole('button', { name: 'Read', exact: true }).click();
    await snap(page, 'bench-rinse');
    await done(page, 'Fill');
    await refill(page, app, 'L433');
    await bleedAndPower(page, app, '63');
    await expect(page.getByText(/^8\.\d ± \d\.\d K cooler than before, −0\.\d{3} K\/W$/)).toBeVisible();
    await signOff(page);
    await expect(page.getByRole('heading', { name: /Flush and refill of Orchard rig/ })).toBeVisible();
    await snap(page, 'record-flush');
    await openMachine(page, app, 'Orchard rig');
    await expect(page.getByText('Settling check').first()).toBeVisible();
    await expect(page.locator('.due').filter({ hasText: 'Coolant service' })).toContainText('in 12 months');
    expect(complaints).toEqual([]);
  },
);

test(
  'deposit at the inspection: strip and clean, and the machines of the same lot are flagged',
  { tag: '@thorough' },
  async ({ page, app, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Ferry cube');
    await page.getByRole('link', { name: 'Take it in' }).click();
    await page.getByText('Flakes, strings').click();
    await takeIn(page, /full strip and clean/);
    await upToDrain(page, '78');
    await drainAsAdvised(page);
    await done(page, 'Take it apart', true);
    await tickAll(page);
    await done(page, 'Inspection sheet', true);

    // one block with a layer, the rest sound
    await page.getByRole('button', { name: 'graphics', exact: false }).first().click();
    await page.getByRole('button', { name: 'layer' }).click();
    await expect(page.getByText(/clean it, then feel/)).toBeVisible();
    await snap(page, 'bench-inspection');
    await page.getByRole('button', { name: 'Looked at, next' }).click();
    const left = page.locator('.inspect .count b');
    for (let n = Number(await left.innerText()); n > 0; n -= 1) {
      await page.getByRole('button', { name: 'Sound, next' }).click();
      await expect(left).toHaveText(String(n - 1));
    }
    await expect(page.getByText(/a suspected cause/)).toBeVisible();
    await page.locator('.v-field').filter({ hasText: 'Suspected cause' }).first().click();
    await pick(page, 'particles fell out of the coolant');
    await page.locator('.v-field').filter({ hasText: 'Suspected with it' }).first().click();
    await pick(page, /The coolant’s lot/);
    await page.getByText(/Some of it stays inside/).click();
    await page.getByRole('button', { name: 'Write it down' }).click();
    await done(page, 'Clean', true);

    // it waits overnight, apart as it is, and goes on in the morning at the same step
    await letWait(page, 'Tomorrow', { lies: 'basin, parts in tray 1' });
    await framed(page, 'Waits overnight');
    app.pass(15 * 3600);
    await goOn(page, 'Clean');

    // the cleaner has its clock, and rings when it stays in too long
    await page.getByLabel('Cleaner, by its bottle').fill('citric bath');
    await page.getByLabel('Longest time, by its sheet').fill('30');
    await page.getByRole('button', { name: 'Cleaner is in' }).click();
    await expect(page.getByRole('timer')).toContainText(/29:5|30:00/);
    await timePasses(page, app, 2000);
    await expect(page.getByText(/too long: take it out now/)).toBeVisible();
    await page.getByRole('button', { name: 'citric bath is out' }).click();
    await page.getByRole('button', { name: 'smooth' }).click();
    await page.getByRole('button', { name: 'clear', exact: true }).click();
    await page.getByLabel('pH, where a cleaner was inside').fill('6,8');
    await page.getByRole('button', { name: 'Read', exact: true }).click();
    await tickAll(page);
    await snap(page, 'bench-clean');
    await done(page, 'Renew and replace', true);
    await tickAll(page);
    await done(page, 'Close the loop', true);
    await tickAll(page);
    // what the cleaner left in corners comes out with the last rinse, closed and run
    await done(page, 'Rinse', true);
    await rinseOnce(page, app);
    await page.getByRole('button', { name: 'clear', exact: true }).click();
    await page.getByLabel('pH, where a cleaner was inside').fill('6,9');
    await page.getByRole('button', { name: 'Read', exact: true }).click();
    await tickAll(page);
    await done(page, 'Fill', true);
    await refill(page, app, 'L446');
    await bleedAndPower(page, app, '64');
    await expect(page.getByText('particles stayed inside')).toBeVisible();
    await signOff(page);
    await expect(page.getByText(/Not claimed clean/)).toBeVisible();

    await openMachine(page, app, 'Lamp box');
    await expect(page.getByText(/the same lot .* is suspected in another machine/i).first()).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Follow-up' }).first()).toBeVisible();
    await openMachine(page, app, 'Ferry cube');
    await expect(page.getByText(/early look: particles stayed inside/i)).toBeVisible();
    expect(complaints).toEqual([]);
  },
);

test(
  'a leak whose final part is awaited: mended for now, with limits of use and its own day',
  { tag: '@thorough' },
  async ({ page, app, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Weir tower');
    await page.getByRole('link', { name: 'Take it in' }).click();
    await page.getByText('Drop, wet joint').click();
    await expect(page.getByText(/a leak goes before everything/).first()).toBeVisible();
    await takeIn(page, /^leak repair/);
    await tickAll(page);
    await done(page, 'Only the pump on power');
    await tickAll(page);
    await done(page, 'Isolate, dry, find');
    await page.getByRole('button', { name: /Something is wrong/ }).click();
    await page.getByRole('button', { name: 'A leak', exact: true }).click();
    await page.getByText('By name').click();
    await page.getByRole('group', { name: 'Tube with its two joints' }).getByRole('button').nth(3).click();
    await page.getByRole('button', { name: 'Put it on record' }).click();
    await tickAll(page);
    await done(page, 'Drain');
    await drainAsAdvised(page);
    await done(page, 'Mend');
    await expect(page.getByText('1 leak not mended')).toBeVisible();
    await page.locator('.trouble input[type="radio"]').first().check();
    await page.getByLabel('What was done').fill('end trimmed square');
    await page.getByRole('button', { name: 'Mended', exact: true }).click();
    await page.getByRole('button', { name: 'This fix is temporary' }).click();
    await page.getByLabel('What holds for now').fill('a run that pulls a little');
    await page.getByLabel('What is awaited').fill('half a metre of the same tube');
    const until = new Date(Date.now() + 12 * 86_400_000).toISOString().slice(0, 10);
    await page.getByRole('textbox', { name: 'Final fix by' }).fill(until);
    await page.getByRole('dialog').getByRole('button', { name: 'Write it down' }).click();
    await snap(page, 'bench-mend');
    await tickAll(page);
    await done(page, 'Close the loop');
    await tickAll(page);
    await done(page, 'Fill');
    await refill(page, app, 'L407');
    await page.getByRole('button', { name: 'Dry now' }).click();
    await bleedAndPower(page, app, '63');
    await signOff(page);
    await expect(page.locator('.loose')).toContainText('do not move the machine, look at the level every day');
    await openMachine(page, app, 'Weir tower');
    await expect(page.getByText(/temporary: a run that pulls a little/i)).toBeVisible();
    await page.getByRole('button', { name: 'It is done' }).first().click();
    await page.getByLabel('What was found or done').fill('new ring in, joint dry');
    await page.getByRole('dialog').getByRole('button', { name: 'It is done' }).click();
    await expect(page.locator('.due').filter({ hasText: /temporary: a run that pulls/i })).toHaveCount(0);
    await expect(page.locator('.history')).toContainText('new ring in, joint dry');
    expect(complaints).toEqual([]);
  },
);

test('a partial drain for a part change leaves the coolant’s clock as it was', { tag: '@thorough' }, async ({ page, app, complaints }) => {
  await signIn(page, app);
  await openMachine(page, app, 'Lamp box');
  const clockBefore = await page.locator('.due').filter({ hasText: 'Coolant service' }).locator('.figures').nth(1).innerText();
  await page.getByRole('link', { name: 'Take it in' }).click();
  await page.getByRole('button', { name: 'partial drain for a part change' }).click();
  await choose(page, 'Which part is changed', 'graphics');
  await takeIn(page, /^partial drain/, 'Only the joints that were opened, short and wet');
  await tickAll(page);
  await done(page, 'Measure before');
  await measure(page, '64');
  await done(page, 'Only the pump on power');
  await tickAll(page);
  await done(page, 'Drain');
  await expect(page.getByText(/Down to graphics/)).toBeVisible();
  await drainAsAdvised(page);
  await done(page, 'Renew and replace');
  await page.getByLabel('With what').fill('block for the new card');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('Replaced: graphics, block for the new card').first()).toBeVisible();
  await tickAll(page);
  await done(page, 'Close the loop');
  await tickAll(page);
  await done(page, 'Fill');
  await refill(page, app, 'L446');
  await bleedAndPower(page, app, '63');
  await signOff(page);
  await openMachine(page, app, 'Lamp box');
  await expect(page.locator('.due').filter({ hasText: 'Coolant service' })).toContainText(clockBefore);
  expect(complaints).toEqual([]);
});

test(
  'a loop is retired: nothing falls due, its parts have a place, the history stays',
  { tag: '@thorough' },
  async ({ page, app, complaints }) => {
    await signIn(page, app);
    await openMachine(page, app, 'Mosaic desk');
    await page.getByRole('link', { name: 'Take it in' }).click();
    await takeIn(page, /^loop retired/, '');
    await tickAll(page);
    await done(page, 'Only the pump on power');
    await tickAll(page);
    await done(page, 'Drain');
    await drainAsAdvised(page);
    await done(page, 'Take it apart');
    await tickAll(page);
    await done(page, 'Put it away');
    await choose(page, 'Part, plug or run', 'pump');
    await page.getByRole('button', { name: 'taken out' }).click();
    await page.getByLabel('Where it lies now').fill('drawer 9, rinsed');
    await page.getByRole('button', { name: 'Write it down' }).click();
    await expect(page.getByText(/nobody said where they lie/)).toBeVisible();
    await page.getByLabel(/^Where they lie: reservoir/).fill('box 7, capped');
    await page.getByRole('button', { name: 'All of them there' }).click();
    await done(page, 'Sign off');
    await signOff(page);
    await openMachine(page, app, 'Mosaic desk');
    await expect(page.getByText('Retired: nothing falls due.')).toBeVisible();
    await page.keyboard.press('4');
    await expect(page.getByText(/taken out of Mosaic desk, drawer 9, rinsed/)).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Waste' })).toBeVisible();
    await snap(page, 'store');
    expect(complaints).toEqual([]);
  },
);
