// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { useSession } from '../people/sessionStore.js';
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
  priceMinor: null,
  lots: [],
} as const;
const MOVED = { id: 'd', systemId: 's', systemName: 'Red tower', ownerName: 'Ada Fernwick', phone: '+351 555 123', email: 'ada@x.example', channel: 'phone', before: '2027-03-01', dueOn: '2026-07-01' }; // prettier-ignore

afterEach(() => {
  document.body.innerHTML = '';
});

const CHANGE = { id: 'c', at: '2026-03-10T09:00:00Z', by: 'Tess', coolant: 'Emberlow Red', before: { sheetLifeMonths: 12, sheetLifeHours: null }, after: { sheetLifeMonths: 4, sheetLifeHours: null }, moved: [MOVED, { ...MOVED, id: 'e', systemName: 'Loft', channel: 'email' }], told: [] as string[], undoneAt: null, canUndo: true }; // prettier-ignore

describe('a changed limit', () => {
  let changes: (typeof CHANGE)[] = [];
  function server(moved: object[] = CHANGE.moved) {
    changes = [];
    return fakeServer(({ method, path, body }) => {
      if (path.endsWith('/limit/trial')) return { status: 200, body: { moved } };
      if (method === 'PUT' && path.endsWith('/limit')) changes = [CHANGE];
      if (path.endsWith('/told')) changes = [{ ...CHANGE, told: [(body as { item: string }).item] }];
      return { status: 200, body: { moved, changes, written: 1 } };
    });
  }
  async function asked(value: string) {
    const screen = mountScreen(LimitChange, { props: { product } as never });
    useSession().account = { role: 'lead', timeZone: 'UTC' } as never;
    await settle();
    await screen.find('input').setValue(value);
    await screen.find('form').trigger('submit');
    await settle();
    return screen;
  }
  const press = async (screen: Awaited<ReturnType<typeof asked>>, words: string): Promise<void> => {
    await screen.findAll('button').find((each) => each.text() === words)?.trigger('click'); // prettier-ignore
    await settle();
  };

  it('is asked first: how many dates would move, and nothing is written', async () => {
    const sent = server();
    const screen = await asked('4');
    expect(wordsOf(screen)).toContain('2 dates move, the first to 1 Jul 2026 (Red tower). Nothing is written yet.');
    expect(sent.some(({ method }) => method === 'PUT')).toBe(false);
  });

  it('says whom to tell on their channel, and who was', async () => {
    const sent = server();
    const screen = await asked('4');
    await press(screen, 'Date all anew');
    expect(sent.find(({ method }) => method === 'PUT')).toMatchObject({
      path: '/coolants/p/limit',
      body: { version: 3, sheetLifeMonths: 4 },
    });
    expect(wordsOf(screen)).toContain('12 months became 4 months on 10 Mar 2026, by Tess. 0 of 2 told.');
    expect(wordsOf(screen)).toMatch(/Red tower Ada Fernwick, \+351 555 123 .*Loft Ada Fernwick, ada@x\.example/);
    expect(screen.emitted('changed')).toHaveLength(1);
    await screen.find('input[aria-label="Ada Fernwick was told of Red tower"]').setValue(true);
    await settle();
    expect(wordsOf(screen)).toContain('1 of 2 told');
    await press(screen, 'Write to 1 by e-mail');
    expect(sent.at(-1)).toMatchObject({ method: 'POST', path: '/limit-changes/c/letters' });
  });

  it('says when no date moves, and when somebody was quicker', async () => {
    server([]);
    const screen = await asked('13');
    expect(wordsOf(screen)).toContain('No date moves: another clock comes first everywhere.');
    fakeServer(() => ({ status: 409, body: { error: { code: 'stale', message: 'Somebody else saved first.', yours: {}, theirs: {} } } }));
    await screen.find('form').trigger('submit');
    await settle();
    expect(wordsOf(screen)).toMatch(/Somebody changed this limit meanwhile|Somebody else saved first/);
  });
});
