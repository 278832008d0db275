// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { mountScreen } from '../../../tests/screens/mountScreen.js';
import DryTestStep from './DryTestStep.vue';

const sent = (screen: ReturnType<typeof mountScreen>): unknown[] => (screen.emitted('send') ?? []).map(([body]) => body as unknown);
afterEach(() => {
  document.body.innerHTML = '';
});

describe('the dry test on screen', () => {
  const screenOf = (run: TestRun) =>
    mountScreen(DryTestStep, {
      props: { procedure: run.procedure, state: run.state, locked: false },
      global: { stubs: { DecayChart: true } },
    });

  it('wants both gauge and room temperature', async () => {
    const screen = screenOf(new TestRun().upTo('dry'));
    await screen.findAll('form input')[0]?.setValue('50');
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([]);
    expect(screen.text()).toContain('without the temperature a warm hand looks like a leak');
    await screen.findAll('form input')[1]?.setValue('21,5');
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([{ type: 'dry-reading', gaugeKpa: 50, tempC: 21.5 }]);
  });

  it('orders no pressure into a loop that stands open', () => {
    const run = new TestRun().upTo('dry').say({ type: 'seal-borrowed', from: 'roof.vent', text: 'to the plate' });
    const screen = screenOf(run);
    expect(screen.text()).toContain('First close what is open');
    expect(screen.text()).not.toContain('Raise it');
    expect(screen.find('.big-number').text()).toBe('0 kPa');
    run.say({ type: 'seal-fitted', borrowed: run.events.at(-1)?.id ?? '', text: 'a new one' });
    expect(screenOf(run).text()).toContain('Raise it, close');
  });

  it('says "cannot tell yet" with the minutes, then "tight"', () => {
    expect(screenOf(new TestRun().upTo('dry').dryTest(4)).text()).toMatch(/\d+ min more, about/);
    const tight = screenOf(new TestRun().upTo('dry').dryTest(20));
    expect(tight.find('.big-number').text()).toBe('tight');
    expect(tight.text()).toContain('mL of water a day');
  });

  it('says "leaks" and starts again only with a reason', async () => {
    const run = new TestRun().upTo('dry');
    for (let n = 0; n < 12; n += 1) run.wait(100).say({ type: 'dry-reading', gaugeKpa: 50 - n, tempC: 21 });
    const screen = screenOf(run);
    expect(screen.find('.big-number').text()).toBe('leaks');
    await screen.find('.link').trigger('click');
    const form = screen.findAll('form').at(-1);
    await form?.trigger('submit');
    expect(sent(screen)).toEqual([]);
    await form?.find('input').setValue('nut tightened');
    await form?.trigger('submit');
    expect(sent(screen)).toEqual([{ type: 'dry-restarted', reason: 'nut tightened' }]);
    // begun anew, the air of before still stands behind the nut
    const anew = screenOf(run.say({ type: 'dry-restarted', reason: 'nut tightened' }));
    expect(anew.text()).toContain('Let the air out before anything is opened');
    expect(anew.find('.big-number').text()).toBe('39.0 kPa stand inside');
    run.tick('dry');
    expect(screenOf(run).text()).toContain('Raise it, close');
  });
});
