// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { defineComponent, h, nextTick, ref } from 'vue';
import { mountScreen, settle } from '../../../tests/screens/mountScreen.js';
import FormDialog from './FormDialog.vue';

/** A page with a button that opens a dialog with two fields. */
const page = () => {
  const open = ref(false);
  const screen = mountScreen(
    defineComponent(() => () => [
      h('button', { id: 'opens', onClick: () => (open.value = true) }, 'Change'),
      open.value
        ? h(
            FormDialog,
            { title: 'Change', button: 'Save', onClose: () => (open.value = false) },
            { default: () => [h('input', { id: 'first' }), h('input', { id: 'second' })] },
          )
        : null,
    ]),
  );
  return { screen, open };
};
const focused = (): string | undefined => document.activeElement?.id;

describe('the keyboard and a dialog', () => {
  it('goes to the first field when it opens, and back to what opened it when it closes', async () => {
    const { screen, open } = page();
    const button = screen.find('#opens');
    (button.element as HTMLElement).focus();
    await button.trigger('click');
    await settle();
    expect(focused()).toBe('first');
    open.value = false;
    await nextTick();
    await settle();
    expect(focused()).toBe('opens');
  });
});
