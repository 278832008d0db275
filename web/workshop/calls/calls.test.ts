// @vitest-environment happy-dom
import type { CallAnswer, CallMachine, OffersAnswer } from '@core/workshop/calls/answers.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { DEFAULT_RATES, type PriceList } from '@core/workshop/prices/rates.js';
import { useSession } from '../people/sessionStore.js';
import CallSheet from './CallSheet.vue';
import { comesAnswer, costsAnswer, dueAnswer, readyAnswer } from './callWords.js';

const machine = (more: Partial<CallMachine> = {}): CallMachine => ({
  systemId: 's1',
  name: 'Tower',
  tag: 'FH-7',
  state: 'in-service',
  owner: 'Ada Fernwick',
  phone: '+351 555 123',
  email: null,
  loops: [{ id: 'l1', name: 'Main' }],
  due: { dueOn: '2026-04-10', reason: { why: 'policy', scope: 'workshop', policy: 'twelve-months' }, estimated: false, postponed: 0 },
  job: null,
  ready: null,
  run: null,
  ...more,
});
const step = (from: string, to: string) => ({ what: 'work', from, to, personId: 'p1' });
const OFFERS: OffersAnswer = {
  attendedMinutes: 60,
  learnedFrom: 0,
  offers: [10, 11, 12].map((day) => {
    const [from, to] = [`2026-03-${day}T09:00:00Z`, `2026-03-${day}T10:00:00Z`] as [string, string];
    return { benchId: 'b1', bench: 'Long bench', steps: [step(from, to)], from, to };
  }),
};
const JOB = { id: 'j1', kind: 'drain-refill' as const, consented: true, neededBy: null, estimate: { hours: 2, partsText: '', coolantMl: 900, priceText: '140', parts: [], priced: null }, slot: { from: '2026-03-11T09:00:00Z', to: '2026-03-11T11:00:00Z', bench: 'Long bench', confirmed: true }, where: 'awaited' as const, broughtOn: null, notComeOn: null }; // prettier-ignore
let asked: Asked[];
let found: CallMachine[];
let taken = false;
const NO_PRICES: PriceList = { rates: DEFAULT_RATES, items: [], coolants: [] };
let prices = NO_PRICES;
beforeEach(() => {
  found = [machine()];
  taken = false;
  prices = NO_PRICES;
  asked = fakeServer(
    ({ path, method }) => {
      if (path.startsWith('/calls')) return { status: 200, body: { today: '2026-03-10', timeZone: 'UTC', machines: found, more: false } satisfies CallAnswer }; // prettier-ignore
      if (path.startsWith('/loops')) return { status: 200, body: { coolantClass: 'clear', coolantName: 'Clear', ageDays: 300, lifeMonths: null, baselineFlowLph: null, risenK: null, coolantId: 'c', file: usualLoop() } }; // prettier-ignore
      if (path.startsWith('/offers')) return { status: 200, body: OFFERS };
      if (method === 'POST' && taken) return { status: 422, body: { error: { code: 'invalid-input', message: 'slots: two jobs at the same time on Long bench', path: 'slots' } } }; // prettier-ignore
      found = [machine({ job: JOB })];
      return { status: 201, body: { id: 'j1' } };
    },
    () => prices,
  );
});
afterEach(() => {
  document.body.innerHTML = '';
});

async function called(who: string) {
  const screen = mountScreen(CallSheet, { props: { modelValue: true } });
  useSession().account = { role: 'front-desk', personName: 'Tess', workshopName: 'W', timeZone: 'UTC' } as never;
  await screen.find('input[type="search"]').setValue(who);
  await new Promise((resolve) => setTimeout(resolve, 220));
  await settle();
  return screen;
}
const plates = (screen: Awaited<ReturnType<typeof called>>): string[] => screen.findAll('.plate .big').map((each) => each.text());

describe('who came and who did not', () => {
  const times = { day: (iso: string) => iso, slotTime: (iso: string) => iso.slice(0, 16) };
  it('is said on the phone', () => {
    const here = machine({ job: { ...JOB, where: 'here', broughtOn: '2026-03-09' } });
    expect(comesAnswer(here, null, times)).toMatchObject({ big: 'it is here', small: expect.stringContaining('Brought since 2026-03-09; Long bench from') }); // prettier-ignore
    expect(comesAnswer(machine({ job: { ...JOB, slot: null, where: 'missed', notComeOn: '2026-03-09' } }), null, times).big).toBe(
      'did not come',
    );
    const ready = { jobId: 'j', kind: 'flush-refill' as const, systemId: 's1', systemName: 'Tower', ownerName: 'Ada', phone: null, since: '2026-03-08', version: 1 }; // prettier-ignore
    expect(readyAnswer(machine({ ready }), null, times)).toMatchObject({ big: 'it is ready', small: 'Since 2026-03-08.' });
  });
});

describe('a call', () => {
  it('from one machine is answered by the number alone: due, in, ready, costs', async () => {
    const screen = await called('555 123');
    expect(asked[0]?.path).toBe('/calls?who=555%20123');
    expect(plates(screen)).toEqual(['in 4 weeks', 'Tue 10 Mar, 09:00', 'Tue 10 Mar, 10:00', expect.stringMatching(/ h$/)]);
    expect(wordsOf(screen)).toContain('a price is told with the estimate');
  });

  it('hears a price where the workshop says what an hour costs', async () => {
    prices = {
      rates: { ...DEFAULT_RATES, hourMinor: 6000 },
      items: [],
      coolants: [{ id: 'c', name: 'Clear', litreMinor: 4000, targetFraction: null }],
    };
    const screen = await called('555 123');
    expect(plates(screen)[3]).toMatch(/^about €\d+\.\d\d$/);
    expect(wordsOf(screen)).not.toContain('a price is told');
  });

  it('speaks of the loop that falls due first, asks when its parts are there, and turns to another one', async () => {
    found = [machine({ loops: [{ id: 'l2', name: 'Memory' }, { id: 'l1', name: 'Main' }] })]; // prettier-ignore
    const screen = await called('555 123');
    const queries = (): string[] => asked.filter(({ path }) => path.startsWith('/offers')).map(({ path }) => path);
    expect(queries().at(-1)).toContain('loop=l2');
    const day = screen.findAll('input').find((each) => each.element.closest('.day-field'));
    await day?.setValue('2026-04-02');
    await settle();
    expect(queries().at(-1)).toMatch(/loop=l2&.*&parts=2026-04-02$/);
    await screen.findAll('.loop').find((each) => each.text() === 'Main')?.trigger('click'); // prettier-ignore
    await settle();
    expect(queries().at(-1)).toContain('loop=l1');
  });

  it('is booked with the slot that was picked and what was agreed', async () => {
    const screen = await called('555 123');
    await screen.findAll('.offers button')[1]?.trigger('click');
    expect(plates(screen)[1]).toBe('Wed 11 Mar, 09:00');
    await screen.find('.agreed input').setValue(true);
    await screen.findAll('button').find((each) => each.text() === 'Book it')?.trigger('click'); // prettier-ignore
    await settle();
    const sent = asked.find(({ method }) => method === 'POST');
    expect(sent).toMatchObject({ path: '/systems/s1/bookings', body: { job: { loopId: 'l1', partId: null }, offer: { benchId: 'b1', steps: [{ from: '2026-03-11T09:00:00Z' }] }, agreed: 'phone' } }); // prettier-ignore
    await settle();
    expect(plates(screen)).toEqual(['in 4 weeks', 'Wed 11 Mar, 09:00', 'Wed 11 Mar, 11:00', '140']);
  });

  it('is agreed to by nobody who was not asked', async () => {
    const screen = await called('555 123');
    await screen.findAll('button').find((each) => each.text() === 'Book it')?.trigger('click'); // prettier-ignore
    await settle();
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ body: { agreed: null } });
  });

  it('shows what is free now where somebody else took the slot', async () => {
    taken = true;
    const screen = await called('555 123');
    await screen.findAll('button').find((each) => each.text() === 'Book it')?.trigger('click'); // prettier-ignore
    await settle();
    expect(wordsOf(screen)).toContain('two jobs at the same time on Long bench');
    expect(asked.filter(({ path }) => path.startsWith('/offers'))).toHaveLength(2);
  });

  it('from somebody with several machines asks which one, and from nobody says so', async () => {
    found = [machine(), machine({ systemId: 's2', name: 'Loft' })];
    const several = await called('ada');
    expect(plates(several)).toEqual([]);
    await several.findAll('.who button')[1]?.trigger('click');
    await settle();
    expect(several.find('h2').text()).toContain('Loft');
    found = [];
    expect(wordsOf(await called('nobody'))).toContain('Nobody here has that number or name.');
  });
});

describe('the four answers', () => {
  const times = { day: (iso: string) => iso.slice(0, 10), slotTime: (iso: string) => iso.slice(0, 16) };
  it('never promise what nobody planned', () => {
    const onBench = machine({ run: { id: 'r', until: null, waits: null } });
    expect(readyAnswer(onBench, null, times)).toMatchObject({ big: 'cannot tell yet', isGuess: true });
    expect(comesAnswer(onBench, null, times).big).toBe('it is here');
    expect(comesAnswer({ ...machine(), state: 'retired' }, null, times).big).toBe('no more');
    expect(readyAnswer(machine(), null, times).big).toBe('cannot tell yet');
    expect(costsAnswer(machine(), null).big).toBe('cannot tell yet');
    expect(dueAnswer(machine({ due: null }), '2026-03-10', times).big).toBe('no date');
  });
  it('say what a waiting machine waits for, and which slot nobody was told of', () => {
    const waits = { for: 'parts' as const, what: 'a seal', until: '2026-03-14', lies: '', since: '2026-03-09T10:00:00Z' };
    const waiting = readyAnswer(machine({ run: { id: 'r', until: null, waits: waits as never } }), null, times);
    expect([waiting.big, waiting.small]).toEqual(['not before 2026-03-14', expect.stringContaining('a seal')]);
    const planned = comesAnswer(machine({ job: { ...JOB, slot: { ...JOB.slot, confirmed: false } } }), null, times);
    expect(planned).toMatchObject({ small: 'Long bench, planned, nobody was told', isGuess: true });
  });
});
