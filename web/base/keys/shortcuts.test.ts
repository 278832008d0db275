// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, effectScope, h, ref } from 'vue';
import { mountScreen, settle, unmountAll } from '../../../tests/screens/mountScreen.js';
import { backToUsual, keyOf, keysAreOn } from './assigned.js';
import KeysDialog from './KeysDialog.vue';
import { useEarlyTyping } from './earlyTyping.js';
import { useShortcuts } from './shortcuts.js';

const did = vi.fn<(what: string) => void>();
const Bench = defineComponent({
  setup() {
    useShortcuts({
      'step-done': () => did('done'),
      note: () => did('note'),
      pump: () => did('pump'),
      'pump-off': () => did('off'),
    });
    return () =>
      h('div', [
        h('input', { type: 'checkbox', id: 'box' }),
        h('input', { type: 'text', id: 'text' }),
        h('button', { id: 'button' }, 'Not needed'),
      ]);
  },
});

function type(key: string, at = 'body'): KeyboardEvent {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
  document.querySelector(at)?.dispatchEvent(event);
  return event;
}
const done = (): string[] => did.mock.calls.map(([what]) => what);

beforeEach(() => {
  did.mockClear();
  backToUsual();
  mountScreen(Bench);
});
afterEach(() => {
  unmountAll();
  document.querySelectorAll('.v-overlay').forEach((each) => each.remove());
});

/** A list over the page, as the framework marks one. */
function openList(): void {
  const list = document.createElement('div');
  list.className = 'v-overlay v-menu v-overlay--active';
  document.body.append(list);
}

describe('keys of the bench', () => {
  it('work where a finger has ticked a box, and are silent where somebody types', () => {
    type('m', '#box');
    type('Enter', '#box');
    expect(type('m', '#text').defaultPrevented).toBe(false);
    expect(done()).toEqual(['note', 'done']);
  });

  it('leave Enter to the button it stands on', () => {
    expect(type('Enter', '#button').defaultPrevented).toBe(false);
    expect(done()).toEqual([]);
    type('m', '#button');
    expect(done()).toEqual(['note']);
  });

  it('do nothing inside an open list, but the pump’s key still stops', () => {
    openList();
    type('m');
    type('p');
    expect(done()).toEqual(['off']);
  });

  it('stop the pump by the pedal’s key from a field, a list and with keys turned off, and it reaches nothing else', () => {
    const heard = vi.fn();
    document.querySelector('#text')?.addEventListener('keydown', heard);
    type('F9', '#text');
    openList();
    type('F9');
    keysAreOn.value = false;
    type('F9');
    expect(done()).toEqual(['off', 'off', 'off']);
    expect(heard).not.toHaveBeenCalled();
  });

  it('are silent once turned off: letters type themselves, and only stopping is left of the pump’s', () => {
    keysAreOn.value = false;
    type('m');
    type('p');
    type('Enter');
    expect(done()).toEqual(['off', 'done']);
  });
});

describe('the list of keys', () => {
  const list = async () => {
    const screen = mountScreen(KeysDialog, { props: { modelValue: true } });
    await settle();
    return screen;
  };
  const button = (name: RegExp): HTMLElement =>
    [...document.querySelectorAll<HTMLElement>('.keys button')].find((each) => name.test(each.getAttribute('aria-label') ?? '')) as HTMLElement; // prettier-ignore
  const said = (): string => document.querySelector('.say')?.textContent?.trim() ?? '';

  it('gives an action another key, which then works and is remembered', async () => {
    await list();
    button(/Bench: note/).click();
    await settle();
    expect(said()).toContain('Press the key for: Bench: note');
    type('k');
    await settle();
    expect([keyOf('note'), said()]).toEqual(['k', '']);
    expect(JSON.parse(localStorage.getItem('lavacrum keys') ?? '{}')).toEqual({ on: true, keys: { note: 'k' } });
    expect(done()).toEqual([]);
    unmountAll();
    document.querySelectorAll('.v-overlay').forEach((each) => each.remove());
    mountScreen(Bench);
    type('m');
    type('k');
    expect(done()).toEqual(['note']);
  });

  it('refuses a key that is taken or that already moves something, and Escape leaves all as it was', async () => {
    await list();
    button(/Bench: note/).click();
    await settle();
    type('x');
    await settle();
    expect(said()).toContain('x already does something: Bench: something is wrong');
    type('ArrowDown');
    await settle();
    expect(said()).toContain('a letter, a digit, a sign or a function key');
    type('Escape');
    await settle();
    expect(keyOf('note')).toBe('m');
  });
});

describe('what is typed before a field is there', () => {
  it('is kept for it, and turns no page', () => {
    const scope = effectScope();
    const open = ref(false);
    const turned: string[] = [];
    const page = (event: KeyboardEvent): void => void turned.push(event.key);
    const early = scope.run(() => useEarlyTyping(open)) as ReturnType<typeof useEarlyTyping>;
    window.addEventListener('keydown', page);
    const press = (key: string, more: KeyboardEventInit = {}): boolean =>
      window.dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true, ...more }));
    press('5');
    open.value = true;
    for (const key of ['5', '5', ' ', '1']) press(key);
    press('Escape');
    expect(early.typed.value).toBe('55 1');
    // keys that write nothing go on: a pedal stops the pump at any time
    expect(turned).toEqual(['5', 'Escape']);
    early.end();
    press('2');
    expect(turned).toEqual(['5', 'Escape', '2']);
    scope.stop();
    window.removeEventListener('keydown', page);
  });
});
