import type { BenchRun } from '@core/bench/benches/answers.js';
// @vitest-environment happy-dom
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { fakeServer, mountScreen, settle } from '../../../tests/screens/mountScreen.js';
import { useSession } from '../people/sessionStore.js';
import { setServerNow } from '../../base/units/now.js';
import BenchPlinth from '../../bench/benches/BenchPlinth.vue';
import { useBenches } from '../../bench/benches/benchStore.js';
import TodayView from '../../pages/TodayView.vue';

afterEach(() => {
  vi.useRealTimers();
  setServerNow(new Date().toISOString());
});

const run = (more: Partial<BenchRun> = {}): BenchRun => ({
  id: 'r1',
  waits: null,
  practice: false,
  aheadMs: 0,
  benchId: 'b1',
  systemId: 's1',
  systemName: 'Tower',
  ownerName: 'Ada',
  loopName: 'Main',
  colour: '#7fb8c9',
  inside: null,
  startedAt: '2026-03-10T08:00:00Z',
  stepTitle: 'Wet test',
  lead: 'Only the pump runs.',
  stepNumber: 7,
  steps: 11,
  timers: [{ id: 'wet-run', label: 'Pump running', startedAt: '2026-03-10T09:00:00Z', seconds: 3600, finished: false }],
  ...more,
});

const page = (more: object = {}) => ({ today: '2026-03-10', systems: [], after: null, counts: {}, found: 0, ...more });

const today = (more: object = {}) => ({
  today: '2026-03-10',
  now: '2026-03-10T09:30:00Z',
  benches: [
    { id: 'b1', name: 'Window bench' },
    { id: 'b2', name: 'Long bench' },
  ],
  runs: [run()],
  overdue: page(),
  coming: page(),
  dusty: 0,
  comingIn: [],
  sent: [],
  waiting: [],
  ready: [],
  count: 3,
  loops: [{ runId: 'r1', file: usualLoop() }],
  next: [],
  ...more,
});

describe('a bench', () => {
  it('shows the machine, its clock and what the hands do next', async () => {
    vi.useFakeTimers({ now: Date.parse('2026-03-10T09:30:00Z') });
    setServerNow('2026-03-10T09:30:00Z');
    const screen = mountScreen(BenchPlinth, { props: { name: 'Window bench', run: run(), file: usualLoop() } });
    expect(screen.text()).toContain('30:00');
    expect(screen.text()).toContain('Only the pump runs.');
    expect(screen.text()).toContain('step 7 of 11');
    vi.advanceTimersByTime(61_000);
    await nextTick();
    expect(screen.text()).toContain('28:59');
    vi.advanceTimersByTime(3_600_000);
    await nextTick();
    expect(screen.text()).toContain('time is up');
  });

  it('shows liquid only where liquid is', async () => {
    const liquid = async (more: Partial<BenchRun>): Promise<number> => {
      const screen = mountScreen(BenchPlinth, { props: { name: 'b', run: run(more), file: usualLoop() } });
      // the drawing comes with the first machine that stands there
      await vi.waitFor(() => expect(screen.find('svg').exists()).toBe(true), { timeout: 60_000 });
      return screen.findAll('.level[data-fate="liquid"]').reduce((sum, level) => sum + Number(level.attributes('height')), 0);
    };
    expect(await liquid({ inside: {} })).toBe(0);
    expect(await liquid({ inside: null })).toBeGreaterThan(await liquid({ inside: { reservoir: 0.5 } }));
    expect(await liquid({ inside: { reservoir: 0.5 } })).toBeGreaterThan(0);
  });

  it('says how long a machine stands there when no clock runs, and that a bench is free', () => {
    expect(mountScreen(BenchPlinth, { props: { name: 'b', run: run({ timers: [] }), file: usualLoop() } }).text()).toContain('hands on');
    const free = mountScreen(BenchPlinth, { props: { name: 'b', run: null, file: null } });
    expect(free.text()).toContain('Free.');
    expect(free.find('a').exists()).toBe(false);
  });
});

describe('Today', () => {
  it('lays out every bench, taken or free, with the machine that stands there', async () => {
    fakeServer(() => ({ status: 200, body: today() }));
    const screen = mountScreen(TodayView);
    await settle();
    expect(screen.findAll('article').map((bench) => bench.attributes('aria-label'))).toEqual(['Window bench', 'Long bench']);
    expect(screen.text()).toContain('Nothing falls due in the next six weeks.');
  });

  it('shows a run without a bench too', async () => {
    fakeServer(() => ({ status: 200, body: today({ runs: [run({ benchId: null })] }) }));
    const screen = mountScreen(TodayView);
    await settle();
    expect(screen.findAll('article').map((bench) => bench.attributes('aria-label'))).toEqual(['Window bench', 'Long bench', 'No bench']);
  });

  it('teaches the first step in an empty workshop', async () => {
    fakeServer(() => ({ status: 200, body: today({ runs: [], count: 0 }) }));
    const screen = mountScreen(TodayView);
    await settle();
    expect(screen.text()).toContain('Enter the first machine');
  });

  it('says what is wrong when the server is away, and tries again on request', async () => {
    fakeServer(() => 'unreachable');
    const screen = mountScreen(TodayView);
    await settle();
    expect(screen.find('[role="alert"]').text()).toContain('cannot be reached');
    fakeServer(() => ({ status: 200, body: today() }));
    await screen.find('[role="alert"] button').trigger('click');
    await settle();
    expect(screen.find('[role="alert"]').exists()).toBe(false);
    expect(useBenches().runs).toHaveLength(1);
  });
});

describe('the session', () => {
  const account = { personId: 'p', personName: 'Tess', role: 'lead', workshopId: 'w', workshopName: 'W', timeZone: 'UTC' };
  const signedIn = { signedIn: true, account, token: 't', today: '2026-03-10', now: new Date().toISOString() };

  it('is loaded, ends under one’s hands, and begins again without losing the page', async () => {
    mountScreen({ template: '<div />' });
    const session = useSession();
    fakeServer(() => ({ status: 200, body: signedIn }));
    await session.load();
    expect([session.account?.personName, session.expired]).toEqual(['Tess', false]);
    fakeServer(() => ({ status: 401, body: { error: { code: 'signed-out', message: 'x' } } }));
    await useBenches().refresh();
    expect([session.expired, session.account?.personName]).toEqual([true, 'Tess']);
    fakeServer(() => ({ status: 201, body: signedIn }));
    await session.signIn({ email: 'a', password: 'b' });
    expect(session.expired).toBe(false);
  });

  it('knows that a first visit is due, and forgets everything at sign-out', async () => {
    mountScreen({ template: '<div />' });
    const session = useSession();
    fakeServer(() => ({ status: 200, body: { signedIn: false, setupNeeded: true } }));
    await session.load();
    expect([session.account, session.setupNeeded, session.loaded]).toEqual([null, true, true]);
    fakeServer(() => ({ status: 201, body: signedIn }));
    await session.setUp({ workshopName: 'W', timeZone: 'UTC', personName: 'Tess', email: 'a@b.example', password: 'x' });
    fakeServer(() => ({ status: 200, body: { signedIn: false } }));
    await session.signOut();
    expect(session.account).toBeNull();
  });
});
