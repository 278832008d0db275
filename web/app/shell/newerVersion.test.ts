// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, h, nextTick } from 'vue';
import { mountScreen, settle } from '../../../tests/screens/mountScreen.js';
import { newerVersion } from '../../base/shell/newerVersion.js';
import { useNotices } from '../../base/shell/notices.js';
import AccountMenu from './AccountMenu.vue';
import App from '../App.vue';

afterEach(() => {
  newerVersion.value = null;
  document.body.innerHTML = '';
});
const items = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('.v-list-item')];

describe('a newer version', () => {
  it('stays on offer in the menu until somebody loads it', async () => {
    let loaded = 0;
    const button = document.body.appendChild(document.createElement('button'));
    const menu = mountScreen(AccountMenu, { props: { activator: button } });
    await settle();
    expect(items().some(({ textContent }) => textContent?.includes('newer version'))).toBe(false);
    newerVersion.value = () => (loaded += 1);
    await nextTick();
    items()
      .find(({ textContent }) => textContent?.includes('Load the newer version'))
      ?.click();
    expect(loaded).toBe(1);
    menu.unmount();
  });

  it('is told of even where it was ready before the first page stood', async () => {
    const Early = defineComponent(() => {
      useNotices().say('A newer version of Lavacrum is ready.', () => undefined, 'Load it');
      return () => h(App);
    });
    const shell = mountScreen(Early, { global: { stubs: { RouterView: true } } });
    // the line comes with its own file
    await vi.waitFor(() => expect(document.body.textContent).toContain('A newer version of Lavacrum is ready.'), 10_000);
    shell.unmount();
  });
});
