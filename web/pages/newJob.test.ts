// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, unmountAll, wordsOf } from '../../tests/screens/mountScreen.js';
import NewJobView from './NewJobView.vue';

afterEach(unmountAll);

describe('taking in a machine', () => {
  it('whose loop nobody has entered says so, and leads to entering it', async () => {
    const asked = fakeServer(({ path }) =>
      path.startsWith('/systems/')
        ? { status: 200, body: { today: '2026-03-10', system: { name: 'Heron' }, owner: { name: 'Ada', phone: '' }, loops: [], dues: [] } }
        : { status: 200, body: { products: [] } },
    );
    const screen = mountScreen(NewJobView, { props: { id: 's1' } });
    await settle();
    await settle();
    expect(wordsOf(screen)).toContain('Its loop is not known yet.');
    expect(screen.findAll('a').map((each) => each.attributes('href'))).toContain('/systems/s1/loops/new');
    // nothing is asked of a loop that is not there
    expect(asked.filter(({ path }) => path.includes('/history'))).toEqual([]);
  });
});
