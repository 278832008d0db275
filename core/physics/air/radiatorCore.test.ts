import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LoopComponent } from '../../machine/loop-file/loopFile.js';
import { coreSectionMm2, coreVelocity, passesOf, RADIATOR_CORE, staysInCore } from './radiatorCore.js';

/** 120 × 30 × 360 mm with both ports at one end. */
const radiator: LoopComponent = {
  id: 'rad',
  kind: 'radiator',
  volume_ml: 180,
  ports: { in: [10, 10, 30], out: [350, 10, 90] },
  flow: ['in', 'out'],
  box: { min: [0, 0, 0], max: [360, 30, 120] },
};
const oneEnd = { ...radiator, ports: { in: [10, 10, 30] as const, out: [10, 10, 90] as const } };

describe('a radiator’s core', () => {
  it('is passed once from end to end, and twice where both ports stand at one end', () => {
    expect(passesOf(radiator)).toBe(1);
    expect(passesOf(oneEnd)).toBe(2);
    // of two equal edges the later axis is the longest: here z, on which the ports lie in different halves
    const square: LoopComponent = {
      ...oneEnd,
      box: { min: [0, 0, 0], max: [360, 30, 360] },
      ports: { in: [10, 10, 30], out: [10, 10, 300] },
    };
    expect(passesOf(square)).toBe(1);
  });

  it('has 277 mm² at 120 × 30 mm, half of it for two passes: 0.2 m/s need 200 L/h, or 100', () => {
    expect(coreSectionMm2(radiator)).toBeCloseTo(0.077 * 120 * 30, 9);
    expect(coreSectionMm2(oneEnd)).toBeCloseTo((0.077 * 120 * 30) / 2, 9);
    // 277.2 mm² × 200 mm/s = 55 440 mm³/s = 199.6 L/h
    expect(coreVelocity(radiator, 199.584)).toBeCloseTo(0.2, 9);
    expect(coreVelocity(oneEnd, 99.792)).toBeCloseTo(0.2, 9);
  });

  it('keeps all its gas when slow, a tenth of its volume when fast, and between them a share', () => {
    expect(staysInCore(radiator, 100, 99.792)).toBeCloseTo(100, 9);
    expect(staysInCore(radiator, 100, 199.584)).toBeCloseTo(18, 9);
    expect(staysInCore(radiator, 100, 149.688)).toBeCloseTo(59, 9);
    // never more than there is
    expect(staysInCore(radiator, 5, 400)).toBe(5);
  });

  it('never keeps more at a faster flow', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 400, noNaN: true }),
        fc.double({ min: 0, max: 400, noNaN: true }),
        fc.double({ min: 0, max: 180, noNaN: true }),
        (a, b, gas) => {
          const [slow, fast] = [Math.min(a, b), Math.max(a, b)];
          expect(staysInCore(radiator, gas, fast)).toBeLessThanOrEqual(staysInCore(radiator, gas, slow) + 1e-9);
          expect(staysInCore(radiator, gas, fast)).toBeGreaterThanOrEqual(Math.min(gas, RADIATOR_CORE.staysShare * 180) - 1e-9);
        },
      ),
    );
  });
});
