// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { fakeServer, mountScreen, settle } from '../../../tests/screens/mountScreen.js';
import ServiceDialog from '../machines/ServiceDialog.vue';
import DueCard from './DueCard.vue';
import PostponeDialog from './PostponeDialog.vue';
import SettlingDialog from './SettlingDialog.vue';

const due = (more: object = {}) => ({
  id: 'd1',
  kind: 'coolant-service' as const,
  dueOn: '2026-09-10',
  windowFrom: null,
  reason: { why: 'policy' as const, scope: 'workshop' as const, policy: 'six-months' as const },
  postponed: 0,
  version: 4,
  systemId: 's',
  loopId: 'l',
  jobId: null,
  estimated: false,
  clocks: [],
  escalation: { level: 0 as const, times: 0, pastDays: 0 },
  ...more,
});

/** Dialogs live outside their component, at the end of the page. */
const field = (label: string): HTMLInputElement => {
  const found = [...document.querySelectorAll<HTMLElement>('.v-overlay--active .v-input')]
    .filter((each) => each.textContent?.includes(label))
    .at(-1);
  return found?.querySelector('input, textarea') as HTMLInputElement;
};
const type = async (label: string, text: string): Promise<void> => {
  const input = field(label);
  input.value = text;
  input.dispatchEvent(new Event('input'));
  await nextTick();
};
const press = async (text: string): Promise<void> => {
  const button = [...document.querySelectorAll<HTMLButtonElement>('.v-overlay--active button')]
    .filter((each) => each.textContent?.trim() === text)
    .at(-1);
  if (button?.type === 'submit') button.closest('form')?.dispatchEvent(new Event('submit', { cancelable: true }));
  else button?.click();
  await settle();
};
const dialogText = (): string => [...document.querySelectorAll('.v-overlay--active')].at(-1)?.textContent ?? '';

async function opened(component: Parameters<typeof mountScreen>[0], props: object) {
  document.body.innerHTML = '';
  const screen = mountScreen(component, { props: { modelValue: false, ...props } } as never);
  await screen.setProps({ modelValue: true } as never);
  await settle();
  return screen;
}

describe('a follow-up that waits for a part', () => {
  const fix = { why: 'temporary' as const, what: 'a cap on the branch', awaits: 'the seal', limits: [], then: 'partial-drain' as const };
  const linksOf = (more: object, props: object = {}): (string | undefined)[] =>
    mountScreen(DueCard, {
      props: { due: due({ kind: 'follow-up', reason: fix, ...more }), today: '2026-08-29', big: false, loopName: null, ...props },
    })
      .findAll('a')
      .map((each) => each.attributes('href'));

  it('opens the job that it is for once the part has come, and leads to it once it is booked', () => {
    expect(linksOf({})).toEqual([
      expect.stringMatching(/^\/systems\/s\/jobs\/new\?loop=l&answers=d1&kind=partial-drain&said=a(%20|\+)cap/),
    ]);
    expect(linksOf({ jobId: 'j7' })).toEqual(['/jobs/j7']);
  });

  it('leads to the run that waits with it', () => {
    expect(linksOf({}, { waitingRunId: 'r4' })).toEqual(['/runs/r4']);
  });
});

describe('a date on the page of a system', () => {
  it('says when, why, and which other clocks run', () => {
    const clocks = [
      { kind: 'policy' as const, dueOn: '2026-09-10', reason: { why: 'said' as const, text: 'policy' }, estimated: false },
      { kind: 'coolant-life' as const, dueOn: '2027-03-10', reason: { why: 'said' as const, text: 'clear: 12 months' }, estimated: true },
    ];
    const screen = mountScreen(DueCard, {
      props: { due: due({ clocks, postponed: 2 }), today: '2026-03-10', big: true, loopName: 'Main' },
    });
    expect(screen.text()).toContain('in 6 months');
    expect(screen.text()).toContain('Workshop policy');
    expect(screen.text()).toContain('later: 10 Mar 2027, clear: 12 months');
    expect(screen.text()).toContain('put off 2×');
  });

  it('shows an estimate as one', () => {
    expect(
      mountScreen(DueCard, { props: { due: due({ estimated: true }), today: '2026-03-10', big: false, loopName: null } }).text(),
    ).toContain('(estimate)');
  });

  it('asks for the level where it must settle, and for the service where it is due', async () => {
    const settling = mountScreen(DueCard, {
      props: { due: due({ kind: 'settling-check', windowFrom: '2026-09-05' }), today: '2026-03-10', big: false, loopName: null },
    });
    expect(settling.findAll('button').map((button) => button.text())).toEqual(['Read the level']);
    const service = mountScreen(DueCard, { props: { due: due(), today: '2026-03-10', big: false, loopName: null } });
    await service.findAll('button')[0]?.trigger('click');
    expect(service.emitted('service')).toHaveLength(1);
  });
});

describe('putting a service off', () => {
  it('proposes a month, and sends reason and version', async () => {
    const asked = fakeServer(() => ({ status: 200, body: {} }));
    const screen = await opened(PostponeDialog, { due: due(), today: '2026-03-10' });
    expect(field('Until').value).toBe('10 Oct 2026');
    await type("In the owner's words", 'exam season');
    field('The risk was told').click();
    await press('Put off');
    expect(asked[0]).toMatchObject({
      method: 'PUT',
      path: '/due-items/d1/postpone',
      body: { until: '2026-10-10', reason: 'exam season', riskTold: true, version: 4 },
    });
    expect(screen.emitted('saved')).toHaveLength(1);
  });

  it('counts from today where the date has passed', async () => {
    await opened(PostponeDialog, { due: due({ dueOn: '2026-01-01' }), today: '2026-03-10' });
    expect(field('Until').value).toBe('9 Apr 2026');
  });

  it('stays open with the server’s words when it is refused', async () => {
    fakeServer(() => ({
      status: 422,
      body: {
        error: {
          code: 'invalid-input',
          message: 'Tell the owner the risk first',
          fields: [{ path: 'riskTold', message: 'Tell the owner the risk first' }],
        },
      },
    }));
    const screen = await opened(PostponeDialog, { due: due(), today: '2026-03-10' });
    await press('Put off');
    expect(dialogText()).toContain('Tell the owner the risk first');
    expect(screen.emitted('saved')).toBeUndefined();
  });
});

describe('reading the level after the first days', () => {
  it.each([
    ['It has settled', 'settled'],
    ['Not settled yet', 'not-settled'],
  ])('"%s" is sent as %s with the change', async (button, outcome) => {
    const asked = fakeServer(() => ({ status: 200, body: {} }));
    await opened(SettlingDialog, { due: due({ kind: 'settling-check' }) });
    await type('Change since hand-over', '-3,5');
    await press(button);
    expect(asked[0]).toMatchObject({ path: '/due-items/d1/close', body: { outcome, levelChangeMm: -3.5, note: '', version: 4 } });
  });
});

describe('recording a service', () => {
  const loop = { id: 'l1', name: 'Main', coolantProductId: 'c1', version: 1, revision: null, runs: [] };
  const product = {
    id: 'c1',
    name: 'Plain Clear',
    coolantClass: 'clear',
    colour: '#7fb8c9',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    sheetLifeMonths: null,
    lots: [],
  };

  it('begins with the loop’s coolant and today, and sends volumes', async () => {
    const asked = fakeServer((one) =>
      one.method === 'GET' ? { status: 200, body: { products: [product] } } : { status: 201, body: { id: 'j' } },
    );
    const screen = await opened(ServiceDialog, { systemId: 's1', loops: [loop], today: '2026-03-10' });
    await type('Came out', '700');
    await type('Went in', '715');
    await press('Record');
    expect(asked.at(-1)).toMatchObject({
      method: 'POST',
      path: '/systems/s1/services',
      body: {
        loopId: 'l1',
        kind: 'drain-refill',
        doneOn: '2026-03-10',
        productId: 'c1',
        drainedMl: 700,
        pouredMl: 715,
        note: '',
        finding: '',
      },
    });
    expect(asked.at(-1)?.headers['idempotency-key']).toMatch(/^[0-9a-f-]{36}$/);
    expect(screen.emitted('saved')?.[0]).toEqual(['Service recorded; a settling check and the next date are open.']);
  });

  it('shows what was wrong at its field and keeps what was typed', async () => {
    fakeServer((one) =>
      one.method === 'GET'
        ? { status: 200, body: { products: [product] } }
        : {
            status: 422,
            body: {
              error: {
                code: 'invalid-input',
                message: 'pouredMl is needed',
                fields: [{ path: 'pouredMl', message: 'pouredMl is needed' }],
              },
            },
          },
    );
    await opened(ServiceDialog, { systemId: 's1', loops: [loop], today: '2026-03-10' });
    await type('Came out', '700');
    await press('Record');
    expect(dialogText()).toContain('Is needed');
    expect(field('Came out').value).toBe('700');
  });
});
