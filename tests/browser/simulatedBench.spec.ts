import type { Locator, Page } from '@playwright/test';
import { figure } from './benchHands.js';
import { barriers, choose, expect, search, signIn, snap, test, type RunningApp } from './app.js';

/** s that pass at a time at a bench in earnest */
const STEP_S = 8;

/** mL; a scale takes less for a drip from the spout */
const LEAST_POUR_ML = 8;

/** A whole commissioning at a bench whose instruments speak: nobody types a gauge, a pour or a level. */
class Commissioning {
  constructor(
    readonly page: Page,
    readonly app: RunningApp,
  ) {}

  /** What the bench hides is drawn alike every time: a story of one truth, not of a thousand. */
  private async drawAlike(seed: number): Promise<void> {
    await this.page.route(/\/api\/runs(\/[^/]+\/simulated-bench)?$/, async (route) => {
      const request = route.request();
      if (request.method() !== 'POST') return route.continue();
      const body = request.postDataJSON() as { practice?: object | null; scenario?: string };
      const seeded = body.practice ? { ...body, practice: { ...body.practice, seed } } : body.scenario ? { ...body, seed } : body;
      await route.continue({ postData: JSON.stringify(seeded) });
    });
  }

  /** A planned machine of the demo goes on a bench; the simulated one plays it. */
  async begin(hides: string, mode: 'in earnest' | 'practice', seed: number): Promise<void> {
    const { page } = this;
    await this.drawAlike(seed);
    await signIn(page, this.app, '/systems');
    await search(page, 'Edit suite 2');
    await page.locator('.life').filter({ hasText: 'Edit suite 2' }).filter({ hasText: 'Yorick Dunmere' }).first().click();
    await page.getByRole('button', { name: /^(Start commissioning|Commission again)/ }).click();
    if (mode === 'practice') {
      await page.getByRole('radio', { name: /Practice table/ }).click();
      await choose(page, 'What it hides', hides);
    }
    await page.getByRole('button', { name: 'change', exact: true }).click();
    await page.locator('label').filter({ hasText: '10 minutes' }).click();
    await page.getByRole('button', { name: mode === 'practice' ? 'Practise' : 'Put it on the bench' }).click();
    await page.waitForURL('**/runs/*');
    if (mode === 'in earnest') {
      await page.getByRole('button', { name: 'let a simulated bench play this run' }).click();
      await choose(page, 'What it hides', hides);
      await page.getByRole('button', { name: 'Start it' }).click();
    }
    await expect(page.getByLabel('Instruments of this bench')).toContainText('Pressure gauge');
    await expect(page.locator('.strip .tag')).toHaveText('simulated');
  }

  step = (title: string): Promise<void> => expect(this.page.locator('.title h2')).toHaveText(title);

  /** One instrument of the strip. */
  face = (name: string): Locator => this.page.locator('.strip .face').filter({ hasText: name });

  async tickAll(): Promise<void> {
    const open = this.page.locator('.checks .check.open:not(:has(.later))');
    for (let left = await open.count(); left > 0; left -= 1) {
      await this.page.keyboard.press('c');
      await expect(open).toHaveCount(left - 1);
    }
  }

  async done(next: string): Promise<void> {
    await this.page.getByRole('button', { name: /^Done:/ }).click();
    await this.step(next);
  }

  async upToDry(): Promise<void> {
    for (const next of ['Flush the new parts', 'Put it together', 'Close the loop', 'Only the pump on power', 'Air test']) {
      await this.tickAll();
      await this.done(next);
    }
    await this.tickAll();
  }

  /** Pumps up, lets the gauge be read every minute, and waits for a verdict. */
  async airTest(verdict: 'tight' | 'leaks', pass: (seconds: number) => Promise<void>): Promise<void> {
    const { page } = this;
    await page.getByRole('button', { name: /^Pump up to/ }).click();
    await expect(page.locator('.act .gauge')).toContainText(/(49|50|51)\.\d/);
    await page.getByRole('button', { name: 'Closed at pressure: read it every minute' }).click();
    await expect(page.getByText('Read by itself, once a minute.')).toBeVisible();
    // the server reads on behind the first reading: it must have that before time passes
    await this.told();
    // "cannot tell yet" is an answer: then some minutes more
    const read = page.getByText(/^\d+ readings/);
    const count = async (): Promise<number> => Number((await read.innerText()).split(' ')[0]);
    await expect(async () => {
      const before = await count();
      await pass(1200);
      // a verdict counts once the minutes that passed have been read: in a leap of the clock, every second half minute or third
      await expect.poll(count).toBeGreaterThanOrEqual(before + 10);
      await expect(read).toContainText(/the last (\d+ s|1 min) ago/);
      await expect(figure(page)).toHaveText(verdict, { timeout: 4000 });
    }).toPass();
    await expect(page.getByRole('img', { name: 'Decay of the test pressure' })).toBeVisible();
  }

  /** The air of a passed test is let out before anything is opened. */
  async letOut(): Promise<void> {
    await this.page.getByRole('button', { name: 'Let the air out' }).click();
    await expect(this.page.locator('[data-region="limit"]')).toContainText(/now [-−]?0\.\d/);
    await this.tickAll();
  }

  /**
   * Pours what the screen asks for; the scale says how much it was; the pump stops by itself at the low mark.
   * @param rest lets the seconds pass until what fell back has come to rest
   * @param pass lets seconds pass, and has the screen learn of them
   */
  async fill(rest: () => Promise<void>, pass: (seconds: number) => Promise<void>): Promise<void> {
    const { page } = this;
    await page.getByRole('button', { name: 'This one' }).click();
    const order = page.locator('.fill-order');
    // a pour beside the pump ends with the pump: the guard may have been quicker
    const hand = async (ml: string, besidePump = false): Promise<boolean> => {
      await page.getByLabel('Pour', { exact: true }).fill(ml);
      await page.getByRole('button', { name: 'Pour', exact: true }).click();
      // the scale settles once the bottle is empty: poured as a slow pump draws, that takes its time
      const poured = page.getByLabel('Poured just now');
      const stopped = async (): Promise<boolean> => besidePump && (await page.getByRole('button', { name: /^Pump on/ }).isVisible());
      let [isNothing, looks] = [false, 0];
      await expect(async () => {
        // so little went in that the scale takes it for a drip: the order was older than the level
        isNothing = ((await stopped()) || Number(ml) < LEAST_POUR_ML || (looks += 1) > 8) && (await poured.inputValue()) === '';
        await rest();
        if (!isNothing) await expect(poured).not.toHaveValue('', { timeout: 3000 });
      }).toPass();
      if (isNothing) return false;
      await expect(page.getByText(/The can lost/)).toBeVisible();
      return true;
    };
    const says = async (): Promise<string> => `${await order.getAttribute('data-order')} ${await figure(this.page).innerText()}`;
    // an entry shows at once: the order behind it is another one
    const changed = (before: string): Promise<void> => expect.poll(says).not.toBe(before);
    for (let n = 0; n < 40; n += 1) {
      const what = await order.getAttribute('data-order');
      const big = await figure(this.page).innerText();
      if (what === 'finish') break;
      if (what === 'pour') {
        if (!(await hand((await order.getAttribute('data-most')) as string))) continue;
        await page.getByRole('button', { name: 'Poured up to the mark' }).click();
        await changed(`${what} ${big}`);
        await this.told();
      } else if (what === 'draw-off') {
        await page.getByLabel('Drawn off', { exact: true }).fill(big.split(/\s/)[0] as string);
        await page.getByRole('button', { name: 'Drawn off', exact: true }).click();
        await changed(`${what} ${big}`);
        await this.told();
      } else if (what === 'pump-on') await this.pulse(big, hand, pass);
      // a page that was just opened has not heard the sensor yet
      else if (what === 'read-level') await rest();
      else throw new Error(`no hand follows the order ${what}: ${big}`);
      if (n === 1) await snap(page, 'bench-fill-live');
      await rest();
    }
    await expect(figure(this.page)).toContainText('nothing more goes in');
    await this.tickAll();
    await this.done('Wet test');
  }

  /** Everything that was entered is with the server, and what it orders next is on screen. */
  told = (): Promise<void> => expect(this.page.getByText(/on this device only|written to this device/)).toBeHidden();

  /** The pump, for as long as the order says: at the low mark the server takes the supply off, else a hand does. */
  private async pulse(
    big: string,
    hand: (ml: string, besidePump?: boolean) => Promise<boolean>,
    pass: (seconds: number) => Promise<void>,
  ): Promise<void> {
    const { page } = this;
    await expect(page.getByRole('button', { name: /^Pump on/ })).toBeEnabled();
    await page.keyboard.press('p');
    await expect(
      page
        .locator('.log li')
        .filter({ hasText: /^\d+:\d+\s*Pump on/ })
        .first(),
    ).toBeVisible();
    if (big.includes('while the pump runs') && (await hand(big.split(/\s/)[0] as string, true))) {
      // the guard takes the supply off where the level falls to the mark meanwhile
      await page.getByRole('button', { name: /^Poured while it runs$|^Poured up to the mark$/ }).click();
    }
    await this.told();
    // as long as the order says; what is shorter passes by itself
    const seconds = big.includes('s of pump') ? Number(big.split(/\s/)[0]) : 0;
    if (seconds >= STEP_S) await pass(seconds);
    const flowLph = async (): Promise<number> => Number((await this.face('Flow').locator('.value').innerText()).split(/\s/)[0]);
    // liquid comes back, or the guard takes the supply off at the low mark
    await expect.poll(async () => (await flowLph()) > 20 || (await page.getByRole('button', { name: /^Pump on/ }).isVisible())).toBe(true);
    const back = page.getByRole('button', { name: 'Liquid comes back at the return' });
    if ((await flowLph()) > 20 && (await back.isVisible())) await back.click();
    // the guard may be as quick as the hand: its press then finds a switch that rests
    const off = page.getByRole('button', { name: /^Pump off/ });
    await expect(async () => {
      if (await off.isVisible()) await off.click({ timeout: 2000 });
      await expect(page.getByRole('button', { name: /^Pump on/ })).toBeVisible({ timeout: 2000 });
    }).toPass();
    await expect(this.face('Pump supply')).toContainText('off');
  }

  async wetTest(pass: (seconds: number) => Promise<void>): Promise<void> {
    const { page } = this;
    await page.getByRole('button', { name: 'Pump on, start the clock' }).click();
    await expect(this.face('Pump supply')).toContainText('on');
    await pass(640);
    await expect(page.getByRole('timer')).toContainText('done');
    await page.getByRole('button', { name: 'Look around' }).click();
    await expect(page.locator('.seen')).toContainText('Every towel is dry');
    await this.tickAll();
    await this.done('Bleed');
  }

  /** Runs, stops, and takes the levels from the sensor. */
  async cycle(pass: (seconds: number) => Promise<void>): Promise<void> {
    const { page } = this;
    const before = await page.locator('.bleed .list li').count();
    // the switch rests for a second behind the last stop, and is locked at the low mark until somebody tops up
    const on = page.getByRole('button', { name: /^Pump on/ });
    await expect(async () => {
      if (!(await on.isEnabled()) && (await page.getByText(/its low mark/).count()) > 0) await this.topUp();
      await expect(on).toBeEnabled({ timeout: 3000 });
    }).toPass();
    await page.keyboard.press('p');
    await expect(page.getByRole('button', { name: /^Pump off/ })).toBeVisible();
    await expect(this.face('Pump supply')).toContainText('on');
    await pass(600);
    await expect(this.face('Level').locator('.value')).toHaveText(/\d/);
    await page.keyboard.press('p');
    await expect(page.getByRole('button', { name: /^Pump on/ })).toBeVisible();
    await expect(this.face('Pump supply')).toContainText('off');
    await pass(8);
    await expect(page.getByText('Levels of the last stop, from the sensor')).toBeVisible();
    await page.getByRole('button', { name: 'Cycle done' }).click();
    await expect(page.locator('.bleed .list li')).toHaveCount(before + 1);
  }

  /** Puts back what the air took: the screen says how much, the scale how much it was. */
  async topUp(): Promise<void> {
    const { page } = this;
    const low = await page.locator('.top-up .row .quiet').innerText();
    const level = Number((await page.locator('.top-up .gauge').getAttribute('aria-label'))?.match(/^([\d ]+) mL/)?.[1] ?? '0');
    const mark = Number((await page.locator('.top-up').getAttribute('data-mark')) ?? '0');
    expect(low).not.toBe('');
    if (mark - level < 15) return;
    const ml = String(Math.floor(mark - level - 4));
    await page.getByLabel('Pour', { exact: true }).fill(ml);
    await page.getByRole('button', { name: 'Pour', exact: true }).click();
    // a hand that types what the jug says is right, whatever the scale has seen by then
    await page.getByLabel('Topped up just now').fill(ml);
    await page.getByRole('button', { name: 'Enter top-up' }).click();
    await expect(
      page
        .locator('.log li')
        .filter({ hasText: `Poured ${ml} mL` })
        .first(),
    ).toBeVisible();
  }

  async bleed(most: number, pass: (seconds: number) => Promise<void>): Promise<void> {
    const big = figure(this.page);
    for (let n = 0; n < most && !(await big.innerText()).includes('bled'); n += 1) await this.cycle(pass);
  }
}

// what it fills, bleeds and turns by orders is played a thousandfold by `./lavacrum trial`, by hand in the slice: every night, not at every change
test(
  'a commissioning is led by the instruments, through a cut network, and turned where a pocket stays',
  { tag: '@thorough' },
  async ({ page, app, context, complaints }) => {
    const bench = new Commissioning(page, app);
    let lastReading = 0;
    // the server's clock moves; the screen learns it when it wakes up
    const pass = async (seconds: number): Promise<void> => {
      app.pass(seconds);
      const read = page.waitForResponse((answer) => /\/api\/runs\/[^/]+$/.test(answer.url()) && answer.request().method() === 'GET');
      await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
      const { now, run } = (await (await read).json()) as { now: string; run: { benchId: string } };
      // the page has taken that time as its own: an entry made before it would lie ten minutes back
      const device = async (): Promise<number> => Number(await page.locator('main[data-now]').getAttribute('data-now'));
      await expect.poll(device, { intervals: [20, 50, 100] }).toBeGreaterThanOrEqual(Date.parse(now) / 1000 - 2);
      // and the bench has lived through it
      const until = Date.parse(now) - 1000;
      const lived = async (): Promise<boolean> => {
        const path = `${app.url}/api/benches/${run.benchId}/readings${lastReading > 0 ? `?after=${lastReading}` : ''}`;
        const { readings } = (await (await page.request.get(path)).json()) as { readings: [number, string, number, string][] };
        const [id, , , at] = readings.at(-1) ?? [lastReading, '', 0, ''];
        lastReading = id;
        return Date.parse(at) >= until;
      };
      await expect.poll(lived, { intervals: [50, 100, 100, 200] }).toBe(true);
    };
    await bench.begin('Air that will not come home by itself', 'in earnest', 5);
    await bench.upToDry();
    await bench.airTest('tight', pass);

    // the network is cut: a note waits on the device, readings that came meanwhile are there afterwards
    const readings = async (): Promise<number> => Number((await page.getByText(/\d+ readings/).innerText()).match(/(\d+) readings/)?.[1]);
    const before = await readings();
    await context.setOffline(true);
    await page.keyboard.press('m');
    await page.getByLabel('What you saw or did').fill('written in the cellar');
    await page.getByRole('button', { name: 'Write it down' }).click();
    await expect(page.getByText('1 entry is on this device only')).toBeVisible();
    app.pass(130);
    // the server goes on reading meanwhile
    const id = new URL(page.url()).pathname.split('/').at(-1) as string;
    const kept = async (): Promise<number> => {
      const { events } = (await (await page.request.get(`${app.url}/api/runs/${id}`)).json()) as { events: { body: { type: string } }[] };
      return events.filter(({ body }) => body.type === 'dry-reading').length;
    };
    await expect.poll(kept).toBeGreaterThan(before);
    await context.setOffline(false);
    await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
    await expect(async () => expect(await readings()).toBeGreaterThan(before)).toPass();
    await expect(page.locator('.notes')).toContainText('written in the cellar');
    await page.reload();
    await expect(page.locator('.notes li').filter({ hasText: 'written in the cellar' })).toHaveCount(1);

    await bench.letOut();
    await bench.done('Fill');
    // the device learns the time as well: an entry is never older than what was read before it
    await bench.fill(() => pass(STEP_S), pass);
    await bench.wetTest(pass);
    await bench.topUp();
    for (let n = 0; n < 3; n += 1) await bench.cycle(pass);
    await expect(page.locator('[data-region="so-far"]')).toContainText(/rise at stop is/);
    const bleed = await page.locator('.bleed').innerText();
    const advice = bleed.match(/turned (on its \w+(?: \w+)?|upside down)/)?.[1] ?? 'on its back';
    // the fill port is shut, the case is laid down and stood up again
    await page.getByText('Ports, turns, level').click();
    await choose(page, 'Turn towards', advice.replace(/^on /, ''));
    await page.getByLabel('Angle of the turn').fill('90');
    await page.getByRole('button', { name: 'Turned' }).click();
    await expect(page.getByRole('button', { name: 'Upright again' })).toBeEnabled();
    await bench.told();
    await pass(60);
    await pass(60);
    await page.getByRole('button', { name: 'Upright again' }).click();
    await bench.topUp();
    await bench.bleed(10, pass);
    await expect(figure(page)).toContainText('bled');
    await snap(page, 'bench-bleed-live');
    await bench.done('Return to power');
    await bench.tickAll();
    await page.getByRole('button', { name: 'Start the clock' }).click();
    await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
    await pass(1000);
    await expect(page.getByRole('timer')).toContainText('done');
    await bench.tickAll();
    await bench.done('Hand-over baseline');
    await page.getByLabel('Workload').fill('render');
    await page.getByLabel('Power into that part').fill('420');
    await page.getByLabel('Part', { exact: true }).fill('63');
    await page.getByLabel('Room', { exact: true }).fill('22');
    await page.getByRole('button', { name: 'Enter reading' }).click();
    await bench.tickAll();
    await bench.done('Sign off');
    await page.getByLabel('Closing remark').fill('all by instruments');
    await page.getByRole('button', { name: 'Sign off', exact: true }).last().click();
    await page.waitForURL('**/record');
    await expect(page.getByText('A simulated bench played this run')).toBeVisible();
    expect(complaints.filter((text) => !/ERR_INTERNET_DISCONNECTED|ERR_NETWORK|ERR_FAILED/.test(text))).toEqual([]);
  },
);

// the same is led by orders alone in the trial and over the server's routes in instruments.test: every night, not at every change
test(
  'a leak is found dry, mended and tested again, and the practice ends with its debrief',
  { tag: '@thorough' },
  async ({ page, app }) => {
    const bench = new Commissioning(page, app);
    const skip = async (seconds: number): Promise<void> => {
      for (let left = seconds; left >= 600; left -= 600) {
        await page.getByRole('button', { name: '10 min', exact: true }).click();
        await expect(page.getByRole('button', { name: '10 min', exact: true })).toBeEnabled();
      }
    };
    await bench.begin('A leak at one of the joints', 'practice', 15);
    await bench.upToDry();
    await bench.airTest('leaks', skip);
    await snap(page, 'practice-leak');
    expect(await barriers(page, 'bench with instruments')).toEqual([]);

    // water on one joint after the other, until it bubbles
    await page.getByRole('button', { name: /^Pump up to/ }).click();
    const joints = await page.evaluate(async () => {
      const run = (await (await fetch(`/api${location.pathname}`)).json()) as {
        run: { procedure: { facts: { joints: { name: string }[] } } };
      };
      return run.run.procedure.facts.joints.map(({ name }) => name);
    });
    let found = '';
    for (const name of joints) {
      await choose(page, 'Water brushed on', name);
      await page.getByRole('button', { name: 'Brush it on' }).click();
      await expect(page.locator('.seen')).toContainText(name);
      if ((await page.locator('.seen').innerText()).startsWith('Bubbles')) {
        found = name;
        break;
      }
    }
    expect(found).not.toBe('');
    await page.keyboard.press('x');
    await page.getByRole('button', { name: /leak/i }).first().click();
    await page.getByText('By name').click();
    await page.getByRole('group', { name: 'Tube with its two joints' }).getByRole('button', { name: found, exact: true }).click();
    await page.getByRole('button', { name: 'Put it on record' }).click();
    await page.locator('.trouble input[type="radio"]').first().check();
    await page.getByLabel(/What was done|How/).fill('seated anew');
    await page.getByRole('button', { name: 'Mended' }).click();
    await page.getByRole('button', { name: 'Start the test again' }).click();
    await page.getByLabel('Why: what was found or changed').fill('joint seated anew');
    await page.getByRole('button', { name: 'Start again from zero' }).click();
    await bench.airTest('tight', skip);
    await page.getByRole('button', { name: 'Tight now' }).click();
    await bench.letOut();
    await bench.done('Fill');

    await page.getByRole('button', { name: 'End and debrief' }).click();
    await expect(page.getByRole('heading', { name: 'Debrief' })).toBeVisible();
    await expect(page.locator('.debrief')).toContainText(`A leak at ${found}.`);
    await expect(page.locator('.debrief')).toContainText('was found with air: not a drop came out');
    await snap(page, 'practice-debrief');
    expect(await barriers(page, 'debrief')).toEqual([]);
    await page.getByRole('link', { name: 'Back to the machine' }).click();
    await expect(page.getByText('Practice', { exact: true })).toHaveCount(0);
  },
);
