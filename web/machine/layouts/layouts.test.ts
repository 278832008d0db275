// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import LoopBegin from './LoopBegin.vue';

const LAYOUT = { id: 'l1', name: 'Show tower', note: 'glass side', file: usualLoop() };

describe('how a loop begins', () => {
  it('offers the workshop’s own layouts as they look, and an empty case', async () => {
    fakeServer(() => ({ status: 200, body: { layouts: [LAYOUT] } }));
    const screen = mountScreen(LoopBegin);
    await settle();
    expect(wordsOf(screen)).toContain('Show tower');
    await screen.find('.take').trigger('click');
    expect(screen.emitted('layout')?.[0]).toEqual([LAYOUT.file, 'Show tower']);
    await screen
      .findAll('button')
      .find((each) => each.text() === 'Draw it in an empty case')
      ?.trigger('click');
    expect(screen.emitted('draw')).toHaveLength(1);
  });

  it('drops one with an undo', async () => {
    const asked: Asked[] = fakeServer(({ method }) => ({ status: 200, body: method === 'GET' ? { layouts: [LAYOUT] } : LAYOUT }));
    const screen = mountScreen(LoopBegin);
    await settle();
    await screen.find('.link').trigger('click');
    await settle();
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: '/layouts/l1' });
    expect(wordsOf(screen)).not.toContain('glass side');
  });
});
