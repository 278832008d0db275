import { describe, expect, it } from 'vitest';
import { expansionMl, levelAtReferenceMm } from './referenceLevel.js';

describe('the level at a reference temperature', () => {
  it('takes off what warm water swells: 700 mL from 25 to 45 °C by 4.8 mL', () => {
    // densities 997.05 and 990.21 kg/m³
    expect(expansionMl({ coolantC: 45, volumeMl: 700, glycolFraction: 0 })).toBeCloseTo(700 * (997.05 / 990.21 - 1), 1);
    expect(levelAtReferenceMm({ levelMm: 120, coolantC: 45, volumeMl: 700, areaMm2: 2500, glycolFraction: 0 })).toBeCloseTo(118.1, 1);
  });

  it('leaves a reading at the reference as it is, and adds for a cold one', () => {
    const reading = { levelMm: 120, volumeMl: 700, areaMm2: 2500, glycolFraction: 0.3 };
    expect(levelAtReferenceMm({ ...reading, coolantC: 25 })).toBe(120);
    expect(levelAtReferenceMm({ ...reading, coolantC: 10 })).toBeGreaterThan(120);
  });

  it('swells more with glycol in it', () => {
    const at = (glycolFraction: number): number => expansionMl({ coolantC: 40, volumeMl: 700, glycolFraction });
    expect(at(0.3)).toBeGreaterThan(at(0));
  });
});
