import { brokenLine, valueAt } from '../../base/numerics/broken.js';
import type { Glycol, Liquid } from './fluids.js';

/** °C at which ice begins, by volume percent of glycol in water (usual tables of ASHRAE Fundamentals, rounded as makers print them). */
const FREEZES: Readonly<Record<Glycol, readonly (readonly [percent: number, tempC: number])[]>> = {
  ethylene: [[0, 0], [10, -3.4], [20, -7.9], [30, -13.7], [40, -23.5], [50, -36.8]], // prettier-ignore
  propylene: [[0, 0], [10, -3], [20, -8], [30, -14], [40, -22], [50, -34]], // prettier-ignore
};

/** kg/L at 20 °C, to turn a share by mass into one by volume */
const DENSITY: Readonly<Record<Glycol | 'water', number>> = { ethylene: 1.113, propylene: 1.036, water: 0.998 };

/** Share by volume of a share by mass; contraction on mixing is left out (below 1 %). */
export function volumeFraction(glycol: Glycol, massFraction: number): number {
  const [own, water] = [massFraction / DENSITY[glycol], (1 - massFraction) / DENSITY.water];
  return own / (own + water);
}

/** °C down to which a coolant stays liquid; water's 0 without glycol, the table's end beyond it. */
export function freezesAtC({ glycol, massFraction }: Liquid): number {
  if (glycol === null) return 0;
  const percent = Math.min(100 * volumeFraction(glycol, massFraction), 50);
  return valueAt(brokenLine(FREEZES[glycol]), percent);
}
