import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/random/random.js';
import { saturate, type WarmingSample } from './saturation.js';

const curve = (finalC: number, startC: number, tauS: number, minutes: number, everyS = 60, noise = (): number => 0): WarmingSample[] =>
  Array.from({ length: Math.floor((minutes * 60) / everyS) + 1 }, (_, index) => ({
    tS: index * everyS,
    tempC: finalC - (finalC - startC) * Math.exp((-index * everyS) / tauS) + noise(),
  }));

describe('where a warming ends', () => {
  it('is found again exactly, warming or cooling, whenever the clock began', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 90, noNaN: true }),
        fc.double({ min: 3, max: 40, noNaN: true }),
        fc.boolean(),
        fc.double({ min: 120, max: 1500, noNaN: true }),
        fc.integer({ min: 0, max: 1_700_000_000 }),
        (finalC, by, warms, tauS, beganS) => {
          const found = saturate(curve(finalC, warms ? finalC - by : finalC + by, tauS, 20).map(({ tS, tempC }) => ({ tS: tS + beganS, tempC }))); // prettier-ignore
          expect(found?.finalC).toBeCloseTo(finalC, 2);
          expect((found?.tauS ?? 0) / tauS).toBeCloseTo(1, 2);
          expect(found?.reachedFraction).toBeCloseTo(1 - Math.exp(-1200 / tauS), 3);
        },
      ),
    );
  });

  it('says how long until half a kelvin is left, and nothing more to wait for after that', () => {
    const found = saturate(curve(60, 40, 600, 15));
    const left = 20 * Math.exp(-900 / 600);
    expect(found?.minutesToHalfKelvin).toBeCloseTo((600 * Math.log(left / 0.5)) / 60, 3);
    expect(saturate(curve(60, 40, 300, 45))?.minutesToHalfKelvin).toBe(0);
  });

  it('of a flat trace is where it stands', () => {
    expect(saturate([60, 60, 60, 60].map((tempC, k) => ({ tS: k * 60, tempC })))).toEqual({ finalC: 60, finalSdC: 0, tauS: null, reachedFraction: 1, minutesToHalfKelvin: 0 }); // prettier-ignore
    const random = seededRandom(3);
    let flat = 0;
    for (let n = 0; n < 50; n += 1) if (saturate(curve(60, 60, 600, 20, 60, () => 0.05 * random.normal()))?.tauS === null) flat += 1;
    expect(flat).toBeGreaterThan(40);
  });

  it('lies within two of its standard deviations about as often as it should', () => {
    const random = seededRandom(5);
    let within = 0;
    const TRIES = 200;
    for (let n = 0; n < TRIES; n += 1) {
      const found = saturate(curve(62, 30, 500, 14, 30, () => 0.3 * random.normal()));
      if (found && Math.abs(found.finalC - 62) <= 2 * found.finalSdC) within += 1;
    }
    expect(within / TRIES).toBeGreaterThan(0.88);
  });

  it('is the less sure the shorter the test', () => {
    const random = seededRandom(8);
    const [long, short] = [40, 8].map((minutes) => saturate(curve(62, 30, 600, minutes, 30, () => 0.2 * random.normal()))?.finalSdC ?? 0);
    expect(short).toBeGreaterThan(5 * (long as number));
  });

  it('cannot be told from three samples, or from one moment', () => {
    expect(saturate(curve(60, 40, 600, 2))).toBeNull();
    expect(saturate([1, 2, 3, 4].map((tempC) => ({ tS: 60, tempC })))).toBeNull();
  });
});
