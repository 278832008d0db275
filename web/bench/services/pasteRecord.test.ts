// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { mountScreen, wordsOf } from '../../../tests/screens/mountScreen.js';
import PasteRecord from './PasteRecord.vue';

describe('new paste on screen', () => {
  it('is written down under the blocks that were chosen, and stands there', async () => {
    const run = new TestRun().upTo('close');
    const screen = mountScreen(PasteRecord, {
      props: { procedure: run.procedure, state: run.state, step: 'close', locked: false, due: true },
    });
    const select = screen.findComponent({ name: 'VSelect' });
    expect((select.props('items') as { value: string }[]).map(({ value }) => value)).toEqual(['graphics', 'processor']);
    select.vm.$emit('update:modelValue', ['processor']);
    await screen.findAll('input').at(-1)?.setValue('Grey 4');
    await screen.find('form').trigger('submit');
    const [entry] = (screen.emitted('send') ?? []).map(([body]) => body);
    expect(entry).toEqual({ type: 'pasted', step: 'close', items: ['processor'], medium: 'paste', product: 'Grey 4' });
    run.say(entry as never);
    await screen.setProps({ state: run.state });
    expect(wordsOf(screen)).toContain('processor: new paste, Grey 4');
  });
});
