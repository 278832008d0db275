import path from 'node:path';
import type { Page } from '@playwright/test';
import { expect, PICTURES } from './app.js';

/** A laptop at the bench, and a tablet held upright. */
const SIZES = [
  { width: 1280, height: 800 },
  { width: 834, height: 1112 },
] as const;

/** What hands must have before their eyes at any time, whatever else is on the page. */
const ALWAYS = ['h1', '.picture', '[data-region="order"]', '.act', '.caution', '[data-region="pump"]'];

/**
 * The frame of a step: nothing of it lies outside the screen or under the edge, no two parts lie on each other, the page itself does
 * not scroll, and the pump's switch can be pressed where it is drawn.
 */
export async function framed(page: Page, name: string): Promise<void> {
  const before = page.viewportSize();
  for (const size of SIZES) {
    await page.setViewportSize(size);
    const look = () =>
      page.evaluate((always) => {
        const bottom = document.querySelector('nav.edge')?.getBoundingClientRect().top ?? window.innerHeight;
        const frame = document.querySelector('.frame');
        const shown = always.flatMap((selector) => {
          const element = frame?.querySelector(selector);
          const box = element?.getBoundingClientRect();
          return element && box && box.height > 0 ? [{ selector, element, box }] : [];
        });
        const says = shown.flatMap(({ selector, box }) =>
          box.top < -1 || box.bottom > bottom + 1 || box.left < -1 || box.right > window.innerWidth + 1
            ? [`${selector} lies outside: ${Math.round(box.top)} to ${Math.round(box.bottom)} of ${Math.round(bottom)}`]
            : [],
        );
        for (const [index, a] of shown.entries())
          for (const b of shown.slice(index + 1)) {
            const apart = a.box.right <= b.box.left + 1 || b.box.right <= a.box.left + 1 || a.box.bottom <= b.box.top + 1 || b.box.bottom <= a.box.top + 1; // prettier-ignore
            if (!apart) says.push(`${a.selector} lies on ${b.selector}`);
          }
        if (document.documentElement.scrollHeight > window.innerHeight + 1) says.push('the page scrolls');
        const pump = frame?.querySelector('[data-region="pump"] .switch');
        if (pump) {
          const box = pump.getBoundingClientRect();
          const hit = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
          if (pump.parentElement?.contains(hit) !== true) says.push('the pump’s switch is covered');
          if (box.height < 64) says.push(`the pump’s switch is ${Math.round(box.height)} px high`);
        }
        return says;
      }, ALWAYS);
    await expect.poll(look, { message: `${name} at ${size.width} × ${size.height}` }).toEqual([]);
    await page.screenshot({ path: path.join(PICTURES, `frame-${name.toLowerCase().replaceAll(' ', '-')}-${size.width}.png`) });
  }
  if (before) await page.setViewportSize(before);
}
