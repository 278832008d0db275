import { describe, expect, it } from 'vitest';
import { glycolAt, waterAt } from './fluids.js';

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

describe('glycol and water', () => {
  it.each([
    ['propylene', 0.3, 20, 1024, 2.6],
    ['ethylene', 0.3, 20, 1038, 2.2],
    ['ethylene', 0.5, 40, 1055, 2.26],
    ['propylene', 0.5, 40, 1028, 3.0],
  ] as const)('%s glycol, %d of the mass at %d °C, agrees with the tables', (glycol, fraction, tempC, density, viscosity) => {
    const mix = glycolAt(glycol, fraction, tempC);
    expect(Math.abs(mix.densityKgM3 / density - 1)).toBeLessThan(0.005);
    expect(Math.abs(mix.viscosityMPaS / viscosity - 1)).toBeLessThan(0.08);
  });

  it('is water without glycol, and thicker with more', () => {
    expect(glycolAt('propylene', 0, 30)).toEqual(waterAt(30));
    expect(glycolAt('propylene', 0.4, 30).viscosityMPaS).toBeGreaterThan(glycolAt('propylene', 0.2, 30).viscosityMPaS);
  });
});
