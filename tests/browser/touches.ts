import type { Page } from '@playwright/test';

/**
 * Counts what hands do: a press on the screen, a key that acts, a field that is filled in. Survives reloads and other pages of
 * the same tab; begins anew when asked.
 */
export async function countTouches(page: Page): Promise<{ count(): Promise<number> }> {
  const watch = (): void => {
    const add = (): void => sessionStorage.setItem('touches', String(Number(sessionStorage.getItem('touches') ?? 0) + 1));
    let typing: EventTarget | null = null;
    window.addEventListener('pointerdown', add, true);
    window.addEventListener('focusout', () => (typing = null), true);
    window.addEventListener(
      'input',
      ({ target }) => {
        const isText = target instanceof HTMLElement && target.matches('input:not([type=checkbox]):not([type=radio]), textarea');
        if (isText && typing !== target) add();
        if (isText) typing = target;
      },
      true,
    );
    window.addEventListener(
      'keydown',
      ({ key, target }) => {
        const inField = target instanceof HTMLElement && target.matches('input:not([type=checkbox]), textarea');
        if (!inField && key !== 'Tab' && key !== 'Shift') add();
      },
      true,
    );
  };
  await page.addInitScript(watch);
  await page.evaluate(() => sessionStorage.removeItem('touches'));
  await page.evaluate(watch);
  return { count: () => page.evaluate(() => Number(sessionStorage.getItem('touches') ?? 0)) };
}
