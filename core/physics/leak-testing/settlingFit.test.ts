import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitSettling } from './settlingFit.js';

const times = Array.from({ length: 31 }, (_, minute) => minute * 60);
const model = (p: number, a: number, tau: number, s: number): number[] => times.map((t) => p + a * Math.exp(-t / tau) - s * t);

/** Seeded normal noise. */
function noise(seed: number): () => number {
  let state = seed >>> 0;
  const next = (): number => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return (state + 1) / 4_294_967_297;
  };
  return () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
}

describe('settling and leak fitted together', () => {
  it('finds what made clean readings', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: 60, max: 700, noNaN: true }),
        fc.double({ min: 0, max: 0.01, noNaN: true }),
        (amplitude, tau, leak) => {
          const fit = fitSettling(times, model(150, amplitude, tau, leak), 1e-6);
          expect(fit?.outcome).toBe('settling');
          expect(fit?.slope).toBeCloseTo(-leak, 6);
          expect(fit?.amplitude).toBeCloseTo(amplitude, 2);
          expect((fit?.tau ?? 0) / tau).toBeCloseTo(1, 2);
          expect(fit?.intercept).toBeCloseTo(150, 2);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('calls a straight fall straight, and a rising bend no settling', () => {
    expect(fitSettling(times, model(150, 0, 100, 0.002), 0.05)).toMatchObject({ outcome: 'straight', amplitude: 0 });
    expect(fitSettling(times, model(150, -2, 200, 0), 0.05)?.outcome).toBe('straight');
  });

  it('gives the textbook standard error where it is straight', () => {
    const fit = fitSettling(times, model(150, 0, 100, 0.002), 0.05);
    const mean = 900;
    const sxx = times.reduce((sum, t) => sum + (t - mean) ** 2, 0);
    expect(fit?.slopeSe).toBeCloseTo(0.05 / Math.sqrt(sxx), 9);
  });

  it('states a standard error that its own errors keep to', () => {
    const z = Array.from({ length: 400 }, (_, seed) => {
      const random = noise(seed + 1);
      const fit = fitSettling(
        times,
        model(150, 2, 200, 0.0005).map((p) => p + 0.05 * random()),
        0.05,
      );
      return ((fit?.slope ?? 0) + 0.0005) / (fit?.slopeSe ?? 1);
    });
    expect(z.filter((each) => Math.abs(each) > 1.96).length / z.length).toBeLessThan(0.08);
    expect(Math.abs(z.reduce((sum, each) => sum + each, 0) / z.length)).toBeLessThan(0.3);
  });

  it('knows less when the settling is slow', () => {
    const se = (tau: number): number => fitSettling(times, model(150, 3, tau, 0.001), 0.05)?.slopeSe ?? 0;
    expect(se(900)).toBeGreaterThan(3 * se(120));
  });
});
