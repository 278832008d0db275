// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { mountScreen, wordsOf } from '../../../tests/screens/mountScreen.js';
import LoadsOnSupply from '../../bench/leak-testing/LoadsOnSupply.vue';
import BesideWorks from './BesideWorks.vue';
import PourFields from './PourFields.vue';

const option = (productId: string, more: object = {}) => ({
  productId,
  name: productId,
  colour: '#336699',
  verdict: 'fine' as const,
  reason: 'the same product',
  unsuited: [],
  rinses: 0,
  firstDueOn: '2027-03-10',
  dueReason: { why: 'said', text: 'by its sheet' } as const,
  estimated: false,
  yearMinor: 3000,
  ...more,
});
const choice = {
  insideMl: 800,
  leftMl: 40,
  options: [
    option('Clear'),
    option('Pearl', {
      unsuited: [{ metal: 'aluminium', part: 'roof radiator' }],
      verdict: 'never',
      reason: 'it carries particles',
      rinses: 3,
      firstDueOn: '2026-03-20',
      yearMinor: 900_000,
    }),
  ],
};
const pour = (chosen: string | null, rinses = false) =>
  mountScreen(PourFields, {
    props: { modelValue: chosen, choice, nowId: 'Clear', today: '2026-03-10', currency: 'EUR', rinses },
  });

describe('what will be poured', () => {
  it('is what the loop has, until another is chosen among all that the shelf holds', async () => {
    const screen = pour(null);
    expect(wordsOf(screen)).toContain('Clear, first due');
    expect(wordsOf(screen)).not.toContain('Pearl');
    await screen.find('button').trigger('click');
    expect(wordsOf(screen)).toContain('never together, 3 rinses between');
    // ten days are no year
    expect(wordsOf(screen)).toContain('for days, not for years');
    await screen.findAll('.option')[1]?.trigger('click');
    expect(screen.emitted('update:modelValue')).toEqual([['Pearl']]);
  });

  it('asks for a flush where the two must not meet and the job does not rinse', async () => {
    const screen = pour('Pearl');
    expect(wordsOf(screen)).toContain('Never together: it carries particles. 3 rinses between, since about 40 mL stay each time.');
    await screen.findAll('button').find((each) => each.text() === 'Make it a flush')?.trigger('click'); // prettier-ignore
    expect(wordsOf(screen)).toContain('Its sheet does not name aluminium (roof radiator).');
    expect(screen.emitted('flush')).toHaveLength(1);
    expect(wordsOf(pour('Pearl', true))).not.toContain('Make it a flush');
  });
});

afterEach(() => vi.unstubAllGlobals());

describe('what goes along while it is open', () => {
  it('adds its minutes to what the job takes, and says what the least time gives up', async () => {
    // nobody answers how the workshop tests: it is told as is usual
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('{}', { status: 404 })));
    const screen = mountScreen(BesideWorks, { props: { modelValue: [], kind: 'partial-drain', file: usualLoop() } });
    expect(wordsOf(screen)).toContain('45 min with hands, 1 h 40 min standing alone');
    expect(wordsOf(screen)).toContain('The least gives up: readings end early');
    await screen.findAll('input')[1]?.setValue(true);
    expect(screen.emitted('update:modelValue')).toEqual([[['paste']]]);
    await screen.setProps({ modelValue: ['paste'] });
    expect(wordsOf(screen)).toContain('1 h 5 min with hands');
  });
});

describe('loads on the supply', () => {
  it('are offered only where the lead allows them, and shown as long as they hang there', async () => {
    const run = new TestRun().upTo('isolate');
    const shown = (may: boolean) => mountScreen(LoadsOnSupply, { props: { state: run.state, locked: false, may } });
    expect(wordsOf(shown(false))).toBe('');
    expect(wordsOf(shown(true))).toContain('A leak that air did not find meets live electronics');
    const state = { ...run.state, loadsStay: { eventId: 'e', at: '', by: 'Tess', text: 'glued in' } };
    const screen = mountScreen(LoadsOnSupply, { props: { state, locked: false, may: true } });
    expect(wordsOf(screen)).toContain('Loads hang on the supply (glued in). No liquid before the air test has passed.');
    await screen.find('button').trigger('click');
    expect(screen.emitted('send')).toEqual([[{ type: 'loads-stay', stay: false }]]);
  });
});
