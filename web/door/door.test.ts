// @vitest-environment happy-dom
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import { USUAL_READING } from '@core/base/units/reading.js';
import { bringWords } from '@core/base/words/say.js';
import german from 'virtual:own-words';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../tests/screens/mountScreen.js';
import { setReading } from '../base/units/reader.js';
import DoorApp from './DoorApp.vue';

const SLOTS = [
  { from: '2026-03-12T09:00:00Z', to: '2026-03-12T15:00:00Z' },
  { from: '2026-03-13T09:00:00Z', to: '2026-03-13T15:00:00Z' },
];
const page = (more: Partial<DoorPage> = {}): DoorPage => ({
  workshop: { name: 'Fernhollow', contact: { address: 'Weir Lane 4', phone: '555 010', email: '' }, timeZone: 'UTC' },
  reading: USUAL_READING,
  owner: 'Ada',
  machine: 'Tower',
  now: '2026-03-10T10:00:00Z',
  today: '2026-03-10',
  stands: { at: 'booked' },
  ready: null,
  job: {
    kind: 'drain-refill',
    estimate: {
      number: 2,
      kind: 'drain-refill',
      found: '',
      hours: 2,
      coolantMl: 900,
      parts: [],
      partsText: '',
      priceText: '120',
      priced: null,
    },
    agreed: null,
    declinedAt: null,
    wasAgreed: false,
  },
  slots: { agreed: null, offered: [], chosen: null },
  due: null,
  settle: null,
  reports: [],
  said: [],
  may: ['agree', 'slots', 'put-off', 'photo', 'meter', 'log', 'line'],
  ...more,
});
const shown = async (answer: DoorPage | 'unreachable') => {
  const asked = fakeServer(() => (answer === 'unreachable' ? answer : { status: 200, body: answer }));
  const screen = mountScreen(DoorApp);
  await settle();
  return { asked, screen };
};

beforeEach(() => {
  document.body.innerHTML = '';
  window.location.hash = '#a-secret';
  setReading(USUAL_READING);
});

afterAll(() => setReading(USUAL_READING));

describe('the owner’s page', () => {
  it('says where the machine stands, and when it is ready with how sure that is', async () => {
    const { screen, asked } = await shown(
      page({
        stands: { at: 'bench', stage: 'wet-test', until: '2026-03-11T09:00:00Z' },
        ready: { sure: 'agreed', at: '2026-03-12T15:00:00Z' },
      }),
    );
    expect(wordsOf(screen)).toContain('On the bench');
    expect(wordsOf(screen)).toContain('Only its pump runs: it is watched for leaks. Until Wed 11 Mar, 09:00.');
    expect(wordsOf(screen)).toContain('by the plan, if its tests pass the first time');
    // the secret goes in a header and in no address
    expect(asked[0]).toMatchObject({ path: '/door', headers: { authorization: 'Bearer a-secret' } });
  });

  it('agrees to the estimate that is shown, with a name', async () => {
    const { screen, asked } = await shown(page());
    await screen.find('form').trigger('submit');
    await settle();
    expect(wordsOf(screen)).toContain('Write your name');
    await screen.find('input[name=name]').setValue(' Ada Fernwick ');
    await screen.find('form').trigger('submit');
    await settle();
    const sent = asked.filter(({ method }) => method === 'POST');
    expect(sent).toHaveLength(1);
    expect(sent[0]?.body).toMatchObject({ said: { kind: 'agreed', estimateNumber: 2, name: 'Ada Fernwick' }, file: null });
  });

  it('sends the same thing once, however often it is sent again', async () => {
    const { screen } = await shown(page());
    const asked = fakeServer(({ method }) => (method === 'GET' ? { status: 200, body: page() } : 'unreachable'));
    await screen.find('textarea').setValue('It hums.');
    const form = screen.findAll('form').find((each) => each.find('textarea').exists());
    for (let n = 0; n < 2; n += 1) {
      await form?.trigger('submit');
      await settle();
    }
    const line = asked.filter(({ method }) => method === 'POST').map(({ body }) => (body as { id: string }).id);
    expect(line).toHaveLength(2);
    expect(new Set(line).size).toBe(1);
    expect(wordsOf(screen)).toContain('No connection. What you wrote is still here');
  });

  it.each([
    ['4 812,5', 'Send 4 812.5 h', 4812.5],
    ['4812', 'Send 4 812 h', 4812],
    ['4.812', 'Send 4.8 h', 4.812],
    ['soon', 'Send the hours', null],
    ['  ', 'Send the hours', null],
  ])('reads a meter as it is copied down, and says beforehand what it read: %j', async (typed, button, hours) => {
    const { asked, screen } = await shown(page());
    await screen.find('input[inputmode="decimal"]').setValue(typed);
    expect(wordsOf(screen)).toContain(button);
    await screen
      .findAll('form')
      .find((form) => form.text().includes('on its meter'))
      ?.trigger('submit');
    await settle();
    const bodies = asked.filter(({ method }) => method === 'POST').map(({ body }) => (body as { said: unknown }).said);
    expect(bodies).toEqual(hours === null ? [] : [{ kind: 'meter', hours, on: '2026-03-10' }]);
  });

  it('says before it is sent that a log is too large', async () => {
    const { asked, screen } = await shown(page());
    const input = screen.find('input[type="file"][accept*="csv"]');
    Object.defineProperty(input.element, 'files', { value: [new File([new Uint8Array(6_000_000)], 'log.csv')] });
    await input.trigger('change');
    await settle();
    expect(screen.find('[role="alert"]').text()).toMatch(/^This file is larger than \d MB\. Send a shorter one\.$/);
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([]);
  });

  it('says of an agreement that it counts, of anything else that it waits', async () => {
    const at = '2026-03-10T09:00:00Z';
    const { screen } = await shown(
      page({
        said: [
          { at, said: { kind: 'agreed', estimateNumber: 2, name: 'Ada' }, answer: null },
          { at: '2026-03-10T08:00:00Z', said: { kind: 'line', text: 'Hello' }, answer: null },
        ],
      }),
    );
    const [agreed, line] = screen.findAll('.said li');
    expect(agreed?.text()).toContain('it counts');
    expect(line?.text()).toContain('waits to be read');
  });

  it('offers slots, and shows which one was chosen', async () => {
    const { screen } = await shown(page({ slots: { agreed: null, offered: SLOTS, chosen: SLOTS[1]?.from ?? null } }));
    expect(screen.findAll('.offer').map((each) => each.attributes('aria-pressed'))).toEqual(['false', 'true']);
  });

  it('shows nothing of what the workshop does not allow', async () => {
    const { screen } = await shown(page({ may: [] }));
    expect(screen.findAll('form, input, textarea')).toHaveLength(0);
    expect(wordsOf(screen)).toContain('Call the workshop to agree.');
  });

  it('says one and the same of every link that opens nothing', async () => {
    fakeServer(() => ({ status: 404, body: { error: { code: 'not-found', message: 'whatever' } } }));
    const screen = mountScreen(DoorApp);
    await settle();
    expect(wordsOf(screen)).toBe('Nothing opens here This link does not open anything. Ask the workshop for a new one.');
  });

  it('speaks German with the words it brings itself', async () => {
    bringWords('de', german);
    const reading = { ...USUAL_READING, language: 'de', date: 'dotted' } as const;
    const { screen } = await shown(page({ reading, due: null, settle: { from: '2026-03-09', to: '2026-03-14', sent: false } }));
    const words = wordsOf(screen);
    for (const each of ['Gebucht', 'Sein Füllstand', 'bis 14.03.2026', 'Der Werkstatt sagen', 'Ich stimme zu'])
      expect(words).toContain(each);
    expect(words).not.toMatch(/\b(the|your|agree|workshop)\b/);
  });
});
