import type { Fluid } from './friction.js';

/**
 * Liquid water at atmospheric pressure, 0 … 100 °C. Density: Kell (1975), within 0.01 kg/m³ of the IAPWS tables;
 * viscosity: IAPWS (2008), the simplified equation for 0.1 MPa, within 1 %.
 */
export function waterAt(tempC: number): Fluid {
  const t = tempC;
  const densityKgM3 =
    (999.83952 + 16.945176 * t - 7.9870401e-3 * t ** 2 - 46.170461e-6 * t ** 3 + 105.56302e-9 * t ** 4 - 280.54253e-12 * t ** 5) /
    (1 + 16.87985e-3 * t);
  const reduced = (t + 273.15) / 300;
  const microPaS = 280.68 * reduced ** -1.9 + 511.45 * reduced ** -7.7 + 61.131 * reduced ** -19.6 + 0.45903 * reduced ** -40;
  return { densityKgM3, viscosityMPaS: microPaS / 1000 };
}
