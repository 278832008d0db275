import { describe, expect, it } from 'vitest';
import { plateWords } from '../../edge/words/verdicts.js';
import { settlingCheck } from '../../workshop/due-dates/due.js';
import { lackWords, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { isSeenBled } from './criteria.js';
import { verdictsOf, type Verdict } from './verdicts.js';

const plates = (run: TestRun): Verdict[] => verdictsOf(run.procedure, run.state);
const plate = (run: TestRun, kind: Verdict['verdict']): Verdict | undefined => plates(run).find(({ verdict }) => verdict === kind);

describe('the plates of a run', () => {
  it('are all earned by a commissioning that was led to its end', () => {
    const run = new TestRun().upTo('sign-off');
    expect(plates(run).map(({ verdict, earned }) => [verdict, earned])).toEqual([
      ['tight', true],
      ['bled', true],
      ['inside', true],
      ['cooler', true],
    ]);
    expect(plates(run).map((each) => plateWords(each).word)).toEqual(['leak-tight', 'bled', 'inside', 'measured']);
    expect(plateWords(plate(run, 'tight') as Verdict).under).toBe('by air, then wet for 10 min');
    expect(plateWords(plate(run, 'cooler') as Verdict).under).toBe('40.0 K above the room');
  });

  it('are not earned by what was passed over, and say so', () => {
    const run = new TestRun(procedureOf({ leak: 'wet-only' })).upTo('wet').say({ type: 'deviation', step: 'wet', reason: 'no time' });
    expect(plate(run, 'tight')).toEqual({ verdict: 'tight', earned: false, because: 'not-tested' });
    run.say({ type: 'deviation', step: 'bleed', reason: 'no time' });
    expect(plateWords(plate(run, 'bled') as Verdict).under).toBe('no cycle was read');
  });

  it('may be closed bled as seen, which earns no plate and brings the look at its level forward', () => {
    const run = new TestRun().upTo('bleed').say({ type: 'seen-bled' });
    expect(lackWords(run.procedure, run.state, 'bleed', run.nowMs)).toEqual([]);
    expect(plate(run, 'bled')).toEqual({ verdict: 'bled', earned: false, cycles: 0, seen: true });
    expect(plateWords(plate(run, 'bled') as Verdict).under).toContain('as seen, no level compared');
    expect(settlingCheck('2026-03-10', true)).toMatchObject({ windowFrom: '2026-03-11', dueOn: '2026-03-13' });
    // drawn down since: new air is in, and nobody has looked
    run.say({ type: 'outflow', way: 'drawn-off', volumeMl: 200, kept: true });
    expect(isSeenBled(run.state)).toBe(false);
  });

  it('lose the first one to a leak that nobody closed', () => {
    const run = new TestRun().upTo('bleed');
    expect(plate(run, 'tight')?.earned).toBe(true);
    run.say({ type: 'leak', at: run.procedure.facts?.joints[0]?.id as string, when: 'after-hours', amount: 'seep', text: '' });
    expect(plate(run, 'tight')).toMatchObject({ earned: false, because: 'leak-open' });
  });
});
