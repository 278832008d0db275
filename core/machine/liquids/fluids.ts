import { say } from '../../base/words/say.js';
export interface Fluid {
  readonly densityKgM3: number;
  readonly viscosityMPaS: number;
}

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

export type Glycol = 'ethylene' | 'propylene';

/**
 * What glycol does to water: excess of density per mass fraction, its fall per K, and ln(μ/μ_water) = (k₁w + k₂w²)·
 * e^(−c(T−20)). Fitted to common table values of 30 and 50 % at 20 and 40 °C (ASHRAE/Melinder-type tables).
 */
const GLYCOL: Readonly<Record<Glycol, { density: number; expansion: number; k1: number; k2: number; cooling: number }>> = {
  ethylene: { density: 0.134, expansion: 4.3e-4, k1: 2.436, k2: 0.623, cooling: 0.0058 },
  propylene: { density: 0.086, expansion: 6.5e-4, k1: 2.385, k2: 2.65, cooling: 0.0105 },
};

/** Glycol and water, 0 … 60 % by mass, 0 … 70 °C. Density within about 0.5 %, viscosity within about 8 % of the tables. */
export function glycolAt(glycol: Glycol, massFraction: number, tempC: number): Fluid {
  const { density, expansion, k1, k2, cooling } = GLYCOL[glycol];
  const water = waterAt(tempC);
  const thicker = (k1 * massFraction + k2 * massFraction ** 2) * Math.exp(-cooling * (tempC - 20));
  return {
    densityKgM3: water.densityKgM3 * (1 + density * massFraction - expansion * massFraction * (tempC - 20)),
    viscosityMPaS: water.viscosityMPaS * Math.exp(thicker),
  };
}

/** What a loop holds, as far as flow and heat ask. `massFraction` of glycol in the finished coolant. */
export interface Liquid {
  readonly glycol: Glycol | null;
  readonly massFraction: number;
}

export const WATER: Liquid = { glycol: null, massFraction: 0 };

/** What a coolant product makes of a loop; water where its sheet names no glycol, or nothing was chosen. */
export const liquidOf = (product: { readonly glycol: Glycol | null; readonly glycolFraction: number | null } | null | undefined): Liquid =>
  product?.glycol ? { glycol: product.glycol, massFraction: product.glycolFraction ?? 0 } : WATER;

export const liquidAt = ({ glycol, massFraction }: Liquid, tempC: number): Fluid =>
  glycol === null ? waterAt(tempC) : glycolAt(glycol, massFraction, tempC);

/** J/(kg·K) of water near 30 °C, and the share a mass fraction of 1 would take away, from the same tables (within 2 %). */
const WATER_HEAT_CAPACITY = 4180;
const HEAT_CAPACITY_FALL: Readonly<Record<Glycol, number>> = { ethylene: 0.42, propylene: 0.285 };

export const heatCapacityOf = ({ glycol, massFraction }: Liquid): number =>
  WATER_HEAT_CAPACITY * (glycol === null ? 1 : 1 - HEAT_CAPACITY_FALL[glycol] * massFraction);

/** In words, for what stands beside a computed figure. */
export const liquidWords = ({ glycol, massFraction }: Liquid): string =>
  glycol === null ? 'water' : say('{massFraction} % {glycol} glycol', { massFraction: Math.round(massFraction * 100), glycol });
