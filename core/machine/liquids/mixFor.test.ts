import { describe, expect, it } from 'vitest';
import { freezesAtC, volumeFraction } from './freezing.js';
import { mixFor } from './mixFor.js';
import { WATER } from './fluids.js';

const glycol = { glycol: 'ethylene', massFraction: 0.27 } as const;
const base = { pourMl: 200, wholeMl: 800, waterMl: 0, coolantMl: 0, targetFraction: 0.25, liquid: glycol };

describe('a pour of concentrate', () => {
  it('is the sheet’s share of it in a dry loop', () => {
    expect(mixFor(base)).toMatchObject({ possible: true, concentrateMl: 50, waterMl: 150, pourFraction: 0.25, finalFraction: 0.25 });
  });

  it('is stronger by the water that is inside: C₁V₁ = C₂V₂', () => {
    const mix = mixFor({ ...base, waterMl: 300 });
    // 0.25 · 800 mL of concentrate in the 500 mL that still go in
    expect(mix).toMatchObject({ possible: true, pourFraction: 0.4, concentrateMl: 80 });
  });

  it('leaves old coolant of its own strength out of the sum', () => {
    expect(mixFor({ ...base, coolantMl: 400 })).toMatchObject({ pourFraction: 0.25 });
    // 0.25 · 500 mL in the 200 mL that still go in beside 300 mL of water and 300 mL of coolant
    expect(mixFor({ ...base, waterMl: 300, coolantMl: 300 })).toMatchObject({ pourFraction: 0.625 });
  });

  it('says how much must come out where even pure concentrate stays too weak', () => {
    const mix = mixFor({ ...base, waterMl: 700 });
    expect(mix.possible).toBe(false);
    const more = mix.possible ? 0 : mix.drainMoreMl;
    expect(mixFor({ ...base, waterMl: 700 - more - 1e-6 }).possible).toBe(true);
  });
});

describe('freezing', () => {
  it('goes by the table at its points, and between them in straight lines', () => {
    const at = (percent: number, glycolKind: 'ethylene' | 'propylene'): number => {
      const density = glycolKind === 'ethylene' ? 1.113 : 1.036;
      const mass = (percent / 100) * density;
      return freezesAtC({ glycol: glycolKind, massFraction: mass / (mass + (1 - percent / 100) * 0.998) });
    };
    expect([10, 20, 30, 40, 50].map((percent) => at(percent, 'ethylene'))).toEqual([-3.4, -7.9, -13.7, -23.5, -36.8].map((c) => expect.closeTo(c, 6))); // prettier-ignore
    expect([10, 20, 30, 40, 50].map((percent) => at(percent, 'propylene'))).toEqual([-3, -8, -14, -22, -34].map((c) => expect.closeTo(c, 6))); // prettier-ignore
    expect(at(25, 'propylene')).toBeCloseTo(-11, 6);
    expect(freezesAtC(WATER)).toBe(0);
  });

  it('takes a share by mass as one by volume', () => {
    expect(volumeFraction('ethylene', 0.5)).toBeCloseTo(0.998 / (0.998 + 1.113), 6);
    expect(volumeFraction('propylene', 0)).toBe(0);
  });
});
