import { DEFAULT_RATES, type PriceList } from '../../core/workshop/prices/rates.js';
import { mount, type ComponentMountingOptions, type VueWrapper } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import type { Component } from 'vue';
import { createRouter, createMemoryHistory } from 'vue-router';
import { createVuetify } from 'vuetify';
import { words } from '../../web/base/words/words.js';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';

// The document of these tests has no visual viewport; dialogs place themselves in one.
if (typeof window !== 'undefined' && !window.visualViewport) {
  const viewport = Object.assign(new EventTarget(), {
    width: 1280,
    height: 800,
    scale: 1,
    offsetLeft: 0,
    offsetTop: 0,
    pageLeft: 0,
    pageTop: 0,
  });
  Object.defineProperty(window, 'visualViewport', { value: viewport, configurable: true });
  Object.defineProperty(globalThis, 'visualViewport', { value: viewport, configurable: true });
}

const mounted: VueWrapper[] = [];

/** Takes down what the last test mounted. */
export function unmountAll(): void {
  for (const screen of mounted.splice(0)) screen.unmount();
}

/** Mounts a part of a screen with the plugins it expects, and with an address bar of its own that stands at `at`. */
export function mountScreen<T extends Component>(component: T, options: ComponentMountingOptions<T> = {}, at = '/'): VueWrapper {
  const pinia = createPinia();
  setActivePinia(pinia);
  const history = createMemoryHistory();
  history.replace(at);
  const router = createRouter({ history, routes: [{ path: '/:path(.*)*', component: { template: '<div />' } }] });
  const vuetify = createVuetify({ icons: { defaultSet: 'mdi', aliases, sets: { mdi } } });
  const screen = mount(
    component as Component,
    { attachTo: document.body, ...options, global: { plugins: [pinia, router, vuetify, words], ...options.global } } as never,
  ) as VueWrapper;
  mounted.push(screen);
  return screen;
}

/** What a screen says, with runs of white space taken as one. */
export const wordsOf = (screen: { text(): string }): string => screen.text().replace(/\s+/g, ' ');

export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  readonly headers: Record<string, string>;
}

type Reply = { status: number; body: unknown } | 'unreachable';

/** Replaces the network: answers with what `reply` says and remembers what was asked. */
/** @param prices what the workshop asks; nothing is reckoned without. Screens load it beside what they are about: it is not among `asked` */
const NO_PRICES: PriceList = { rates: DEFAULT_RATES, items: [], coolants: [] };
export function fakeServer(reply: (asked: Asked) => Reply, prices: () => PriceList = () => NO_PRICES): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = (async (url: string, init: RequestInit = {}) => {
    const one: Asked = {
      method: init.method ?? 'GET',
      path: url.replace(/^\/api/, ''),
      body: init.body ? JSON.parse(init.body as string) : null,
      headers: init.headers as Record<string, string>,
    };
    if (one.path === '/price-list') return new Response(JSON.stringify(prices()), { status: 200 });
    asked.push(one);
    const answer = reply(one);
    if (answer === 'unreachable') throw new TypeError('fetch failed');
    return new Response(JSON.stringify(answer.body), { status: answer.status });
  }) as typeof fetch;
  return asked;
}

export const settle = async (): Promise<void> => {
  for (let n = 0; n < 25; n += 1) await new Promise((resolve) => setTimeout(resolve, 0));
};
