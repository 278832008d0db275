// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import RingAges from '../../machine/loop/RingAges.vue';
import RingRecord from './RingRecord.vue';
import { ringAges } from '@core/machine/seals/rings.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';

describe('new rings at the bench', () => {
  it('are touched by their places, and those that are new are not asked for again', async () => {
    const run = new TestRun().upTo('close');
    const screen = mountScreen(RingRecord, { props: { procedure: run.procedure, state: run.state, step: 'close', locked: false } });
    const base = screen.findAll('.places button').find((each) => each.text().startsWith('base ring'));
    await base?.trigger('click');
    await screen.findAll('.row button')[0]?.trigger('click');
    const [[sent]] = screen.emitted('send') as [[{ type: 'ring-renewed'; step: string; places: string[] }]];
    expect(sent).toMatchObject({ type: 'ring-renewed', step: 'close' });
    run.say(sent);
    await screen.setProps({ state: run.state });
    expect(wordsOf(screen)).toContain('New rings and gaskets: 1 of');
    expect(screen.findAll('.places button').some((each) => each.text().startsWith('base ring'))).toBe(false);
  });
});

describe('the ages of rings on a loop’s page', () => {
  it('stand together where they are of one day, the oldest first', async () => {
    const rings = ringAges(usualLoop(), '2021-03-01', {}, '2026-03-01');
    const [first] = rings;
    const renewed = ringAges(usualLoop(), '2021-03-01', { [first?.place.id ?? '']: '2026-01-30' }, '2026-03-01');
    fakeServer(() => ({ status: 200, body: { rings: renewed } }));
    const screen = mountScreen(RingAges, { props: { loopId: 'l' } });
    await settle();
    expect(screen.findAll('li').map((each) => each.find('b').text())).toEqual(['5.0 years', '30 days']);
    expect(screen.findAll('i.over')).toHaveLength(0);
  });
});
