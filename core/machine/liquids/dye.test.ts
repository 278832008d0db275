import { describe, expect, it } from 'vitest';
import { COOLANT, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { dropsFor, dyesTogether, dyeWords } from './dye.js';

describe('dye', () => {
  it('is dosed for the whole loop', () => {
    expect(dropsFor(850, 12)).toBe(10);
    expect(dropsFor(20, 12)).toBe(1);
  });

  it('is one line a bottle, with all its drops', () => {
    const dyes = [{ name: 'Reed green', drops: 6 }, { name: 'Plum', drops: 2 }, { name: 'Reed green', drops: 3 }]; // prettier-ignore
    expect(dyesTogether(dyes)).toEqual([{ name: 'Reed green', drops: 9 }, { name: 'Plum', drops: 2 }]); // prettier-ignore
    expect(dyeWords(dyes)).toBe('9 drops of Reed green, 2 drops of Plum');
  });

  it('goes in last: never into a loop that holds nothing', () => {
    const run = new TestRun(procedureOf({ leak: 'wet-only' })).upTo('fill');
    const dye = { type: 'dyed', name: 'Reed green', drops: 6 } as const;
    expect(run.try(dye)?.message).toContain('dye goes in last');
    run.say(COOLANT).say({ type: 'pour', volumeMl: 150 });
    expect(run.try(dye)).toBeNull();
    expect(run.state.dyes).toMatchObject([{ name: 'Reed green', drops: 6 }]);
  });
});
