import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { watchFill, type FillWatchInput } from './fillWatch.js';

const plan = {
  passiveMl: 260,
  pulses: [
    { runS: 6, refillMl: 140, pouredRunning: false },
    { runS: 5, refillMl: 130, pouredRunning: false },
    { runS: 5, refillMl: 90, pouredRunning: false },
  ],
  totalMl: 620,
  holds: { volumeMl: 640, sdMl: 40 },
  broughtMl: 0,
  levelStays: false,
};
const watch = (pours: number[], more: Partial<FillWatchInput> = {}) => watchFill({ ...plan, pours, ...more });

describe('a fill watched against its plan', () => {
  it('begins with what fills by itself, then pulse by pulse', () => {
    expect(watch([])).toMatchObject({ nextAtMostMl: 260, nextRunS: null, pulsesLeft: 3, mismatch: null });
    expect(watch([260])).toMatchObject({ nextAtMostMl: 140, nextRunS: 6, pulsesLeft: 3 });
    expect(watch([260, 138])).toMatchObject({ nextRunS: 5, pulsesLeft: 2 });
    expect(watch([260, 140, 130, 90])).toMatchObject({ pulsesLeft: 0, nextAtMostMl: 0, nextRunS: null });
  });

  it('goes by what is inside, not by how often somebody poured', () => {
    expect(watch([130, 130])).toMatchObject(watchKeys(watch([260])));
    expect(watch([260, 70, 70]).pulsesLeft).toBe(watch([260, 140]).pulsesLeft);
  });
  const watchKeys = ({ nextAtMostMl, nextRunS, pulsesLeft }: ReturnType<typeof watch>) => ({ nextAtMostMl, nextRunS, pulsesLeft });

  it('says what must be poured in one go while the pump runs, because all would fall back between', () => {
    const crest = plan.pulses.map((pulse, index) => ({ ...pulse, pouredRunning: index === 0 || index === 1 }));
    expect(watch([260], { pulses: crest }).whileRunningMl).toBe(270);
    expect(watch([260, 140, 130], { pulses: crest }).whileRunningMl).toBeNull();
    expect(watch([260]).whileRunningMl).toBeNull();
  });

  it('counts what a part brought with it', () => {
    expect(watch([], { broughtMl: 100 }).nextAtMostMl).toBe(160);
  });

  it('names what no uncertainty explains, with what to look for', () => {
    expect(watch([260, 140, 130, 190]).mismatch).toBeNull();
    const more = watch([260, 140, 130, 90, 260]).mismatch;
    expect(more?.ml).toBe(240);
    expect(more?.words).toMatch(/^240 mL more than the loop can hold: look for a leak/);
    expect(watch([260, 140]).mismatch).toBeNull();
    expect(watch([260, 140], { levelStays: true }).mismatch?.words).toMatch(/^220 mL less than expected.*air is trapped/);
    expect(watch([260, 140, 130, 60], { levelStays: true }).mismatch).toBeNull();
  });

  it('never asks for more than fits, whatever was poured', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 1, max: 400, noNaN: true }), { maxLength: 12 }), (pours) => {
        const { nextAtMostMl, pouredMl, pulsesLeft } = watch(pours);
        expect(nextAtMostMl).toBeGreaterThanOrEqual(0);
        expect(nextAtMostMl).toBeLessThanOrEqual(Math.max(0, 640 + 80 - pouredMl) + 1e-9);
        expect(pulsesLeft).toBeLessThanOrEqual(3);
      }),
    );
  });
});
