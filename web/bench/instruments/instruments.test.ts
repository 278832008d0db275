// @vitest-environment happy-dom
import { TestRun } from '../../../tests/bench/testRun.js';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, ref, type EffectScope } from 'vue';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import DryTestStep from '../leak-testing/DryTestStep.vue';
import BaselineStep from '../baseline/BaselineStep.vue';
import TopUp from '../filling/TopUp.vue';
import PumpControl from '../runs/PumpControl.vue';
import PracticeBar from '../practice/PracticeBar.vue';
import DebriefView from '../practice/DebriefView.vue';
import StandIn from '../simulated-bench/StandIn.vue';
import HandsAtBench from '../simulated-bench/HandsAtBench.vue';
import { setServerNow } from '../../base/units/now.js';
import BenchDevices from './BenchDevices.vue';
import InstrumentStrip from './InstrumentStrip.vue';
import { LIVE_BENCH, useLiveBench, type LiveBench } from './liveBench.js';

class FakeSource extends EventTarget {
  static last: FakeSource | null = null;
  static readonly CLOSED = 2;
  readyState = 1;
  constructor(readonly url: string) {
    super();
    FakeSource.last = this;
  }
  close = (): void => undefined;
  tell(event: string, data: object = {}): void {
    this.dispatchEvent(new MessageEvent(event, { data: JSON.stringify(data) }));
  }
}

const now = (): string => new Date().toISOString();
const face = (kind: string, more: object = {}) => ({
  kind,
  online: true,
  simulated: false,
  resolution: null,
  problem: null,
  last: null,
  ...more,
});
let kinds: object[];
let stored: [number, string, number, string][];
let asked: Asked[];
let hold: Promise<void> | null;
let scope: EffectScope;

beforeEach(() => {
  vi.stubGlobal('EventSource', FakeSource);
  kinds = [face('gauge'), face('room-temp'), face('level'), face('scale'), face('supply')];
  stored = [];
  hold = null;
  asked = fakeServer(({ path }) => {
    if (path === '/instruments') return { status: 200, body: { broker: { url: 'mqtt://127.0.0.1:4183', others: [], embedded: true }, benches: [{ id: 'b', name: 'Window', hasAccess: false, instruments: kinds }] } }; // prettier-ignore
    const after = Number(/after=(\d+)/.exec(path)?.[1] ?? '0');
    if (path.startsWith('/benches/b/readings'))
      return { status: 200, body: { readings: stored.filter(([id]) => id > after), more: false } };
    if (path === '/benches/b/access')
      return { status: 201, body: { name: 'w.b', secret: 'shown-once', url: 'mqtt://127.0.0.1:4183', others: ['mqtt://cellar:4183'] } };
    return { status: 201, body: {} };
  });
  const answered = globalThis.fetch;
  globalThis.fetch = (async (url: string, init?: RequestInit) => {
    if (hold && url.includes('/readings')) await hold;
    return answered(url, init);
  }) as typeof fetch;
  scope = effectScope();
  setServerNow(now());
});
afterEach(() => {
  scope.stop();
  vi.unstubAllGlobals();
  document.body.innerHTML = '';
});

const open = async (): Promise<LiveBench> => {
  const bench = scope.run(() => useLiveBench(ref('b'))) as LiveBench;
  await settle();
  return bench;
};
const push = (...rows: [number, string, number, string][]): void => FakeSource.last?.tell('readings', { benchId: 'b', readings: rows });
const values = (bench: LiveBench): number[] => bench.history.value.map(({ value }) => value);

describe('the instruments of a bench on a screen', () => {
  it('show what was sent before, and what comes, each once', async () => {
    stored = [[1, 'gauge', 50, now()], [2, 'gauge', 49.9, now()]]; // prettier-ignore
    const bench = await open();
    push([2, 'gauge', 49.9, now()], [3, 'gauge', 49.8, now()]);
    expect(values(bench)).toEqual([50, 49.9, 49.8]);
    expect(bench.value('gauge', Date.now())).toBe(49.8);
    expect(bench.source.value).toBe('instrument');
  });

  it('go on without a gap after a dropped connection, even when new ones come while the missing are fetched', async () => {
    stored = [[1, 'gauge', 50, now()]]; // prettier-ignore
    const bench = await open();
    stored.push([2, 'gauge', 49.9, now()], [3, 'gauge', 49.8, now()]);
    let release = (): void => undefined;
    hold = new Promise((resolve) => {
      release = resolve;
    });
    FakeSource.last?.tell('resync');
    await settle();
    push([4, 'gauge', 49.7, now()]);
    release();
    await settle();
    expect(values(bench)).toEqual([50, 49.9, 49.8, 49.7]);
    expect(asked.at(-1)?.path).toBe('/benches/b/readings?after=1');
  });

  it('leave readings of other benches alone', async () => {
    const bench = await open();
    FakeSource.last?.tell('readings', { benchId: 'other', readings: [[9, 'gauge', 1, now()]] });
    expect(values(bench)).toEqual([]);
  });

  it('show a silent one as silent, not with its last value', async () => {
    stored = [[1, 'gauge', 50, new Date(Date.now() - 60_000).toISOString()], [2, 'supply', 1, now()]]; // prettier-ignore
    const bench = await open();
    const words = wordsOf(mountScreen(InstrumentStrip, { props: { bench } }));
    expect(words).toMatch(/Pressure gauge silent for 1 min|Pressure gauge silent for 60 s/);
    expect(words).toContain('Pump supply on');
    expect(words).not.toContain('simulated');
  });
});

describe('a step with instruments', () => {
  const beside = (bench: LiveBench) => ({ global: { provide: { [LIVE_BENCH as symbol]: bench } } });
  const props = (run: TestRun) => ({ procedure: run.procedure, state: run.state, locked: false });

  it('takes the first air reading from the gauge and says that it goes on by itself', async () => {
    stored = [[1, 'gauge', 49.6, now()], [2, 'room-temp', 21.2, now()]]; // prettier-ignore
    const bench = await open();
    const run = new TestRun().upTo('dry').tick('dry');
    const screen = mountScreen(DryTestStep, { props: props(run), ...beside(bench) } as never);
    expect(wordsOf(screen)).toContain('49.6 kPa on the gauge now');
    await screen.findAll('button').find((each) => /read it every minute/.test(each.text()))?.trigger('click'); // prettier-ignore
    const body = { type: 'dry-reading', gaugeKpa: 49.6, tempC: 21.2, source: 'instrument' } as const;
    expect(screen.emitted('send')).toEqual([[body]]);
    await screen.setProps(props(run.say(body)));
    expect(wordsOf(screen)).toContain('Read by itself, once a minute.');
  });

  it('takes a load test from the machine on the bench: watched from one touch on, the mean of five minutes in the fields', async () => {
    kinds = [face('processor-temp'), face('processor-power'), face('room-temp'), face('coolant-temp', { online: false })];
    const ago = (seconds: number): string => new Date(Date.now() - seconds * 1000).toISOString();
    // none of them at the very edge of the five minutes, however slow the machine
    const minutes = [6, 4.9, 4, 3, 2, 1, 0];
    stored = minutes.flatMap((minute, n): typeof stored => [[3 * n + 1, 'processor-temp', 60 + n / 10, ago(60 * minute)], [3 * n + 2, 'processor-power', 150, ago(60 * minute)], [3 * n + 3, 'room-temp', 22, ago(60 * minute)]]); // prettier-ignore
    const bench = await open();
    const run = new TestRun().upTo('baseline');
    const screen = mountScreen(BaselineStep, { props: { state: run.state, locked: false }, ...beside(bench) } as never);
    const press = async (words: string) => screen.findAll('button').find((each) => each.text() === words)?.trigger('click'); // prettier-ignore
    await press('The load runs: watch it warm');
    // the newest five minutes of it, and no coolant that nobody reads
    const note = { type: 'warming', sensor: 'processor package', tempC: 60.4, source: 'instrument' } as const;
    expect(screen.emitted('send')).toEqual([[note]]);
    await screen.setProps({ state: run.say(note).state });
    expect(wordsOf(screen)).toContain('It is noted once a minute by itself.');
    await screen.findAll('input').find((each) => each.attributes('placeholder') === 'render and graphics together')?.setValue('render'); // prettier-ignore
    await screen.find('form').trigger('submit');
    const entry = screen.emitted('send')?.at(-1)?.[0] as { reading: object };
    expect(entry.reading).toMatchObject({
      partC: 60.4,
      powerW: 150,
      roomC: 22,
      coolantC: null,
      statistic: 'mean of the last five minutes',
    });
  });

  it('puts what the can lost into the field, and says so in the entry; a typed value is a hand’s', async () => {
    const run = new TestRun().upTo('bleed');
    const since = Date.parse(run.state.pours.at(-1)?.at ?? '');
    const at = (seconds: number): string => new Date(since + seconds * 1000).toISOString();
    setServerNow(at(60));
    stored = [[1, 'scale', 4000, at(-1)], [2, 'scale', 3950, at(50)], [3, 'scale', 3950, at(51)], [4, 'scale', 3950, at(52)]]; // prettier-ignore
    const bench = await open();
    push([5, 'scale', 3950, at(52.5)], [6, 'level', 30, at(52.5)]);
    const screen = mountScreen(TopUp, { props: { ...props(run), colour: null }, ...beside(bench) } as never);
    push([7, 'scale', 3950, at(53)]);
    await nextTick();
    expect(wordsOf(screen)).toContain('The can lost 50 mL');
    await screen.find('form').trigger('submit');
    expect(screen.emitted('send')?.[0]).toEqual([{ type: 'pour', volumeMl: 50, source: 'instrument' }]);
    await screen.find('input').setValue('45');
    await screen.find('form').trigger('submit');
    expect(screen.emitted('send')?.[1]).toEqual([{ type: 'pour', volumeMl: 45 }]);
  });

  it('counts down by the level sensor, and says when the supply does not follow', async () => {
    vi.useFakeTimers();
    const run = new TestRun().upTo('fill').say({ type: 'coolant', productId: crypto.randomUUID(), productName: 'Plain', lotId: null, lot: null }); // prettier-ignore
    run.say({ type: 'pour', volumeMl: 289 }).say({ type: 'pump', on: true });
    setServerNow(new Date(run.nowMs + 4000).toISOString());
    const bench = {
      source: ref('instrument'),
      history: ref([]),
      value: (kind: string) => (kind === 'level' ? 0.1 : kind === 'supply' ? 0 : null),
    };
    const screen = mountScreen(PumpControl, { props: props(run), ...beside(bench as never) } as never);
    expect(wordsOf(screen)).toContain('Pump off now');
    expect(wordsOf(screen)).toContain('The supply says off: look at its switch.');
    vi.useRealTimers();
  });
});

describe('practice', () => {
  it('sets the clock ahead, and ends with the debrief', async () => {
    let read = (): void => undefined;
    const reload = vi.fn(() => new Promise<void>((resolve) => (read = resolve)));
    const screen = mountScreen(PracticeBar, { props: { runId: 'r', aheadMs: 600_000, playing: true, reload } });
    expect(wordsOf(screen)).toContain('Its clock is 10 min ahead.');
    const press = async (words: RegExp): Promise<void> => {
      await screen.findAll('button').find((each) => words.test(each.text()))?.trigger('click'); // prettier-ignore
      await settle();
    };
    await press(/^1 h$/);
    // until the run's clock is known here, nothing more is set ahead
    expect(screen.findAll('button').find((each) => each.text() === '1 h')?.attributes('disabled')).toBeDefined(); // prettier-ignore
    read();
    await settle();
    await press(/debrief/);
    read();
    expect(asked.map(({ path, body }) => [path, body])).toEqual([['/runs/r/skip', { seconds: 3600 }], ['/runs/r/debrief', {}]]); // prettier-ignore
    expect(reload).toHaveBeenCalledTimes(2);
  });

  it('is told apart: harm first, then what was missed, then what went well', () => {
    const debrief = {
      hidden: ['A leak at pump → graphics.'],
      lines: [
        { kind: 'good', text: 'Held.', at: null },
        { kind: 'harm', text: 'The pump drew air for 2.0 s.', at: now() },
      ],
      ranDryS: 2,
      lostMl: 0,
      tookS: 3600,
      savedS: 0,
    };
    const words = wordsOf(mountScreen(DebriefView, { props: { debrief, systemId: 's' } as never }));
    expect(words).toMatch(/1 thing would have cost something.*A leak at pump → graphics\..*The pump drew air for 2\.0 s\..*Held\./);
  });

  it('offers a stand-in where no instrument speaks, and moves its hands', async () => {
    kinds = [];
    const bench = await open();
    const screen = mountScreen(StandIn, { props: { runId: 'r', bench } });
    await screen.findAll('button').find((each) => /simulated bench/.test(each.text()))?.trigger('click'); // prettier-ignore
    await screen.find('form').trigger('submit');
    await settle();
    expect(asked.at(-1)).toMatchObject({ path: '/runs/r/simulated-bench', body: { scenario: 'clean' } });
    const run = new TestRun().upTo('dry');
    const hands = mountScreen(HandsAtBench, { props: { benchId: 'b', bench, procedure: run.procedure, state: run.state } });
    await hands.findAll('button').find((each) => /Pump up to/.test(each.text()))?.trigger('click'); // prettier-ignore
    await settle();
    expect(asked.at(-1)).toMatchObject({ path: '/benches/b/hands', body: { do: 'pump-up', gaugeKpa: 50 } });
    FakeSource.last?.tell('seen', { benchId: 'b', at: now(), text: `Bubbles at ${run.procedure.facts?.joints[0]?.id}.` });
    await nextTick();
    expect(wordsOf(hands)).toContain(`Bubbles at ${run.procedure.facts?.joints[0]?.name}.`);
  });
});

describe('the devices of a workshop', () => {
  it('show a new secret once, and what went wrong with a message', async () => {
    kinds = [face('gauge', { problem: 'unit must be kPa for gauge (got bar)' }), face('level', { online: false })];
    const screen = mountScreen(BenchDevices, { props: { isLead: true } });
    await settle();
    expect(wordsOf(screen)).toContain('Devices connect to mqtt://127.0.0.1:4183 (MQTT)');
    expect(wordsOf(screen)).toContain('Pressure gauge: unit must be kPa for gauge (got bar)');
    expect(wordsOf(screen)).toContain('level, off line');
    await screen.find('button').trigger('click');
    await settle();
    expect(wordsOf(screen)).toContain('shown-once');
    expect(wordsOf(screen)).toContain('lavacrum/w/b/…');
    // a device is given every address: it goes to the next when one is gone
    expect(wordsOf(screen)).toMatch(
      /Brokers mqtt:\/\/127\.0\.0\.1:4183 ?mqtt:\/\/cellar:4183 Topics lavacrum\/w\/b\/… Give a device all of these brokers/,
    );
  });
});
