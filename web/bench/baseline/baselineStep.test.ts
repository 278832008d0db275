// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { verdictsOf } from '@core/bench/runs/verdicts.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { mountScreen, wordsOf } from '../../../tests/screens/mountScreen.js';
import BaselineStep from './BaselineStep.vue';

const sent = (screen: ReturnType<typeof mountScreen>): unknown[] => (screen.emitted('send') ?? []).map(([body]) => body);

beforeEach(() => {
  document.body.innerHTML = '';
});

describe('a reading under load on screen', () => {
  it('name the conditions that are missing', async () => {
    const run = new TestRun().upTo('baseline');
    const screen = mountScreen(BaselineStep, { props: { state: run.state, locked: false } });
    await screen.find('form').trigger('submit');
    expect(screen.text()).toContain('Still missing: workload, room temperature, part temperature');
    expect(sent(screen)).toEqual([]);
  });

  it('say where a test ends while it warms, and bring a short one there', async () => {
    const run = new TestRun().upTo('baseline');
    // every entry comes 20 s after what was before it: one each two minutes
    const note = (minute: number): void =>
      void run.say({ type: 'warming', sensor: 'processor package', tempC: 70 - 30 * Math.exp(-minute / 8) }).wait(100);
    for (const minute of [0, 2, 4]) note(minute);
    const few = mountScreen(BaselineStep, { props: { state: run.state, locked: false } });
    expect(wordsOf(few)).toContain('one note more, a minute or two apart');
    for (const minute of [6, 8, 10]) note(minute);
    const screen = mountScreen(BaselineStep, { props: { state: run.state, locked: false } });
    // an exact curve: τ of 8 min, ten minutes into it
    expect(wordsOf(screen)).toContain('70.0 °C ± 0.0 K');
    expect(wordsOf(screen)).toContain('71 % there; in 23 min it is within half a kelvin');
    const type = (label: string, value: string) => screen.findAllComponents({ name: 'NumberField' }).find((each) => each.props('label') === label)?.find('input').setValue(value); // prettier-ignore
    await type('Part', '61.4');
    await screen.findAll('button').find((each) => each.text() === 'Note it, still warming')?.trigger('click'); // prettier-ignore
    expect(sent(screen)).toEqual([{ type: 'warming', sensor: 'processor package', tempC: 61.4 }]);
    await type('Part', '61.4');
    await type('Room', '22');
    await screen.findAll('input').find((each) => each.attributes('placeholder') === 'render and graphics together')?.setValue('render'); // prettier-ignore
    await screen.find('form').trigger('submit');
    const entry = sent(screen).at(-1) as { reading: { partC: number; warming: { reachedFraction: number; endsC: number } } };
    expect(entry.reading.partC).toBe(61.4);
    expect(entry.reading.warming.endsC).toBeCloseTo(70, 6);
    expect(entry.reading.warming.reachedFraction).toBeCloseTo(1 - Math.exp(-10 / 8), 6);
  });

  it('take several sensors under one set of conditions, and say what changed of each', async () => {
    const run = new TestRun().upTo('baseline');
    const conditions = { setting: 'load, quiet', workload: 'render', durationMinutes: 45, statistic: 'peak', panels: 'on', pumpPercent: 0, fanPercent: 0, roomC: 22, coolantC: null, flowLph: null, levelMm: null } as const; // prettier-ignore
    run.say({ type: 'baseline', reading: { ...conditions, sensor: 'processor package', partC: 82, powerW: 150, oldCooler: true }, others: [{ sensor: 'graphics chip', partC: 74, powerW: 300 }] }); // prettier-ignore
    const screen = mountScreen(BaselineStep, { props: { state: run.state, locked: false, build: true } });
    expect(wordsOf(screen)).toContain('old cooler, graphics chip');
    const fields = (label: string) => screen.findAllComponents({ name: 'NumberField' }).filter((each) => each.props('label') === label).map((each) => each.find('input')); // prettier-ignore
    const [processor, card] = fields('Part');
    await processor?.setValue('64');
    await card?.setValue('52');
    await fields('Room')[0]?.setValue('22');
    expect(wordsOf(screen)).toContain('18.1 ± 1.7 K cooler than before');
    expect(wordsOf(screen)).toContain('22.1 ± 1.5 K cooler than before');
    await screen.find('form').trigger('submit');
    const entry = sent(screen).at(-1) as Extract<RunEventBody, { type: 'baseline' }>;
    expect([entry.reading.sensor, entry.reading.partC, entry.others]).toEqual(['processor package', 64, [{ sensor: 'graphics chip', partC: 52, powerW: 300 }]]); // prettier-ignore
    run.say(entry);
    expect(run.state.baselines.map(({ value }) => [value.sensor, value.partC, value.powerW, value.roomC])).toEqual([
      ['processor package', 64, 150, 22],
      ['graphics chip', 52, 300, 22],
    ]);
    expect(verdictsOf(run.procedure, run.state)).toContainEqual(expect.objectContaining({ verdict: 'cooler', than: 'before' }));
  });

  it('keep what is being typed when somebody else’s entry comes in', async () => {
    const run = new TestRun().upTo('baseline');
    const conditions = { setting: 'load, quiet', workload: 'render', durationMinutes: 45, statistic: 'peak', panels: 'on', pumpPercent: 0, fanPercent: 0, roomC: 22, coolantC: null, flowLph: null, levelMm: null } as const; // prettier-ignore
    run.say({ type: 'baseline', reading: { ...conditions, sensor: 'processor package', partC: 82, powerW: 150, oldCooler: true } }); // prettier-ignore
    const screen = mountScreen(BaselineStep, { props: { state: run.state, locked: false, build: true } });
    const part = () =>
      screen
        .findAllComponents({ name: 'NumberField' })
        .find((each) => each.props('label') === 'Part')
        ?.find('input');
    await part()?.setValue('64');
    run.say({ type: 'note', step: 'baseline', text: 'by a colleague' });
    await screen.setProps({ state: { ...run.state } });
    expect((part()?.element as HTMLInputElement | undefined)?.value).toBe('64');
  });

  it('say that a test may end once nothing changes any more, and begin anew after a reading', () => {
    const run = new TestRun().upTo('baseline');
    for (const minute of [0, 10, 20, 30, 40, 50])
      run.say({ type: 'warming', sensor: 'processor package', tempC: 70 - 30 * Math.exp(-minute / 8) }).wait(580);
    const screen = (): string => wordsOf(mountScreen(BaselineStep, { props: { state: run.state, locked: false } }));
    expect(screen()).toContain('the test may end');
    run.measure();
    expect(screen()).not.toContain('the test may end');
  });
});
