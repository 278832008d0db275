import type { Fluid } from '../../machine/liquids/fluids.js';

/**
 * Darcy–Weisbach friction of one tube, prepared for repeated use. Flow q in L/min (≥ 0), loss in kPa.
 * f = 64/Re below Re 2 000, Swamee & Jain (1976) above 4 000, Dunlop's (1991) cubic between: the law EPANET 2.2 uses.
 */
export interface TubeFriction {
  /** Re = reynoldsPerLpm · q */
  readonly reynoldsPerLpm: number;
  /** loss = lossPerFactor · f · q² */
  readonly lossPerFactor: number;
  /** loss = laminarSlope · q below Re 2 000 */
  readonly laminarSlope: number;
  /** relative roughness ÷ 3.7 */
  readonly roughness: number;
  /** Dunlop: f = x1 + r(x2 + r(x3 + r·x4)), r = Re/2 000 */
  readonly x1: number;
  readonly x2: number;
  readonly x3: number;
  readonly x4: number;
}

export const LAMINAR_BELOW_RE = 2000;
export const TURBULENT_ABOVE_RE = 4000;

/** m³/s in one L/min */
const M3S_PER_LPM = 1e-3 / 60;
const PER_LN10 = -2 / Math.LN10;

/** mm, mm, mm; result for the fluid given. */
export function prepareFriction(boreMm: number, lengthMm: number, roughnessMm: number, fluid: Fluid): TubeFriction {
  const bore = boreMm / 1000;
  const area = (Math.PI / 4) * bore ** 2;
  const reynoldsPerLpm = (fluid.densityKgM3 * M3S_PER_LPM * bore) / (area * fluid.viscosityMPaS * 1e-3);
  const lossPerFactor = ((lengthMm / 1000 / bore) * fluid.densityKgM3 * (M3S_PER_LPM / area) ** 2) / 2 / 1000;
  const roughness = roughnessMm / boreMm / 3.7;
  const y2 = roughness + 5.74 / TURBULENT_ABOVE_RE ** 0.9;
  const y3 = PER_LN10 * Math.log(y2);
  const fa = 1 / (y3 * y3);
  const fb = (2 + (1.8 * PER_LN10 * (5.74 / TURBULENT_ABOVE_RE ** 0.9)) / (y2 * y3)) * fa;
  return {
    reynoldsPerLpm,
    lossPerFactor,
    laminarSlope: (64 * lossPerFactor) / reynoldsPerLpm,
    roughness,
    x1: 7 * fa - fb,
    x2: 0.128 - 17 * fa + 2.5 * fb,
    x3: -0.128 + 13 * fa - 2 * fb,
    x4: 0.032 - 3 * fa + 0.5 * fb,
  };
}

/** Loss in kPa at q ≥ 0 into `out[0]`, its slope dh/dq into `out[1]`; added to what is there. */
export function addFriction(tube: TubeFriction, q: number, out: Float64Array): void {
  const reynolds = tube.reynoldsPerLpm * q;
  if (reynolds <= LAMINAR_BELOW_RE) {
    out[0] = (out[0] as number) + tube.laminarSlope * q;
    out[1] = (out[1] as number) + tube.laminarSlope;
    return;
  }
  let factor: number;
  /** df/dq · q */
  let factorSlope: number;
  if (reynolds >= TURBULENT_ABOVE_RE) {
    // Re^0.9 by exponential and logarithm: half the time of a general power
    const y1 = 5.74 * Math.exp(-0.9 * Math.log(reynolds));
    const y2 = tube.roughness + y1;
    const y3 = PER_LN10 * Math.log(y2);
    factor = 1 / (y3 * y3);
    factorSlope = (1.8 * factor * y1 * PER_LN10) / (y2 * y3);
  } else {
    const r = reynolds / LAMINAR_BELOW_RE;
    factor = tube.x1 + r * (tube.x2 + r * (tube.x3 + r * tube.x4));
    factorSlope = r * (tube.x2 + r * (2 * tube.x3 + r * 3 * tube.x4));
  }
  const scaled = tube.lossPerFactor * q;
  out[0] = (out[0] as number) + scaled * factor * q;
  out[1] = (out[1] as number) + scaled * (2 * factor + factorSlope);
}

/** Factor of the dynamic pressure: Δp = K·ρv²/2 as a quadratic coefficient in kPa/(L/min)². */
export function fittingQuadratic(k: number, boreMm: number, densityKgM3: number): number {
  const area = (Math.PI / 4) * (boreMm / 1000) ** 2;
  return (k * densityKgM3 * (M3S_PER_LPM / area) ** 2) / 2 / 1000;
}
