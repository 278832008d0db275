// @vitest-environment happy-dom
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { TestRun } from '../../../tests/bench/testRun.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import TroubleList from './TroubleList.vue';

type Screen = ReturnType<typeof mountScreen>;
const sent = (screen: Screen): unknown[] => (screen.emitted('send') ?? []).map(([body]) => body);
const press = async (screen: Screen, words: RegExp): Promise<void> => {
  await screen
    .findAll('button')
    .find((each) => words.test(each.text()))
    ?.trigger('click');
};
async function list(run: TestRun): Promise<Screen> {
  const screen = mountScreen(TroubleList, { props: { procedure: run.procedure, state: run.state, file: usualLoop(), locked: false } });
  await settle();
  return screen;
}

beforeEach(() => fakeServer(() => ({ status: 200, body: { confirmed: {}, fills: { 'draws-air': 20 } } })));
afterEach(() => {
  document.body.innerHTML = '';
});

describe('a trouble of filling', () => {
  it('comes with its causes, what was found here in front, and is closed by the one that was found', async () => {
    const run = new TestRun().upTo('fill').say({ type: 'fill-trouble', symptom: 'foams', text: 'white on top' });
    const trouble = run.events.at(-1)?.id;
    const screen = await list(run);
    expect(wordsOf(screen)).toContain('It foams “white on top”');
    expect(screen.findAll('li')[0]?.text()).toContain('The pump draws air with it, found 20 × here');
    await press(screen, /^It goes on$/);
    expect(sent(screen)).toEqual([]);
    expect(wordsOf(screen)).toContain('Touch the cause that was found first.');
    await screen.find('input[value="residue"]').setValue(true);
    await nextTick();
    await press(screen, /^It goes on$/);
    expect(sent(screen)).toEqual([
      { type: 'fill-trouble-solved', trouble, cause: 'residue', fix: expect.stringContaining('shaken in a clean glass') },
    ]);
  });
});

describe('a leak after the fill', () => {
  const dripping = (): TestRun =>
    new TestRun()
      .upTo('wet')
      .say({ type: 'returned' })
      .say({ type: 'leak', at: 'graphics', when: 'after-minutes', amount: 'drip', text: '' });

  it('is drawn down order by order: air, valve, how much; and what came is kept', async () => {
    const run = dripping();
    const screen = await list(run);
    expect(wordsOf(screen)).toContain('Give it air first');
    await press(screen, /^Open .*roof/);
    expect(sent(screen)).toEqual([{ type: 'port', port: 'roof.vent', open: true }]);
    run.say({ type: 'port', port: 'roof.vent', open: true });
    const next = await list(run);
    await press(next, /^open .*drain/);
    expect(sent(next)).toEqual([{ type: 'port', port: 'drain.drain', open: true }]);
    run.say({ type: 'port', port: 'drain.drain', open: true });
    const last = await list(run);
    expect(wordsOf(last)).toMatch(/Draw \d+ mL at/);
    await last.find('.came input').setValue('385');
    await press(last, /^It came, kept clean$/);
    expect(sent(last)).toEqual([{ type: 'outflow', way: 'drawn-off', volumeMl: 385, kept: true, at: 'drain.drain' }]);
  });

  it('has every other cap shut first: an open one would run over when the column comes down', async () => {
    const run = dripping();
    const fill = run.procedure.facts?.ports.find(({ ofReservoir }) => ofReservoir)?.name ?? '';
    run.say({ type: 'port', port: fill, open: true });
    const screen = await list(run);
    await press(screen, /^shut /);
    expect(sent(screen)).toEqual([{ type: 'port', port: fill, open: false }]);
  });
});

describe('a place without its seal', () => {
  it('says what stands still because of it, and gets one again', async () => {
    const run = new TestRun().upTo('dry').say({ type: 'seal-borrowed', from: 'roof.vent', text: 'to the plate' });
    const borrowed = run.events.at(-1)?.id;
    const screen = await list(run);
    expect(wordsOf(screen)).toContain('No air, no liquid and no pump before it has one again');
    await press(screen, /^Sealed again$/);
    expect(sent(screen)).toEqual([{ type: 'seal-fitted', borrowed, text: 'a new one' }]);
  });
});
