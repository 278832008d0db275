import { describe, expect, it } from 'vitest';
import { keptAfterDrains } from './kept.js';
import { twinLeftSdMl } from './ledger.js';

describe('what a loop keeps after its drains', () => {
  it('is the twin’s figure before the first drain, with its error', () => {
    expect(keptAfterDrains(80, [])).toEqual({ volumeMl: 80, sdMl: twinLeftSdMl(80), drains: 0 });
  });

  it('moves to what its own drains left, and is known better with each', () => {
    const once = keptAfterDrains(80, [{ volumeMl: 140, sdMl: 15 }]);
    const often = keptAfterDrains(80, Array.from({ length: 6 }, () => ({ volumeMl: 140, sdMl: 15 }))); // prettier-ignore
    expect(once?.volumeMl).toBeGreaterThan(100);
    expect(once?.volumeMl).toBeLessThan(140);
    expect(often?.volumeMl).toBeGreaterThan(130);
    expect(often?.sdMl).toBeLessThan(once?.sdMl as number);
    expect(often?.drains).toBe(6);
  });

  it('is told by the drains alone where the twin cannot tell, and by nobody where neither can', () => {
    expect(keptAfterDrains(null, [{ volumeMl: 60, sdMl: 10 }])?.volumeMl).toBeCloseTo(60, 9);
    expect(keptAfterDrains(null, [])).toBeNull();
    expect(keptAfterDrains(null, [{ volumeMl: -4, sdMl: 10 }])?.volumeMl).toBe(0);
  });
});
