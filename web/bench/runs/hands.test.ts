// @vitest-environment happy-dom
import { fillOrder } from '@core/bench/runs/fillOrder.js';
import { COOLANT, TestRun, procedureOf } from '../../../tests/bench/testRun.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import AirTrend from '../air/AirTrend.vue';
import { WATER } from '@core/machine/liquids/fluids.js';
import TopUp from '../filling/TopUp.vue';
import FillStep from '../filling/FillStep.vue';
import TroubleSheet from '../leak-finding/TroubleSheet.vue';
import TroubleList from '../leak-finding/TroubleList.vue';
import PartTestStep from '../leak-testing/PartTestStep.vue';
import { setServerNow } from '../../base/units/now.js';
import HandsPanel from './HandsPanel.vue';
import ShutFirst from './ShutFirst.vue';
import PumpControl from './PumpControl.vue';

type Screen = ReturnType<typeof mountScreen>;
const sent = (screen: Screen): unknown[] => (screen.emitted('send') ?? []).map(([body]) => body);
const button = (screen: Screen, words: RegExp) => screen.findAll('button').find((each) => words.test(each.text()));
const press = async (screen: Screen, words: RegExp): Promise<void> => {
  await button(screen, words)?.trigger('click');
};
const props = (run: TestRun) => ({ procedure: run.procedure, state: run.state, locked: false });
const JOINT = procedureOf().facts?.joints[1]?.id ?? '';

beforeEach(() => fakeServer(() => ({ status: 200, body: { products: [], confirmed: { joint: { 'cut-not-square': 3 } } } })));
afterEach(() => {
  vi.useRealTimers();
  setServerNow(new Date().toISOString());
  document.body.innerHTML = '';
});

const run0 = (): TestRun => new TestRun().upTo('fill').say(COOLANT);

describe('before the machine’s own power comes back', () => {
  it('what stands open is shut first, by one act', async () => {
    const run = new TestRun().upTo('power');
    expect(wordsOf(mountScreen(ShutFirst, { props: { procedure: run.procedure, state: run.state } }))).not.toContain('Shut');
    run.say({ type: 'joint', joint: JOINT, open: true });
    const screen = mountScreen(ShutFirst, { props: { procedure: run.procedure, state: run.state } });
    expect(wordsOf(screen)).toContain('Shut what stands open');
    await press(screen, /^Shut$/);
    expect(sent(screen)).toEqual([{ type: 'joint', joint: JOINT, open: false }]);
  });
});

describe('the level in a wet test', () => {
  it('that nobody read for a day is asked for, and its reading settles it', async () => {
    const run = new TestRun().upTo('wet').say({ type: 'timer-started', step: 'wet', timer: 'wet-run' }).wait(23 * 3600);
    const mark = run.procedure.facts?.reservoir?.fillMarkMl ?? 0;
    setServerNow(new Date(run.nowMs).toISOString());
    const screen = mountScreen(TopUp, { props: { procedure: run.procedure, state: run.state, colour: null, reads: true } });
    expect(wordsOf(screen)).toContain('Read the level now');
    await press(screen, /It stands at the mark/);
    expect(sent(screen)).toEqual([{ type: 'level', levelMl: mark }]);
    run.say({ type: 'level', levelMl: mark });
    setServerNow(new Date(run.nowMs).toISOString());
    const after = mountScreen(TopUp, { props: { procedure: run.procedure, state: run.state, colour: null, reads: true } });
    expect(wordsOf(after)).not.toContain('Read the level now');
  });
});

describe('the pump’s switch', () => {
  it('says why it must stay off, and cannot be pressed then', () => {
    const run = new TestRun().upTo('fill').say({ type: 'joint', joint: JOINT, open: true });
    const screen = mountScreen(PumpControl, { props: props(run) });
    expect(wordsOf(screen)).toContain('is recorded undone');
    expect(button(screen, /Pump on/)?.attributes('disabled')).toBeDefined();
  });

  it('counts down to the low mark, and at zero says so in words', async () => {
    vi.useFakeTimers();
    const mark = run0().procedure.facts?.reservoir?.fillMarkMl ?? 0;
    const run = run0().say({ type: 'pour', volumeMl: 289 }).say({ type: 'returned' }).say({ type: 'level', levelMl: mark });
    const order = fillOrder(run.procedure, run.state, run.nowMs);
    const runS = order?.do === 'pump-on' ? order.runS : 0;
    run.say({ type: 'pump', on: true });
    setServerNow(new Date(run.nowMs + 1000).toISOString());
    const screen = mountScreen(PumpControl, { props: props(run) });
    const left = Number.parseFloat(screen.find('.clock').text());
    expect(left).toBeGreaterThan(runS - 1.5);
    expect(left).toBeLessThanOrEqual(runS);
    await vi.advanceTimersByTimeAsync(runS * 1000);
    expect(wordsOf(screen)).toContain('Pump off now');
    expect(screen.find('.pump').classes()).toContain('alarm');
    await press(screen, /Pump off/);
    expect(screen.emitted('toggle')).toHaveLength(1);
  });

  it('says which speed to set before a pulse that hands could not follow', () => {
    const run = run0().say({ type: 'pour', volumeMl: 289, toMark: true });
    const order = fillOrder(run.procedure, run.state, run.nowMs);
    const speed = order?.do === 'pump-on' ? (order.speed ?? 1) : 1;
    expect(speed).toBeLessThan(1);
    const screen = mountScreen(PumpControl, { props: props(run) });
    expect(wordsOf(screen)).toContain(`set it to ${Math.round(100 * speed)} % first; then on for about`);
  });

  it('takes no start while it rests', () => {
    const run = new TestRun().upTo('fill').say(COOLANT).say({ type: 'pour', volumeMl: 289 });
    const screen = mountScreen(PumpControl, { props: { ...props(run), rests: true } });
    expect(button(screen, /Pump on/)?.attributes('disabled')).toBeDefined();
  });
});

describe('ports, turns and the level', () => {
  it('open and close with one touch, and enter what was read', async () => {
    const run = new TestRun().upTo('bleed');
    const screen = mountScreen(HandsPanel, { props: props(run) });
    await press(screen, /fill.*closed/);
    await screen.find('.level input').setValue('140');
    await screen.find('.level').trigger('submit');
    expect(sent(screen)).toEqual([
      { type: 'port', port: 'reservoir.fill', open: true },
      { type: 'level', levelMl: 140 },
    ]);
  });

  it('show at which angle the outlet uncovers, and hold back a turn that would', async () => {
    const run = new TestRun().upTo('bleed').say({ type: 'pump', on: true });
    const screen = mountScreen(HandsPanel, { props: props(run) });
    expect(wordsOf(screen)).toMatch(/outlet uncovers at \d+°|outlet stays covered/);
    await screen.find('input[type="range"]').setValue('90');
    expect(button(screen, /^Turned$/)?.attributes('disabled') !== undefined).toBe(/outlet uncovers/.test(wordsOf(screen)));
  });

  it('bring the case upright again', async () => {
    const run = new TestRun().upTo('bleed').say({ type: 'turn', to: 'on-face', angleDeg: 40 });
    const screen = mountScreen(HandsPanel, { props: props(run) });
    expect(wordsOf(screen)).toContain('turned 40° towards its face');
    await press(screen, /Upright again/);
    expect(sent(screen)).toEqual([{ type: 'turn', to: 'upright', angleDeg: 0 }]);
  });
});

describe('something is wrong', () => {
  const sheet = async (given: object = {}): Promise<Screen> => {
    const screen = mountScreen(TroubleSheet, {
      props: { modelValue: true, procedure: procedureOf(), file: usualLoop(), colour: null, pumpOn: false, ...given },
    });
    await settle();
    return screen;
  };
  const submit = (screen: Screen) => screen.find('form').trigger('submit');

  it('keeps the pump’s switch within reach while it runs, and only then', async () => {
    const screen = await sheet({ pumpOn: true });
    await press(screen, /^Pump off$/);
    expect(screen.emitted('pumpOff')).toHaveLength(1);
    await screen.setProps({ pumpOn: false });
    expect(button(screen, /^Pump off$/)).toBeUndefined();
  });

  it('proposes nothing: a hurried touch puts nothing on record', async () => {
    const screen = await sheet();
    expect(screen.findAll('[aria-pressed="true"]')).toEqual([]);
    await submit(screen);
    expect(sent(screen)).toEqual([]);
    expect(wordsOf(screen)).toContain('Touch what it is first');
  });

  it('is one touch and the part, on the picture', async () => {
    const screen = await sheet();
    await press(screen, /^Felt wrong$/);
    await submit(screen);
    expect(wordsOf(screen)).toContain('Touch the part that felt wrong');
    // a part is no place of a leak at a joint: only parts are offered
    expect(screen.find(`[data-place="${JOINT}"]`).exists()).toBe(false);
    await screen.find('[data-place="front"]').trigger('click');
    await submit(screen);
    expect(sent(screen)).toEqual([{ type: 'doubt', part: 'front', text: 'something felt wrong' }]);
  });

  it('or a leak with its place, when and how much; by name as well', async () => {
    const screen = await sheet();
    await press(screen, /^A leak$/);
    const joint = procedureOf().facts?.joints[1];
    const named = screen.findAll('.joints button').find((each) => each.text() === joint?.name);
    await named?.trigger('click');
    await submit(screen);
    expect(sent(screen)).toEqual([{ type: 'leak', at: joint?.id, when: 'pump-start', amount: 'drip', text: '' }]);
  });
});

describe('open troubles', () => {
  const list = async (run: TestRun) => {
    const screen = mountScreen(TroubleList, { props: { ...props(run), file: usualLoop() } });
    await settle();
    return screen;
  };

  it('rank the causes of a leak with their next check, and close it step by step', async () => {
    const run = new TestRun().upTo('wet').say({ type: 'leak', at: JOINT, when: 'pump-start', amount: 'drip', text: '' });
    const leak = run.events.at(-1)?.id ?? '';
    const screen = await list(run);
    expect(wordsOf(screen)).toMatch(/\d+ % Tube not pushed home/);
    expect(wordsOf(screen)).toContain('found 3 × here');
    // the likeliest is not taken for granted
    expect(screen.findAll('input[type="radio"]').some((each) => (each.element as HTMLInputElement).checked)).toBe(false);
    await press(screen, /^Mended$/);
    expect(sent(screen)).toEqual([]);
    expect(wordsOf(screen)).toContain('Touch the cause');
    await screen.find('input[value="cut-not-square"]').setValue(true);
    await screen.find('.v-text-field input').setValue('trimmed and seated');
    await press(screen, /^Mended$/);
    expect(sent(screen)).toEqual([{ type: 'leak-mended', leak, cause: 'cut-not-square', fix: 'trimmed and seated' }]);
    run.say({ type: 'leak-mended', leak, cause: 'cut-not-square', fix: 'trimmed' });
    // ends that were cut in the same go are asked for
    const asks = await list(run);
    expect(asks.findAll('button').map((each) => each.text())).toEqual(['All looked at', 'Still wet']);
    await press(asks, /^All looked at$/);
    expect(sent(asks)).toEqual([{ type: 'sisters-seen', leak, text: '' }]);
    run.say({ type: 'sisters-seen', leak, text: '' });
    expect((await list(run)).findAll('button').map((each) => each.text())).toEqual(['Still wet']);
    run.say({ type: 'pump', on: true }).wait(60);
    const after = await list(run);
    await press(after, /^Dry now$/);
    expect(sent(after)).toEqual([{ type: 'leak-retested', leak, dry: true }]);
    expect(wordsOf(await list(run.say({ type: 'leak-retested', leak, dry: true })))).toBe('');
  });

  it('ask for the part’s own test, and for the rinse', async () => {
    const run = new TestRun()
      .say({ type: 'doubt', part: 'front', text: 'a crack' })
      .say({ type: 'spill', onElectronics: true, text: 'card' });
    const screen = await list(run);
    await press(screen, /^It is tight$/);
    await press(screen, /Rinsed/);
    expect(sent(screen)).toMatchObject([
      { type: 'part-test', part: 'front', tight: true },
      { type: 'spill-rinsed', spill: run.events.at(-1)?.id },
    ]);
  });
});

describe('parts tested on their own', () => {
  it('count what stays inside', async () => {
    const run = new TestRun(procedureOf({ leak: 'part-first' }))
      .upTo('parts')
      .say({ type: 'part-test', part: 'front', tight: true, how: 'ten minutes', leftMl: 110 });
    const screen = mountScreen(PartTestStep, { props: props(run) });
    expect(wordsOf(screen)).toContain('They bring 110 mL with them');
    await press(screen, /^It leaks$/);
    expect(wordsOf(screen)).toContain('Say which part');
    expect(sent(screen)).toEqual([]);
  });
});

describe('the fill watched', () => {
  it.each([
    [30, /^\d+ mL at most/],
    [3, /^\d+ mL while the pump runs/],
    [0, /^\d+ mL while the pump runs/],
  ])('with %d mL of room up to the mark says what a hand can still do', (room, words) => {
    const run = new TestRun().upTo('fill').say(COOLANT).say({ type: 'pour', volumeMl: 150 });
    const mark = run.procedure.facts?.reservoir?.fillMarkMl ?? 0;
    run.say({ type: 'level', levelMl: mark - room });
    const screen = mountScreen(FillStep, { props: { ...props(run), plannedProductId: null } });
    expect(screen.find('.big-number').text().replace(/\s+/g, ' ')).toMatch(words);
  });

  it('names what the loop cannot hold', () => {
    const run = new TestRun().upTo('fill').say(COOLANT).say({ type: 'pour', volumeMl: 2500 });
    const screen = mountScreen(FillStep, { props: { ...props(run), plannedProductId: null } });
    expect(wordsOf(screen)).toMatch(/more than the loop can hold: look for a leak/);
  });
});

describe('air left', () => {
  it('is a range, with its trend and the turn that helps', async () => {
    const cycle = (rise: number) => ({ runningMm: 100, stoppedMm: 100 + rise, bubbles: true, noise: false });
    const screen = mountScreen(AirTrend, {
      props: { file: usualLoop(), liquid: WATER, cycles: [cycle(6), cycle(4), cycle(2)], bled: false },
    });
    await settle();
    expect(wordsOf(screen)).toMatch(/About \d+ to \d+ mL of air left, falling by [\d.]+ mL a cycle/);
    expect(screen.find('svg').exists()).toBe(true);
  });
});
