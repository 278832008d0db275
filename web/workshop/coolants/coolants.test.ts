// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import LimitChange from './LimitChange.vue';

const product = {
  id: 'p',
  version: 3,
  name: 'Emberlow Red',
  coolantClass: 'show',
  colour: '#b4343a',
  form: 'ready-mix',
  targetFraction: null,
  bottleMl: 1000,
  sheetLifeMonths: 12,
  sheetLifeHours: null,
  glycol: null,
  glycolFraction: null,
  lots: [],
} as const;
const MOVED = { id: 'd', systemId: 's', systemName: 'Red tower', ownerName: 'Ada Fernwick', phone: '+351 555 123', email: 'ada@x.example', channel: 'phone', before: '2027-03-01', dueOn: '2026-07-01' }; // prettier-ignore

afterEach(() => {
  document.body.innerHTML = '';
});

describe('a changed limit', () => {
  it('says whose dates move, from when to when, and whom to call on their channel', async () => {
    const asked = fakeServer(() => ({
      status: 200,
      body: { moved: [MOVED, { ...MOVED, id: 'e', systemName: 'Loft', channel: 'email' }] },
    }));
    const screen = mountScreen(LimitChange, { props: { product } as never });
    await screen.find('input').setValue('4');
    await screen.find('form').trigger('submit');
    await settle();
    expect(asked[0]).toMatchObject({ method: 'PUT', path: '/coolants/p/limit', body: { version: 3, sheetLifeMonths: 4 } });
    expect(wordsOf(screen)).toContain('2 dates move. Whom to tell, the earliest first');
    expect(wordsOf(screen)).toMatch(/Red tower Ada Fernwick, \+351 555 123 .*Loft Ada Fernwick, ada@x\.example/);
    expect(screen.emitted('changed')).toHaveLength(1);
  });

  it('says when no date moves, and when somebody was quicker', async () => {
    fakeServer(() => ({ status: 200, body: { moved: [] } }));
    const screen = mountScreen(LimitChange, { props: { product } as never });
    await screen.find('form').trigger('submit');
    await settle();
    expect(wordsOf(screen)).toContain('No date moves: another clock comes first everywhere.');
    fakeServer(() => ({ status: 409, body: { error: { code: 'stale', message: 'Somebody else saved first.', yours: {}, theirs: {} } } }));
    await screen.find('form').trigger('submit');
    await settle();
    expect(wordsOf(screen)).toMatch(/Somebody changed this limit meanwhile|Somebody else saved first/);
  });
});
