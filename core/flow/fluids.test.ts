import { describe, expect, it } from 'vitest';
import { waterAt } from './fluids.js';

describe('water', () => {
  it.each([
    [4, 999.97, 1.567],
    [20, 998.2, 1.0016],
    [25, 997.05, 0.89],
    [40, 992.2, 0.653],
    [60, 983.2, 0.466],
  ])('at %d °C agrees with the IAPWS tables', (tempC, density, viscosity) => {
    const water = waterAt(tempC);
    expect(water.densityKgM3).toBeCloseTo(density, 1);
    expect(Math.abs(water.viscosityMPaS / viscosity - 1)).toBeLessThan(0.01);
  });
});
