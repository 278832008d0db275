import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { logBetween, logDensity } from './normal.js';

describe('the normal distribution', () => {
  it.each([
    // published table of Φ
    [-1, 1, 0.6826894921],
    [-1.96, 1.96, 0.9500042097],
    [0, 3, 0.498650102],
    [1, 2, 0.135905122],
    [-2, -1, 0.135905122],
  ])('between %d and %d', (low, high, share) => {
    expect(Math.exp(logBetween(low, high))).toBeCloseTo(share, 6);
  });

  it('keeps its digits far out: ln of the share above 10 is −53.2313', () => {
    expect(logBetween(10, 60)).toBeCloseTo(-53.23128515, 4);
    expect(logBetween(-60, -10)).toBeCloseTo(-53.23128515, 4);
    expect(logBetween(38, 39)).toBeCloseTo(-726.557, 1);
  });

  it('is what its density sums to, and the same mirrored', () => {
    fc.assert(
      fc.property(fc.double({ min: -6, max: 6, noNaN: true }), fc.double({ min: 0.05, max: 3, noNaN: true }), (low, width) => {
        const steps = 400;
        let sum = 0;
        for (let n = 0; n < steps; n += 1) sum += (Math.exp(logDensity(low + ((n + 0.5) * width) / steps)) * width) / steps;
        expect(logBetween(low, low + width)).toBeCloseTo(Math.log(sum), 3);
        expect(logBetween(-low - width, -low)).toBeCloseTo(logBetween(low, low + width), 9);
      }),
    );
  });
});
