import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputProblem } from '../../base/checking/input.js';
import { diluteReadyMix, doseConcentrate } from './dose.js';
import { MOST_RINSES, planRinses } from './rinse.js';

const ml = (max: number) => fc.double({ min: 1, max, noNaN: true });

describe('rinsing', () => {
  it('multiplies the carry-over of each rinse', () => {
    const plan = planRinses(100, 400, 0.01);
    expect(plan.rinses).toBe(3);
    [0.2, 0.04, 0.008].forEach((fraction, index) => expect(plan.fractionAfter[index]).toBeCloseTo(fraction, 12));
  });

  it('needs one rinse where nothing is left, and none where everything may stay', () => {
    expect(planRinses(0, 300, 0.05)).toEqual({ rinses: 1, fractionAfter: [0] });
    expect(planRinses(250, 300, 1)).toEqual({ rinses: 0, fractionAfter: [] });
  });

  it('refuses a plan that nobody would carry out, and says what would help', () => {
    expect(() => planRinses(10_000, 1, 0.5)).toThrow(InputProblem);
    expect(() => planRinses(10_000, 1, 0.5)).toThrow(/drain more first/);
  });

  it('stops at the first rinse that meets the target', () => {
    fc.assert(
      fc.property(ml(1000), ml(2000), fc.double({ min: 0.001, max: 1, noNaN: true }), (left, rinse, target) => {
        fc.pre(Math.log(target) / Math.log(left / (left + rinse)) < MOST_RINSES - 1);
        const { fractionAfter } = planRinses(left, rinse, target);
        expect(fractionAfter.at(-1) ?? 1).toBeLessThanOrEqual(target);
        expect(fractionAfter.at(-2) ?? (fractionAfter.length > 0 ? 1 : 2)).toBeGreaterThan(target);
      }),
    );
  });
});

describe('dosing concentrate', () => {
  it('counts the water that is inside already', () => {
    expect(doseConcentrate(1000, 200, 0.25)).toEqual({
      concentrateMl: 250,
      waterMl: 550,
      pourFraction: 0.3125,
      possible: true,
      drainMoreMl: null,
    });
  });

  it('says how much more must come out when even pure concentrate is too weak', () => {
    const dose = doseConcentrate(1000, 800, 0.3);
    expect(dose.possible).toBe(false);
    expect(dose.drainMoreMl).toBeCloseTo(100, 9);
    expect(doseConcentrate(1000, 800 - (dose.drainMoreMl ?? 0), 0.3).possible).toBe(true);
  });

  it('has an answer for a loop that is full, and for no concentrate at all', () => {
    expect(doseConcentrate(1000, 1000, 0.3)).toMatchObject({ possible: false, pourFraction: null, waterMl: 0 });
    expect(doseConcentrate(1000, 1000, 0)).toMatchObject({ possible: true, pourFraction: 0, concentrateMl: 0 });
  });

  it('reaches the target exactly: concentrate poured over whole volume', () => {
    fc.assert(
      fc.property(
        ml(5000),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (loop, leftShare, target) => {
          const dose = doseConcentrate(loop, loop * leftShare, target);
          fc.pre(dose.possible);
          expect(dose.concentrateMl / loop).toBeCloseTo(target, 9);
          expect(dose.concentrateMl + dose.waterMl + loop * leftShare).toBeCloseTo(loop, 6);
          expect(dose.pourFraction ?? 0).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
});

describe('ready-mix on leftover water', () => {
  it('is diluted by what stayed inside', () => {
    const strength = diluteReadyMix(1000, 250, 0.3, 0.2);
    expect(strength.finalFraction).toBeCloseTo(0.225, 12);
    expect(strength.enough).toBe(true);
    expect(diluteReadyMix(1000, 400, 0.3, 0.2).enough).toBe(false);
  });
});
