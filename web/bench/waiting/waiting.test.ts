// @vitest-environment happy-dom
import { checksBeforeWaiting } from '@core/bench/runs/waiting.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { afterEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { COOLANT, TestRun } from '../../../tests/bench/testRun.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import AbandonDialog from '../runs/AbandonDialog.vue';
import LeftOpenDialog from '../left-open/LeftOpenDialog.vue';
import WaitDialog from './WaitDialog.vue';
import WaitingPanel from './WaitingPanel.vue';
import WaitingShelf from './WaitingShelf.vue';

afterEach(() => {
  document.body.innerHTML = '';
});

const filling = (): TestRun => new TestRun().upTo('fill').say(COOLANT).say({ type: 'pour', volumeMl: 200 });
const waiting = (): TestRun => {
  const run = filling();
  const seen = checksBeforeWaiting(run.state).map(({ check }) => check);
  return run.say({ type: 'waits', for: 'parts', what: 'the plate’s seal', until: '2026-03-14', lies: 'shelf 3', seen });
};
const dialog = (): HTMLElement => document.querySelector('.v-dialog') as HTMLElement;
const type = async (label: string, value: string): Promise<void> => {
  const field = [...dialog().querySelectorAll('.v-field')].find((each) => each.textContent?.includes(label));
  const input = field?.querySelector('input') as HTMLInputElement;
  input.value = value;
  input.dispatchEvent(new Event('input'));
  await nextTick();
};
const press = async (words: RegExp, within: ParentNode = document): Promise<void> => {
  [...within.querySelectorAll('button')].find((each) => words.test(each.textContent ?? ''))?.click();
  await settle();
};
const tickAll = async (within: ParentNode): Promise<void> => {
  for (const box of within.querySelectorAll<HTMLInputElement>('fieldset input[type="checkbox"]')) {
    if (!box.checked) box.click();
    await nextTick();
  }
};

describe('letting a run wait', () => {
  const open = (run: TestRun, undelivered = 0) =>
    mountScreen(WaitDialog, {
      props: { modelValue: true, runId: 'r1', procedure: run.procedure, state: run.state, nowMs: run.nowMs, undelivered },
    });

  it('asks line by line what must be true before anybody walks away, and sends what was ticked', async () => {
    const asked = fakeServer(() => ({ status: 201, body: {} }));
    const run = filling();
    open(run);
    await settle();
    expect(dialog().textContent).toContain('A tray with a dry towel under it');
    await type('Which part', 'the plate’s seal');
    await type('Somebody looks again on', '2026-03-14');
    await type('Where it lies', 'shelf 3');
    await tickAll(dialog());
    await press(/the bench is free/);
    expect(asked.at(-1)).toMatchObject({
      path: '/runs/r1/wait',
      body: {
        for: 'parts',
        what: 'the plate’s seal',
        until: '2026-03-14',
        lies: 'shelf 3',
        seen: ['supply-out', 'tray-under', 'labelled'],
      },
    });
  });

  it('does not send while the pump runs or entries have not reached the server', async () => {
    const asked = fakeServer(() => ({ status: 201, body: {} }));
    open(filling().say({ type: 'pump', on: true }));
    await settle();
    expect(dialog().textContent).toContain('The pump runs: switch it off');
    await press(/the bench is free/);
    expect(asked).toHaveLength(0);
    document.body.innerHTML = '';
    open(filling(), 2);
    await settle();
    expect(dialog().textContent).toContain('on the device only');
  });
});

describe('a run that is taken off the bench', () => {
  const leave = async (run: TestRun) => {
    const asked = fakeServer(() => ({ status: 201, body: {} }));
    mountScreen(AbandonDialog, { props: { modelValue: true, runId: 'r1', practice: false, procedure: run.procedure, state: run.state } });
    await settle();
    const why = dialog().querySelector('textarea') as HTMLTextAreaElement;
    why.value = 'called away';
    why.dispatchEvent(new Event('input'));
    await press(/^Off the bench/);
    return asked;
  };

  it('is left only when every line is ticked that guards who comes by', async () => {
    const asked = await leave(filling());
    expect(dialog().textContent).toContain('Do this first, then tick it: 3 to go');
    expect(asked).toHaveLength(0);
    await tickAll(dialog());
    await press(/^Off the bench/);
    expect(asked.at(-1)).toMatchObject({ path: '/runs/r1/abandon', body: { reason: 'called away' } });
  });

  it('is not left with its pump running', async () => {
    const asked = await leave(filling().say({ type: 'pump', on: true }));
    await tickAll(dialog());
    await press(/^Off the bench/);
    expect(dialog().textContent).toContain('The pump runs: switch it off');
    expect(asked).toHaveLength(0);
  });
});

describe('a run that waits', () => {
  const bench = (id: string, name: string) => ({ id, name });
  const benches = {
    now: '2026-03-12T09:00:00Z',
    benches: [bench('b1', 'Window bench'), bench('b2', 'Long bench')],
    runs: [{ id: 'r2', benchId: 'b1', systemId: 's2', systemName: 'Moss tower' }],
    next: [],
  };

  it('says what it waits for, and goes back onto a free bench once somebody has looked', async () => {
    const asked = fakeServer(({ path }) => ({ status: 200, body: path === '/benches' ? benches : {} }));
    const run = waiting();
    const screen = mountScreen(WaitingPanel, {
      props: { runId: 'r1', systemId: 's1', procedure: run.procedure, state: run.state, today: '2026-03-12' },
    });
    await settle();
    expect(wordsOf(screen)).toContain('The plate’s seal');
    expect(wordsOf(screen)).toContain('(in 2 days). It lies: shelf 3.');
    expect(screen.find<HTMLInputElement>('input[value="b1"]').element.disabled).toBe(true);
    expect(screen.find<HTMLInputElement>('input[value="b2"]').element.checked).toBe(true);
    // what must be looked at is the act of now, one look at a time; the way back comes behind it
    const act = () => screen.findAll('.v-btn').at(-1);
    expect(screen.find('button[type="submit"]').exists()).toBe(false);
    for (let looks = 0; looks < 2; looks += 1) {
      expect(act()?.text()).toMatch(/^✓ /);
      await act()?.trigger('click');
    }
    expect(act()?.text()).toBe('Back on the bench, go on');
    await screen.find('form').trigger('submit');
    await settle();
    expect(asked.at(-1)).toMatchObject({ path: '/runs/r1/go-on', body: { benchId: 'b2', seen: ['supply-still-out', 'dry-under'] } });
    expect(screen.emitted('resumed')).toHaveLength(1);
  });

  it('stands on its shelf, the one that is looked at first in front', () => {
    const run = (id: string, systemName: string, until: string) => ({
      ...{ id, systemName, ownerName: 'Ada', colour: '#7fb8c9', inside: null, stepTitle: 'Fill' },
      waits: { for: 'parts', what: 'a seal', until, lies: 'shelf 3', since: '2026-03-10T09:00:00Z' },
    });
    const screen = mountScreen(WaitingShelf, {
      props: {
        runs: [run('r1', 'Later', '2026-03-20'), run('r2', 'Sooner', '2026-03-09')] as never,
        today: '2026-03-10',
        fileOf: () => usualLoop(),
      },
    });
    expect(wordsOf(screen)).toContain('2 waiting, off the benches');
    expect(screen.findAll('li strong').map((each) => each.text())).toEqual(['Sooner', 'Later']);
    expect(wordsOf(screen)).toContain('1 day over');
  });
});

describe('what stays open', () => {
  const open = (run = filling()) => {
    const screen = mountScreen(LeftOpenDialog, { props: { modelValue: false, procedure: run.procedure } });
    void screen.setProps({ modelValue: true });
    return screen;
  };

  it('is written down with its day; a fix that holds for now has limits of use', async () => {
    const screen = open();
    await settle();
    await type('What holds for now', 'a cap on the branch');
    await press(/Write it down/);
    expect(dialog().textContent).toContain('By which day?');
    await type('What is awaited', 'the seal');
    await type('Final fix by', '2026-04-01');
    await press(/Write it down/);
    expect(screen.emitted('send')).toEqual([
      [
        {
          type: 'temporary-fix',
          what: 'a cap on the branch',
          awaits: 'the seal',
          until: '2026-04-01',
          limits: ['do-not-move', 'level-daily'],
          then: 'leak-repair',
        },
      ],
    ]);
  });

  it('takes what was not connected again', async () => {
    const screen = open();
    await settle();
    await press(/Not connected again/);
    await type('What is not connected again', 'the strip of lamps');
    await type('By', '2026-04-01');
    await press(/Write it down/);
    expect(screen.emitted('send')).toEqual([[{ type: 'owed', kind: 'not-connected', what: 'the strip of lamps', until: '2026-04-01' }]]);
  });
});
