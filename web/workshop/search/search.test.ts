// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import SearchView from '../../pages/SearchView.vue';

const hit = (kind: string, title: string) => ({ kind, title, text: 'lot Q-77', at: '2026-03-01', to: '/systems/s' });
const pause = async (): Promise<void> => {
  await new Promise((resolve) => setTimeout(resolve, 300));
  await settle();
};

describe('search', () => {
  it('teaches what can be found, and asks for nothing before two letters', async () => {
    const asked = fakeServer(() => ({ status: 200, body: { hits: [] } }));
    const screen = mountScreen(SearchView);
    await screen.find('input').setValue('q');
    await pause();
    expect(asked).toEqual([]);
    expect(wordsOf(screen)).toContain('Everything that was ever written down');
  });

  it('asks once when the typing rests, and groups what it finds', async () => {
    const asked = fakeServer(() => ({ status: 200, body: { hits: [hit('lot', 'Also plugged'), hit('shelf', 'Plug G1/4')] } }));
    const screen = mountScreen(SearchView);
    for (const word of ['q-', 'q-7', 'q-77']) await screen.find('input').setValue(word);
    await pause();
    expect(asked.map(({ path }) => path)).toEqual(['/search?q=q-77']);
    expect(wordsOf(screen)).toMatch(/Lots, where they are inside.*Also plugged.*Store.*Plug G1\/4/);
  });

  it('says what went wrong', async () => {
    fakeServer(() => 'unreachable');
    const screen = mountScreen(SearchView);
    await screen.find('input').setValue('plug');
    await pause();
    expect(screen.find('p.danger').text().length).toBeGreaterThan(10);
  });
});
