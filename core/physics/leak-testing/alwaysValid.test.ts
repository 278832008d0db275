import { describe, expect, it } from 'vitest';
import { slopeInterval } from './alwaysValid.js';

describe('an interval that holds however often it is looked at', () => {
  // for a normal likelihood the mixture has a closed form: z² = (1 + τ²/σ²)·(2·ln 20 + ln(1 + σ²/τ²))
  it.each([
    [0.002, 0.0004, 0.001],
    [-0.001, 0.001, 0.001],
    [0.01, 0.00002, 0.001],
    [0, 0.005, 0.001],
  ])('is the closed form for a normal likelihood about %d with sd %d, mixed with sd %d', (mean, tau, sd) => {
    const z = Math.sqrt((1 + (tau / sd) ** 2) * (2 * Math.log(20) + Math.log(1 + (sd / tau) ** 2)));
    const { best, low, high } = slopeInterval((slope) => -0.5 * ((slope - mean) / tau) ** 2, mean + tau, tau, sd);
    expect(best).toBeCloseTo(mean, 6);
    expect((high - mean) / tau).toBeCloseTo(z, 2);
    expect((mean - low) / tau).toBeCloseTo(z, 2);
  });

  it('leaves the side open on which nothing speaks against a slope', () => {
    // everything above zero fits alike
    const { low, high } = slopeInterval((slope) => (slope > 0 ? 0 : -0.5 * (slope / 1e-4) ** 2), 0, 1e-4, 1e-3);
    expect(low).toBeGreaterThan(-1e-3);
    expect(high).toBeGreaterThan(0.1);
  });
});
