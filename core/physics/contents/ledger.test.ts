import { jugSdMl } from '../measuring/errors.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planRinses } from '../../machine/shop-sums/rinse.js';
import { judgeLedger, keepTally, LEDGER, twinLeftSdMl, netMl, ownJugMl, type Flow } from './ledger.js';

let n = 0;
const flow = (way: Flow['way'], volumeMl: number, liquid: Flow['liquid'] = 'old'): Flow => ({
  eventId: String((n += 1)),
  at: '2026-03-10T09:00:00Z',
  way,
  liquid,
  volumeMl,
});
const START = { volumeMl: 800, sdMl: 20 };

/** What the twin alone says of what stays. */
const twin = (volumeMl: number): { volumeMl: number; sdMl: number } => ({ volumeMl, sdMl: twinLeftSdMl(volumeMl) });

describe('the book of a loop', () => {
  it('is start plus in minus out minus lost', () => {
    const flows = [flow('out', 650), flow('lost', 20), flow('in', 300, 'water')];
    expect(keepTally(START, flows)).toMatchObject({ outMl: 650, lostMl: 20, inMl: 300, emptied: false });
    expect(START.volumeMl + netMl(flows)).toBe(430);
  });

  it('dilutes the old liquid as the closed form for rinses says', () => {
    // 800 mL drained to 100; then rinses of 500 mL in and out
    const leftMl = 100;
    const rinseMl = 500;
    const plan = planRinses(leftMl, rinseMl, 0.001);
    const flows = [flow('out', 700)];
    plan.fractionAfter.forEach((fraction) => {
      flows.push(flow('in', rinseMl, 'water'), flow('out', rinseMl));
      expect(keepTally(START, flows).shares.old).toBeCloseTo(fraction, 12);
    });
  });

  it('keeps shares that add up to one, and never a share below nothing', () => {
    const flows = fc.array(
      fc.record({
        way: fc.constantFrom<Flow['way']>('in', 'out', 'lost'),
        liquid: fc.constantFrom<Flow['liquid']>('water', 'cleaner', 'coolant'),
        volumeMl: fc.double({ min: 1, max: 900, noNaN: true }),
      }),
      { maxLength: 20 },
    );
    fc.assert(
      fc.property(flows, (some) => {
        const { shares } = keepTally(
          START,
          some.map((each) => flow(each.way, each.volumeMl, each.liquid)),
        );
        const parts = Object.values(shares);
        expect(Math.min(...parts)).toBeGreaterThanOrEqual(0);
        const sum = parts.reduce((so, share) => so + share, 0);
        expect(sum === 0 || Math.abs(sum - 1) < 1e-9).toBe(true);
      }),
    );
  });

  it('knows only what went in since, once the loop was taken apart, and tells what nobody saw leave', () => {
    const ledger = keepTally(START, [flow('out', 700), flow('emptied', 0), flow('in', 790, 'coolant')]);
    expect(ledger).toMatchObject({ emptied: true, unseenMl: 100 });
    expect(ledger.shares).toMatchObject({ old: 0, coolant: 1 });
  });

  it('says when nobody can tell, and still adds up what was measured', () => {
    expect(keepTally(null, [flow('out', 500)]).outMl).toBe(500);
    expect(judgeLedger({ insideMl: null, sdMl: 0 }, null).kind).toBe('cannot-tell');
  });
});

describe('this job’s own jug', () => {
  const flow = (way: Flow['way'], liquid: Flow['liquid'], volumeMl: number): Flow => ({
    eventId: `${way}${liquid}`,
    at: '',
    way,
    liquid,
    volumeMl,
  });
  it('holds what came out less what was put back; what comes behind a rinse is no coolant', () => {
    expect(ownJugMl([flow('out', 'old', 500), flow('out', 'old', 60)])).toBe(560);
    expect(ownJugMl([flow('out', 'old', 560), flow('in', 'coolant', 300), flow('in', 'old', 200)])).toBe(360);
    expect(ownJugMl([flow('out', 'old', 560), flow('in', 'water', 500), flow('out', 'old', 490)])).toBe(560);
    expect(ownJugMl([flow('in', 'old', 10)])).toBe(0);
  });

  it('keeps its liquid old when it goes back in', () => {
    const { shares } = keepTally({ volumeMl: 1000, sdMl: 10 }, [
      flow('out', 'old', 900),
      flow('in', 'old', 560),
      flow('in', 'coolant', 340),
    ]);
    expect(shares.coolant).toBeCloseTo(0.34, 6);
    expect(shares.old).toBeCloseTo(0.66, 6);
  });
});

describe('whether the book balances', () => {
  const book = (insideMl: number, sdMl = Math.hypot(START.sdMl, jugSdMl(500))) => ({ insideMl, sdMl });

  it('lets the book be off by two standard deviations of what is inside', () => {
    const { slackMl } = judgeLedger(book(300), null);
    expect(slackMl).toBeCloseTo(2 * Math.hypot(START.sdMl, jugSdMl(500)), 9);
    // more came out than was in, but no more than a jug is off
    expect(judgeLedger(book(-40), null).kind).toBe('inside');
    expect(judgeLedger(book(-70), null).kind).toBe('more-out-than-in');
  });

  it('lets the twin be off by a share of what it keeps inside, and by a film at least', () => {
    const left = (insideMl: number, predictedMl: number): string => judgeLedger({ insideMl, sdMl: 0 }, twin(predictedMl)).kind;
    const slack = (ml: number): number => 2 * Math.hypot(LEDGER.leftSdMl, LEDGER.leftSdShare * ml);
    for (const ml of [20, 400, 900]) {
      expect(left(ml + 0.98 * slack(ml), ml)).toBe('balances');
      expect(left(ml + 1.02 * slack(ml), ml)).toBe('more-left-than-predicted');
    }
    expect(left(400 - 1.02 * slack(400), 400)).toBe('less-left-than-predicted');
  });

  it('refuses to believe that more came out than was in', () => {
    const verdict = judgeLedger(book(-150), null);
    expect(verdict.kind).toBe('more-out-than-in');
    expect(verdict.ml).toBeCloseTo(150, 9);
  });

  it('says what is missing against what the twin keeps inside', () => {
    expect(judgeLedger(book(110), twin(110)).kind).toBe('balances');
    const short = judgeLedger(book(400), twin(110));
    expect(short.kind).toBe('more-left-than-predicted');
    expect(short.ml).toBeCloseTo(290, 9);
    expect(judgeLedger(book(10), twin(200)).kind).toBe('less-left-than-predicted');
  });
});
