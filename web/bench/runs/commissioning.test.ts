// @vitest-environment happy-dom
import { forgetAnswers, rememberedAnswer } from '../../base/outbox/deviceStore.js';
import { procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, h, nextTick } from 'vue';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import BleedStep from '../air/BleedStep.vue';
import FillStep from '../filling/FillStep.vue';
import StepTicks from '../frame/StepTicks.vue';
import CheckRows from './CheckRows.vue';
import RunLog from './RunLog.vue';
import PumpControl from './PumpControl.vue';
import SignOffStep from './SignOffStep.vue';
import TimerPanel from './TimerPanel.vue';
import { deliverAs, deviceOutbox } from '../../base/outbox/deviceOutbox.js';
import { dropItem, keptItems } from '../../base/outbox/deviceStore.js';
import { setServerNow } from '../../base/units/now.js';
import { useRun, type RunDesk } from './useRun.js';

const tess = { personId: 'p', personName: 'Tess', workshopId: 'w' };
beforeEach(async () => {
  deliverAs(() => tess);
  for (const { id } of [...deviceOutbox.view.waiting, ...deviceOutbox.view.refused]) await deviceOutbox.dismiss(id);
  for (const { id } of await keptItems()) await dropItem(id);
  await forgetAnswers();
});
afterEach(() => {
  vi.useRealTimers();
  setServerNow(new Date().toISOString());
});

const sent = (screen: ReturnType<typeof mountScreen>): unknown[] => (screen.emitted('send') ?? []).map(([body]) => body);

describe('the steps as ticks', () => {
  it('tells done, current and to come, and lets only reached steps be looked at', async () => {
    const run = new TestRun().upTo('close');
    const screen = mountScreen(StepTicks, { props: { procedure: run.procedure, state: run.state, shown: 'close' } });
    const buttons = screen.findAll('button');
    expect(buttons[3]?.attributes('aria-current')).toBe('step');
    expect(buttons[0]?.attributes('disabled')).toBeUndefined();
    expect(buttons[6]?.attributes('disabled')).toBeDefined();
    await buttons[0]?.trigger('click');
    expect(screen.emitted('look')).toEqual([['kit']]);
  });
});

describe('checks for wet hands', () => {
  const step = procedureOf().steps.find(({ id }) => id === 'flush') as ReturnType<typeof procedureOf>['steps'][number];
  const rows = (locked = false) =>
    mountScreen(CheckRows, {
      props: { checks: step.checks, marks: { 'flushed:roof': { mark: 'done', reason: null, at: '', by: '' } }, locked },
    });

  it('are one touch where one kind of thing is looked at in many places, and apart on request', async () => {
    const close = procedureOf().steps.find(({ id }) => id === 'close')?.checks ?? [];
    const screen = mountScreen(CheckRows, { props: { checks: close, marks: {}, locked: false } });
    const joints = close.filter(({ id }) => id.startsWith('joint:'));
    expect(screen.findAll('.check').length).toBeLessThan(close.length / 2);
    expect(wordsOf(screen)).toContain(`Both joints of each tube made, gripped and pulled (${joints.length})`);
    expect(wordsOf(screen)).toContain('Valve shut, handle across the pipe: drain');
    const whole = screen.findAll('.check.whole');
    await whole[0]?.find('input').trigger('change');
    expect(screen.emitted('seen')).toEqual([[joints.map(({ id }) => id)]]);
    await whole[0]?.find('.skip').trigger('click');
    expect(screen.findAll('.check').length).toBeGreaterThan(joints.length);
  });

  it('never put together what guards people: the pulled list and its way back', () => {
    const { steps } = procedureOf();
    const guards = steps
      .filter(({ id }) => id !== 'kit')
      .flatMap(({ checks }) => checks)
      .filter(({ id }) => /^(pulled|back):|^supply|^jumper/.test(id));
    expect(guards.length).toBeGreaterThan(8);
    expect(guards.every(({ together }) => together === undefined)).toBe(true);
  });

  it('tick and untick with one touch', async () => {
    const screen = rows();
    const boxes = screen.findAll('input[type="checkbox"]');
    await boxes[0]?.trigger('change');
    // what was ticked is folded, and opens again from there
    await screen.find('details input').trigger('change');
    expect(screen.emitted('mark')).toEqual([
      ['flushed:graphics', 'done'],
      ['flushed:roof', 'open'],
    ]);
  });

  it('ask for a reason before something counts as not needed', async () => {
    const screen = rows();
    await screen.find('.skip').trigger('click');
    await screen.find('form input').setValue('x');
    await screen.find('form').trigger('submit');
    expect(screen.emitted('notNeeded')).toBeUndefined();
    await screen.find('form input').setValue('flushed last week');
    await screen.find('form').trigger('submit');
    expect(screen.emitted('notNeeded')).toEqual([['flushed:graphics', 'flushed last week']]);
  });

  it('cannot be touched once the step is closed', () => {
    const screen = rows(true);
    expect(screen.findAll('input').every((box) => box.attributes('disabled') !== undefined)).toBe(true);
    expect(screen.find('.skip').exists()).toBe(false);
  });
});

describe('a timer', () => {
  const timer = { id: 'wet-run', label: 'Pump running', seconds: 600 };

  it('counts down from the instant in the log', async () => {
    vi.useFakeTimers({ now: Date.parse('2026-03-10T09:04:00Z') });
    setServerNow('2026-03-10T09:04:00Z');
    const screen = mountScreen(TimerPanel, {
      props: { timer, state: { step: 'wet', startedAt: '2026-03-10T09:00:00Z', stoppedAt: null, seconds: 600 }, locked: false },
    });
    expect(screen.text()).toContain('6:00');
    vi.advanceTimersByTime(61_000);
    await nextTick();
    expect(screen.text()).toContain('4:59');
    vi.advanceTimersByTime(400_000);
    await nextTick();
    expect(screen.text()).toContain('done');
  });

  it('offers to start, and to start again when it was stopped early', async () => {
    const fresh = mountScreen(TimerPanel, { props: { timer, state: null, locked: false } });
    await fresh.find('button').trigger('click');
    expect(fresh.emitted('start')).toHaveLength(1);
    const stopped = mountScreen(TimerPanel, {
      props: {
        timer,
        state: { step: 'wet', startedAt: '2026-03-10T09:00:00Z', stoppedAt: '2026-03-10T09:01:00Z', seconds: 600 },
        locked: false,
      },
    });
    expect(stopped.text()).toContain('stopped early');
    expect(stopped.find('button').text()).toContain('Start again');
  });

  it('of the wet test is the pump’s switch: it has none of its own', () => {
    const running = mountScreen(TimerPanel, {
      props: {
        timer,
        state: { step: 'wet', startedAt: new Date().toISOString(), stoppedAt: null, seconds: 600 },
        locked: false,
        pump: true,
      },
    });
    expect(running.find('button').exists()).toBe(false);
    expect(running.find('.big-number').text()).toMatch(/^(10:00|9:59)/);
    const { procedure, state } = new TestRun().upTo('wet');
    const clock = { since: null, words: 'Pump on, start the clock' };
    const fresh = mountScreen(PumpControl, { props: { procedure, state, locked: false, clock } });
    expect(fresh.find('button').text()).toMatch(/^Pump on, start the clock/);
  });
});

describe('filling on screen', () => {
  const product = {
    id: '6f1f0d5e-0000-4000-8000-000000000001',
    name: 'Plain Clear',
    coolantClass: 'clear',
    colour: '#7fb8c9',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    sheetLifeMonths: null,
    lots: [{ id: 'b', productId: 'x', lot: 'L1', openedOn: null }],
  };

  it('takes the coolant on the bench first', async () => {
    fakeServer(() => ({ status: 200, body: { products: [product] } }));
    const run = new TestRun().upTo('fill');
    const screen = mountScreen(FillStep, {
      props: { procedure: run.procedure, state: run.state, plannedProductId: product.id, locked: false },
    });
    await settle();
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([{ type: 'coolant', productId: product.id, productName: 'Plain Clear', lotId: null, lot: null }]);
  });

  it('says how much at most, counts what went in, and refuses nothing poured', async () => {
    fakeServer(() => ({ status: 200, body: { products: [product] } }));
    const run = new TestRun()
      .upTo('fill')
      .say({ type: 'coolant', productId: product.id, productName: 'Plain Clear', lotId: null, lot: null });
    const screen = mountScreen(FillStep, { props: { procedure: run.procedure, state: run.state, plannedProductId: null, locked: false } });
    expect(screen.find('.big-number').text()).toContain(String(Math.round(run.procedure.facts?.fill?.passiveMl ?? 0)));
    await screen.find('form').trigger('submit');
    expect(screen.text()).toContain('Enter what went in');
    await screen.find('form input').setValue('250');
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([{ type: 'pour', volumeMl: 250, toMark: true }]);
  });
});

describe('bleeding and the sign-off on screen', () => {
  it('enter a cycle and show the rise', async () => {
    const run = new TestRun().upTo('bleed').say({ type: 'bleed-cycle', runningMm: 110, stoppedMm: 116, bubbles: true, noise: false });
    const screen = mountScreen(BleedStep, { props: { procedure: run.procedure, state: run.state, colour: null, locked: false } });
    expect(screen.find('.big-number').text()).toContain('6.0');
    const inputs = screen.findAll('.entry input');
    await inputs[0]?.setValue('112');
    await inputs[1]?.setValue('113');
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([{ type: 'bleed-cycle', runningMm: 112, stoppedMm: 113, bubbles: false, noise: false }]);
  });

  it('sum the run up before it is signed off, deviations included', async () => {
    const run = new TestRun().upTo('bleed').say({ type: 'deviation', step: 'bleed', reason: 'owner waits' });
    run.runTimer('power', 'firmware', 900).finish('power').measure().finish('baseline');
    const screen = mountScreen(SignOffStep, { props: { procedure: run.procedure, state: run.state, busy: false, waiting: 0 } });
    expect(screen.text()).toContain('Bleed: owner waits');
    expect(screen.text()).toContain('no cycle was read');
    await screen.find('button').trigger('click');
    expect(screen.emitted('sign')).toEqual([['']]);
    const waiting = mountScreen(SignOffStep, { props: { procedure: run.procedure, state: run.state, busy: false, waiting: 2 } });
    expect(waiting.find('button').attributes('disabled')).toBeDefined();
  });

  it('show the log newest first, with what was taken back struck out and what is not saved named', () => {
    const run = new TestRun().say({ type: 'note', step: 'kit', text: 'first' }).say({ type: 'note', step: 'kit', text: 'second' });
    run.say({ type: 'withdrawn', event: run.events[0]?.id ?? '' });
    const screen = mountScreen(RunLog, { props: { procedure: run.procedure, state: run.state, events: run.events, waiting: 1 } });
    const rows = screen.findAll('li');
    expect(rows.map((row) => row.find('span').text())).toEqual(['Taken back: Note: first', 'Note: second', 'Note: first']);
    expect(rows[2]?.classes()).toContain('back');
    expect(rows[0]?.classes()).toContain('unsaved');
    expect(screen.text()).toContain('1 entry is on this device only');
  });
});

describe('entries on their way to the server', () => {
  const procedure = procedureOf();
  const answer = (events: unknown[] = []) => ({
    run: { id: 'r', procedure, state: 'active', startedAt: '2026-03-10T09:00:00Z', loopId: 'l' },
    benchName: null,
    loopName: 'Main',
    systemId: 's',
    systemName: 'Tower',
    ownerName: 'Ada',
    revisionNumber: 1,
    file: usualLoop(),
    coolantProductId: null,
    events,
    now: new Date().toISOString(),
  });

  function desk(): { desk: RunDesk; close: () => void } {
    let made: RunDesk | undefined;
    const screen = mountScreen(
      defineComponent({
        setup: () => {
          made = useRun('r');
          return () => h('div');
        },
      }),
    );
    return { desk: made as RunDesk, close: () => screen.unmount() };
  }

  const server = (events: unknown[], post: (asked: Asked) => { status: number; body: unknown } | 'unreachable') =>
    fakeServer((asked) => (asked.method === 'GET' ? { status: 200, body: answer(events) } : post(asked)));
  const keep = (events: unknown[]) => (asked: Asked) => {
    const body = asked.body as { id: string; at: string; body: unknown };
    const event = { ...body, seq: events.length + 1, by: 'Tess' };
    events.push(event);
    return { status: 201, body: { event, now: new Date().toISOString() } };
  };

  it('show at once and are saved in order', async () => {
    const events: unknown[] = [];
    server(events, keep(events));
    const { desk: run, close } = desk();
    await settle();
    run.send({ type: 'note', step: 'kit', text: 'one' });
    run.send({ type: 'note', step: 'kit', text: 'two' });
    expect(run.events.value).toHaveLength(2);
    expect(run.waiting.value).toBe(2);
    await expect.poll(() => run.waiting.value).toBe(0);
    expect((events as { body: { text: string } }[]).map(({ body }) => body.text)).toEqual(['one', 'two']);
    close();
  });

  it('wait on the device while the server is away, survive a reload, and go once', async () => {
    const events: unknown[] = [];
    server(events, () => 'unreachable');
    const first = desk();
    await settle();
    first.desk.send({ type: 'note', step: 'kit', text: 'kept' });
    await expect.poll(async () => (await keptItems()).length).toBe(1);
    expect(first.desk.waiting.value).toBe(1);
    first.close();
    const asked = server(events, keep(events));
    expect(await keptItems()).toHaveLength(1);
    void deviceOutbox.deliver();
    const second = desk();
    await expect.poll(() => second.desk.events.value.length).toBe(1);
    await expect.poll(async () => (await keptItems()).length).toBe(0);
    expect(second.desk.waiting.value).toBe(0);
    expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(1);
    expect(second.desk.events.value).toHaveLength(1);
    second.close();
  });

  it('show the run as it was last read while the server is away', async () => {
    const events: unknown[] = [];
    server(events, keep(events));
    const first = desk();
    await settle();
    await expect.poll(async () => rememberedAnswer('run r')).not.toBeNull();
    first.close();
    fakeServer(() => 'unreachable');
    const second = desk();
    await expect.poll(() => second.desk.state.value !== null).toBe(true);
    expect(second.desk.away.value).toBe(true);
    expect(second.desk.send({ type: 'note', step: 'kit', text: 'in the cellar' })).toBe(true);
    expect(second.desk.waiting.value).toBe(1);
    second.close();
  });

  it('that the rules refuse are not sent, and the reason is said', async () => {
    const asked = server([], () => 'unreachable');
    const { desk: run, close } = desk();
    await settle();
    expect(run.send({ type: 'pour', volumeMl: 100 })).toBe(false);
    expect(run.problem.value).toBe('"Lay out the kit" comes first; finish it before "Fill".');
    expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(0);
    close();
  });

  it('that the server refuses are taken off with its words', async () => {
    server([], () => ({ status: 409, body: { error: { code: 'refused', message: 'This run was abandoned; start a new one.' } } }));
    const { desk: run, close } = desk();
    await settle();
    run.send({ type: 'note', step: 'kit', text: 'late' });
    await expect.poll(() => run.waiting.value).toBe(0);
    expect(run.problem.value).toBe('This run was abandoned; start a new one.');
    // it is set aside with the server's words, not lost
    expect(run.refused.value).toMatchObject([{ body: { text: 'late' }, why: 'This run was abandoned; start a new one.' }]);
    expect(await keptItems()).toMatchObject([{ why: 'This run was abandoned; start a new one.' }]);
    run.dismiss(run.refused.value[0]?.id ?? '');
    expect(run.refused.value).toEqual([]);
    await expect.poll(async () => (await keptItems()).length).toBe(0);
    close();
  });

  it('are kept, not dropped, when the session has ended', async () => {
    server([], () => ({ status: 401, body: { error: { code: 'signed-out', message: 'Sign in.' } } }));
    const { desk: run, close } = desk();
    await settle();
    run.send({ type: 'note', step: 'kit', text: 'typed' });
    await settle();
    expect(run.waiting.value).toBe(1);
    close();
  });

  it('are taken back one by one', async () => {
    const events: unknown[] = [];
    server(events, keep(events));
    const { desk: run, close } = desk();
    await settle();
    run.send({ type: 'note', step: 'kit', text: 'oops' });
    await expect.poll(() => events.length).toBe(1);
    await expect.poll(() => run.waiting.value).toBe(0);
    run.undoLast();
    await expect.poll(() => events.length).toBe(2);
    expect(run.state.value?.steps[0]?.notes).toEqual([]);
    close();
  });

  it('name a run that is not there', async () => {
    fakeServer(() => ({ status: 404, body: { error: { code: 'not-found', message: 'There is no such run.' } } }));
    const { desk: run, close } = desk();
    await settle();
    expect(run.missing.value).toBe(true);
    close();
  });
});
