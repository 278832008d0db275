import { DAYS_PER_MONTH } from '../../base/units/calendar.js';
import { TUBE_MATERIALS, type TubePiece } from '../materials/tubes.js';

export const WALL_LOSS = {
  /** °C the permeabilities hold at, and the K in which they double (handbook I) */
  referenceC: 38,
  doublingK: 10,
  /** published permeabilities of one family differ by about this factor either way */
  spread: 2,
} as const;

export interface WallLoss {
  readonly mlPerMonth: number;
  /** [low, high] in mL a month: within it a top-up is evaporation, above it look for a leak */
  readonly range: readonly [number, number];
}

/** Water through the tubes' walls: W·A/t·f(T), A the area at the mean diameter; 1 g is taken as 1 mL. */
export function wallLoss(tubes: readonly TubePiece[], coolantC: number): WallLoss {
  const warmth = 2 ** ((coolantC - WALL_LOSS.referenceC) / WALL_LOSS.doublingK);
  const gramsPerDay = tubes.reduce((sum, { material, boreMm, outerMm, lengthMm }) => {
    const areaM2 = (Math.PI * ((boreMm + outerMm) / 2) * lengthMm) / 1e6;
    return sum + (TUBE_MATERIALS[material].permeability * areaM2 * warmth) / ((outerMm - boreMm) / 2);
  }, 0);
  const mlPerMonth = gramsPerDay * DAYS_PER_MONTH;
  return { mlPerMonth, range: [mlPerMonth / WALL_LOSS.spread, mlPerMonth * WALL_LOSS.spread] };
}
