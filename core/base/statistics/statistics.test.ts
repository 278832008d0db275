import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random/random.js';
import { chiSquareAbove } from './chiSquare.js';
import { kaplanMeier, type Life } from './lives.js';
import { logRank } from './logRank.js';
import { theilSen, type DayValue } from './theilSen.js';
import { ageAtRisk, fitWeibull } from './weibull.js';

const lives = (ended: readonly number[], still: readonly number[] = [], entryMonths = 0): Life[] => [
  ...ended.map((months) => ({ months, event: true, entryMonths })),
  ...still.map((months) => ({ months, event: false, entryMonths })),
];
/** Remission of leukaemia in weeks, drug and placebo: Freireich et al. 1963, the worked example of every book on the subject. */
const DRUG = lives([6, 6, 6, 7, 10, 13, 16, 22, 23], [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35]);
const PLACEBO = lives([1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23]);

describe('chi-square', () => {
  it.each([
    [3.841459, 1, 0.05],
    [5.991465, 2, 0.05],
    [6.634897, 1, 0.01],
    [11.344867, 3, 0.01],
    [18.307038, 10, 0.05],
    [0, 4, 1],
  ])('above %d with %d degrees of freedom lies the share of the tables', (chi2, df, share) => {
    expect(chiSquareAbove(chi2, df)).toBeCloseTo(share, 6);
  });

  it('with two degrees of freedom is an exponential', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 200, noNaN: true }), (chi2) => {
        expect(chiSquareAbove(chi2, 2)).toBeCloseTo(Math.exp(-chi2 / 2), 9);
      }),
    );
  });
});

describe('the share that lasts', () => {
  it('is that of the published example', () => {
    const steps = kaplanMeier(DRUG);
    expect(steps.map(({ months, atRisk, events }) => [months, atRisk, events])).toEqual([
      [6, 21, 3], [7, 17, 1], [10, 15, 1], [13, 12, 1], [16, 11, 1], [22, 7, 1], [23, 6, 1],
    ]); // prettier-ignore
    const published = [0.857, 0.807, 0.753, 0.69, 0.627, 0.538, 0.448];
    steps.forEach(({ survival }, index) => expect(survival).toBeCloseTo(published[index] as number, 3));
  });

  it('counts a life at risk from its entry on, not from its birth', () => {
    const steps = kaplanMeier([...lives([5]), ...lives([9], [], 6)]);
    expect(steps.map(({ atRisk }) => atRisk)).toEqual([1, 1]);
  });
});

describe('groups against each other', () => {
  it('are as unlike as the published example says', () => {
    const { chi2, df, p, groups } = logRank([
      { name: 'drug', lives: DRUG },
      { name: 'placebo', lives: PLACEBO },
    ]);
    expect(chi2).toBeCloseTo(16.79, 2);
    expect(df).toBe(1);
    expect(p).toBeCloseTo(4.17e-5, 6);
    expect(groups.map(({ observed, expected }) => [observed, Number(expected.toFixed(2))])).toEqual([[9, 19.25], [21, 10.75]]); // prettier-ignore
  });

  it('that never fail together, or not at all, decide nothing', () => {
    expect(logRank([{ name: 'a', lives: lives([], [3, 4]) }, { name: 'b', lives: lives([], [9]) }])).toMatchObject({ chi2: 0, df: 0, p: 1 }); // prettier-ignore
    const apart = logRank([
      { name: 'early', lives: lives([1, 2, 3]) },
      { name: 'early too', lives: lives([1.5, 2.5]) },
      { name: 'late', lives: lives([11, 12], [], 10) },
      { name: 'late too', lives: lives([13, 14], [], 10) },
    ]);
    expect(apart.df).toBe(2);
    expect(apart.p).toBeGreaterThan(0.05);
  });

  it('expect together what was observed together', () => {
    const group = fc.array(fc.record({ months: fc.integer({ min: 1, max: 30 }), event: fc.boolean(), entryMonths: fc.constant(0) }), { minLength: 1, maxLength: 15 }); // prettier-ignore
    fc.assert(
      fc.property(fc.array(group, { minLength: 2, maxLength: 5 }), (all) => {
        const { groups, p, chi2 } = logRank(all.map((own, index) => ({ name: String(index), lives: own })));
        const sum = (key: 'observed' | 'expected'): number => groups.reduce((total, each) => total + each[key], 0);
        expect(sum('expected')).toBeCloseTo(sum('observed'), 9);
        expect(chi2).toBeGreaterThanOrEqual(-1e-9);
        expect(p).toBeGreaterThanOrEqual(0);
        expect(p).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('Weibull', () => {
  it('is found again from lives of which some have not ended', () => {
    const random = seededRandom(7);
    const drawn = Array.from({ length: 3000 }, (): Life => {
      const months = 20 * (-Math.log(1 - random.next())) ** (1 / 2.5);
      const watched = 5 + 25 * random.next();
      return { months: Math.min(months, watched), event: months <= watched, entryMonths: 0 };
    });
    const found = fitWeibull(drawn);
    expect(found?.shape).toBeCloseTo(2.5, 1);
    expect((found?.scale ?? 0) / 20).toBeCloseTo(1, 1);
  });

  it('does not take lives for long because the short ones were never seen', () => {
    const random = seededRandom(9);
    const drawn: Life[] = [];
    while (drawn.length < 3000) {
      const months = 20 * (-Math.log(1 - random.next())) ** (1 / 2.5);
      const entryMonths = 24 * random.next();
      if (months > entryMonths) drawn.push({ months, event: true, entryMonths });
    }
    const found = fitWeibull(drawn);
    expect((found?.scale ?? 0) / 20).toBeCloseTo(1, 1);
    expect(fitWeibull(drawn.map((life) => ({ ...life, entryMonths: 0 })))?.scale).toBeGreaterThan(22);
  });

  it('with its shape at one is the exponential: failures over time at risk', () => {
    const own = [...lives([1, 4, 9, 16, 30]), ...lives([], [12, 25])];
    const fitted = fitWeibull(own);
    // the exponential maximum lies on the ridge of the same likelihood
    const likelihood = (shape: number, scale: number): number =>
      own.reduce((sum, { months, event }) => sum - (months / scale) ** shape + (event ? Math.log(shape / scale) + (shape - 1) * Math.log(months / scale) : 0), 0); // prettier-ignore
    const best = likelihood(fitted?.shape ?? 0, fitted?.scale ?? 0);
    expect(best).toBeGreaterThanOrEqual(likelihood(1, 97 / 5));
    for (const by of [0.98, 1.02]) {
      expect(likelihood((fitted?.shape ?? 0) * by, fitted?.scale ?? 0)).toBeLessThan(best);
      expect(likelihood(fitted?.shape ?? 0, (fitted?.scale ?? 0) * by)).toBeLessThan(best);
    }
  });

  it('has no finite maximum without a failure, or with failures at the oldest age alone', () => {
    expect(fitWeibull(lives([], [4, 9]))).toBeNull();
    expect(fitWeibull(lives([12, 12, 12]))).toBeNull();
    expect(fitWeibull(lives([12, 12], [3, 7]))).toBeNull();
    expect(fitWeibull(lives([12, 12], [3, 13]))).not.toBeNull();
  });

  it('holds the true age in nineteen of twenty intervals', () => {
    const random = seededRandom(21);
    const trueMonths = 20 * (-Math.log(0.95)) ** (1 / 2.5);
    let held = 0;
    const TRIES = 200;
    for (let n = 0; n < TRIES; n += 1) {
      const own = Array.from({ length: 60 }, (): Life => ({
        months: 20 * (-Math.log(1 - random.next())) ** (1 / 2.5),
        event: true,
        entryMonths: 0,
      }));
      const weibull = fitWeibull(own);
      const age = weibull && ageAtRisk(own, weibull, 0.05);
      if (age && age.lowMonths <= trueMonths && trueMonths <= age.highMonths) held += 1;
    }
    expect(held / TRIES).toBeGreaterThan(0.91);
    expect(held / TRIES).toBeLessThan(0.98);
  });
});

describe('a robust line', () => {
  const at = (values: readonly number[], step = 100): DayValue[] => values.map((value, index) => ({ day: index * step, value }));

  it('goes through a straight line, whatever one reading says', () => {
    const line = at([1, 2, 3, 4, 5, 6, 7, 8, 9]);
    expect(theilSen(line, 12)).toMatchObject({ slope: 0.01, crossesDay: expect.closeTo(1100, 9) as number });
    const wrong = line.map((point, index) => (index === 4 ? { ...point, value: 90 } : point));
    expect(theilSen(wrong, null)?.slope).toBeCloseTo(0.01, 9);
  });

  it('tells its interval from five readings on, of five the extremes', () => {
    expect(theilSen(at([1, 3, 2, 5]), 9)).toMatchObject({ low: null, high: null, crossesLowDay: null });
    const five = theilSen(at([1, 3, 2, 5, 4], 1), null);
    expect([five?.low, five?.high]).toEqual([-1, 3]);
  });

  it('never meets a limit that it moves away from, and met one that it has passed', () => {
    expect(theilSen(at([9, 8, 7, 6, 5]), 10)?.crossesDay).toBeNull();
    expect(theilSen(at([1, 2, 3, 4, 5]), 3.5)?.crossesDay).toBeCloseTo(250, 9);
    expect(theilSen(at([5, 4, 3, 2, 1]), 2.5)?.crossesDay).toBeCloseTo(250, 9);
    expect(theilSen(at([4, 4, 4, 4]), 5)?.crossesDay).toBeNull();
  });

  it('leaves pairs of one day out, and has nothing to say of a single day', () => {
    const twice = [...at([1, 2, 3, 4, 5]), { day: 400, value: 5 }];
    expect(theilSen(twice, null)?.slope).toBeCloseTo(0.01, 9);
    expect(theilSen([{ day: 3, value: 1 }, { day: 3, value: 2 }], 5)).toBeNull(); // prettier-ignore
  });

  it('moves with the readings: shifted, turned and stretched', () => {
    const points = fc.uniqueArray(fc.record({ day: fc.integer({ min: 0, max: 2000 }), value: fc.double({ min: -5, max: 5, noNaN: true }) }), { minLength: 4, maxLength: 20, selector: ({ day }) => day }); // prettier-ignore
    fc.assert(
      fc.property(points, fc.double({ min: -3, max: 3, noNaN: true }), (own, by) => {
        const slope = theilSen(own, null)?.slope ?? NaN;
        expect(theilSen(own.map(({ day, value }) => ({ day, value: value + by * day })), null)?.slope).toBeCloseTo(slope + by, 6); // prettier-ignore
        expect(theilSen(own.map(({ day, value }) => ({ day, value: -value })), null)?.slope).toBeCloseTo(-slope, 9); // prettier-ignore
      }),
    );
  });
});
