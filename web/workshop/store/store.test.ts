import type { KeptRow, LotRow, StoreRow } from '@core/workshop/store/answers.js';
// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { useNotices } from '../../base/shell/notices.js';
import WasteShelf from '../waste/WasteShelf.vue';
import KeptParts from './KeptParts.vue';
import LoanBox from './LoanBox.vue';
import LotShelf from './LotShelf.vue';
import PurchaseList from './PurchaseList.vue';
import StoreShelf from './StoreShelf.vue';
import { itemRow, lotRow } from './storeRows.js';

let asked: Asked[];
let reply: (asked: Asked) => { status: number; body: unknown };
beforeEach(() => {
  reply = () => ({ status: 200, body: {} });
  asked = fakeServer((one) => reply(one));
});
type Screen = ReturnType<typeof mountScreen>;
const press = async (screen: Screen, words: RegExp): Promise<void> => {
  await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
  await settle();
};
const type = async (screen: Screen, label: string, value: string): Promise<void> => {
  const field = screen.findAll('.v-text-field').find((each) => each.find('label').text() === label);
  if (!field) throw new Error(`no field ${label}`);
  await field.find('input').setValue(value);
};
const sent = (method: string): Asked | undefined => asked.findLast((each) => each.method === method);

describe('counted things', () => {
  const ring: StoreRow = {
    id: 'r',
    name: 'O-ring 11 × 2',
    kind: 'seal',
    unit: 'pcs',
    lot: 'K3',
    count: 9,
    reorderAt: 12,
    priceMinor: null,
    version: 3,
  };

  it('say when they run low', () => {
    expect(wordsOf(mountScreen(StoreShelf, { props: { items: [ring] } }))).toMatch(/O-ring 11 × 2 lot K3.*9 pcs low/);
  });

  it('are counted with a reason', async () => {
    const screen = mountScreen(StoreShelf, { props: { items: [ring] } });
    await screen.find('li button').trigger('click');
    await type(screen, 'More, or less with a minus', '-2');
    await screen.find('li form').trigger('submit');
    await settle();
    expect(sent('POST')).toMatchObject({ path: '/store/items/r/moves', body: { change: -2, reason: 'came in' } });
    expect(screen.emitted('changed')).toHaveLength(1);
  });
});

describe('lots of coolant', () => {
  const lot: LotRow = { id: 'l', productName: 'Plain Clear', colour: '#7fb8c9', bottleMl: 1000, lot: 'L1', openedOn: null, keepsUntil: '2026-01-01', stockMl: null, samplePlace: 'window', version: 1, expired: true }; // prettier-ignore

  it('say what nobody counted, and what is past its day', () => {
    expect(wordsOf(mountScreen(LotShelf, { props: { lots: [lot] } }))).toMatch(/lot L1 not counted past its day sample: window/);
  });

  it('keep what is entered, an empty field as nothing', async () => {
    const screen = mountScreen(LotShelf, { props: { lots: [lot] } });
    await screen.find('.lot').trigger('click');
    await screen.find('form').trigger('submit');
    await settle();
    expect(sent('PUT')?.body).toEqual({ stockMl: null, openedOn: null, keepsUntil: '2026-01-01', samplePlace: 'window', version: 1 });
  });
});

describe('the purchase list', () => {
  it('says what, how much and for which machine, or that the shelf is enough', () => {
    expect(wordsOf(mountScreen(PurchaseList, { props: { lines: [] } }))).toContain('the shelf covers the jobs');
    const lines = [{ what: 'tube 10/16', order: '2 m', why: 'Low bench' }];
    expect(wordsOf(mountScreen(PurchaseList, { props: { lines: lines as never } }))).toContain('tube 10/16 2 m Low bench');
  });
});

describe('parts that lie here or are lent', () => {
  const part: KeptRow = { id: 'k', name: 'pump', kind: 'removed', systemId: 's', systemName: 'Gravel box', place: 'drawer 3', condition: 'dry', heldMl: 0, lentTo: '', wetOn: '2026-03-02', untilDay: '2026-03-01', version: 2 }; // prettier-ignore
  const shelf = () => mountScreen(KeptParts, { props: { parts: [part], today: '2026-03-10' } });

  it('are changed in place, with the version they were read in', async () => {
    const screen = shelf();
    expect(wordsOf(screen)).toContain('pump decide 9 days over');
    expect(wordsOf(screen)).toContain('wet inside, dry it in 6 days');
    await press(screen, /^change$/);
    await type(screen, 'Place', 'drawer 5');
    await screen.find('li form').trigger('submit');
    await settle();
    expect(sent('PUT')).toMatchObject({
      path: '/kept-parts/k',
      body: { name: 'pump', place: 'drawer 5', systemId: 's', untilDay: '2026-03-01', lentTo: '', version: 2 },
    });
    expect(screen.emitted('changed')).toHaveLength(1);
  });

  it('say so when somebody changed them meanwhile', async () => {
    reply = () => ({ status: 409, body: { error: { code: 'stale', message: 'changed', theirs: part, yours: part } } });
    const screen = shelf();
    await press(screen, /^change$/);
    await screen.find('li form').trigger('submit');
    await settle();
    expect(wordsOf(screen)).toContain('Somebody changed it meanwhile');
    await press(screen, /^Look again$/);
    expect(screen.emitted('changed')).toHaveLength(1);
  });

  it('go somewhere, and that is written down', async () => {
    const screen = shelf();
    await press(screen, /^it is gone$/);
    await type(screen, 'Where to', 'scrap');
    await screen.find('li form').trigger('submit');
    await settle();
    expect(sent('PUT')).toMatchObject({ path: '/kept-parts/k/gone', body: { where: 'scrap', version: 2 } });
  });
});

describe('the loan machine of a job', () => {
  const props = { jobId: 'j', owner: 'Ada', neededBy: null, today: '2026-03-10', done: false };
  const spare = { id: 'k', name: 'Spare tower', condition: 'good' };

  it('is lent until a day, a week from now where none was promised', async () => {
    const screen = mountScreen(LoanBox, { props: { ...props, loans: { lent: null, free: [spare] } } });
    await press(screen, /^Lend one$/);
    await screen.find('form').trigger('submit');
    await settle();
    expect(sent('PUT')).toMatchObject({ path: '/jobs/j/loan', body: { keptPartId: 'k', untilDay: '2026-03-17' } });
  });

  it('comes back, and that can be undone', async () => {
    const lent = { ...spare, untilDay: '2026-03-14' };
    const screen = mountScreen(LoanBox, { props: { ...props, loans: { lent, free: [] } } });
    expect(wordsOf(screen)).toContain('Ada has Spare tower, back in 4 days');
    await press(screen, /^It is back$/);
    expect(sent('DELETE')?.path).toBe('/jobs/j/loan');
    await useNotices().current?.undo?.();
    expect(sent('PUT')?.body).toEqual({ keptPartId: 'k', untilDay: '2026-03-14' });
  });

  it('says where loan machines come from when none stands free', () => {
    const screen = mountScreen(LoanBox, { props: { ...props, loans: { lent: null, free: [] } } });
    expect(wordsOf(screen)).toContain('none stands free. Loan machines are kept in the store.');
  });
});

describe('waste', () => {
  const can = { id: 'w', label: 'Grey can', kind: 'used-coolant', capacityMl: 10_000, levelMl: 9000, state: 'open', handedOn: null, handedTo: '', documentNumber: '', version: 3 }; // prettier-ignore
  const open = async () => {
    reply = () => ({ status: 200, body: { entries: [] } });
    const screen = mountScreen(WasteShelf, { props: { today: '2026-03-10', containers: [can] as never } });
    await settle();
    await screen.find('.cans button').trigger('click');
    await settle();
    return screen;
  };

  it('shows each can by its level, and when to hand it over', async () => {
    expect(wordsOf(await open())).toMatch(/Grey can used coolant 9.000 mL of 10.0 L hand it over/);
  });

  it('takes what no job put in', async () => {
    const screen = await open();
    await type(screen, 'Volume', '250');
    await type(screen, 'From what', 'a bucket of rinses');
    await screen.find('form.by-hand').trigger('submit');
    await settle();
    expect(sent('POST')).toMatchObject({ path: '/waste/w/entries', body: { volumeMl: 250, note: 'a bucket of rinses' } });
  });

  it('is handed over with the number of its paper, and makes no legal statement', async () => {
    const screen = await open();
    await type(screen, 'Collection point', 'Town depot');
    await type(screen, 'Paper number', 'D-9');
    await screen.find('form.form').trigger('submit');
    await settle();
    expect(sent('PUT')).toMatchObject({
      path: '/waste/w/hand-over',
      body: { on: '2026-03-10', to: 'Town depot', documentNumber: 'D-9', version: 3 },
    });
    expect(wordsOf(screen)).toContain('local rules and the safety data sheet come first');
  });
});

describe('the store’s lists as tables', () => {
  it('hold what the screen shows, one column for each thing', () => {
    const lot = lotRow({ id: 'l', productName: 'Plain Clear', colour: '#7fb8c9', bottleMl: 1000, lot: 'L1', openedOn: '2026-02-01', keepsUntil: null, stockMl: null, samplePlace: 'window', version: 1, expired: false }); // prettier-ignore
    const item = itemRow({
      id: 'r',
      name: 'O-ring',
      kind: 'seal',
      unit: 'pcs',
      lot: 'K3',
      count: 9,
      reorderAt: 12,
      priceMinor: null,
      version: 3,
    });
    expect(Object.keys(lot)).toEqual(Object.keys(item));
    expect(lot).toMatchObject({ what: 'Plain Clear', count: '', unit: 'mL', opened_on: '2026-02-01' });
    expect(item).toMatchObject({ what: 'O-ring', kind: 'O-rings and gaskets', count: '9', reorder_at: '12' });
  });
});
