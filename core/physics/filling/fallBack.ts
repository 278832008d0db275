import { GEOMETRY } from '../geometry/defaults.js';
import type { FrontCell } from './frontPath.js';

/**
 * Index after the last crest the front has passed: cells from there on keep their liquid when the pump stops.
 * A crest is a local highest point with a wetted cell more than the tolerance below it further on. 0 when none was
 * passed.
 */
export function afterLastCrest(cells: readonly FrontCell[], wetted: number): number {
  let after = 0;
  let highest = Number.NEGATIVE_INFINITY;
  let highestAt = 0;
  let lowest = Number.POSITIVE_INFINITY;
  let climbing = true;
  for (let index = 0; index < wetted; index += 1) {
    const { heightMm, liftMm, slow } = cells[index] as FrontCell;
    // where gas leaves behind the front, the front has been
    if (slow) continue;
    // liquid that enters a vessel from above has passed over its inlet
    if (climbing && liftMm > highest) {
      highest = liftMm;
      highestAt = liftMm > heightMm + GEOMETRY.levelMm ? index : index + 1;
    }
    if (climbing && heightMm < highest - GEOMETRY.levelMm) {
      after = highestAt;
      climbing = false;
      lowest = heightMm;
    } else if (!climbing) {
      lowest = Math.min(lowest, heightMm);
      if (heightMm > lowest + GEOMETRY.levelMm) {
        climbing = true;
        highest = heightMm;
        highestAt = index + 1;
      }
    }
  }
  return after;
}

/** mL; a cell that lacks no more is full */
const FULL_WITHIN_ML = 1e-6;

/** Index after the last cell of the column that hangs together from the reservoir on: what stands behind a gap stays there. */
function columnEnd(cells: readonly FrontCell[], wettedMl: Float64Array): number {
  for (let index = 0; index < cells.length; index += 1) {
    const { volumeMl, slow } = cells[index] as FrontCell;
    if (slow || (wettedMl[index] as number) >= volumeMl - FULL_WITHIN_ML) continue;
    return (wettedMl[index] as number) > 0 ? index + 1 : index;
  }
  return cells.length;
}

export interface FallBack {
  readonly fallsBackMl: number;
  /** mL wetted in each cell once everything stands */
  readonly stays: Float64Array;
}

/**
 * What runs back into the reservoir when the pump stops: the column before the last passed crest, down to the surface
 * as it then stands; a vessel keeps what lies below its lowest flow port.
 * @param wettedMl in each cell while the pump ran
 * @param reservoirMl in the reservoir when the pump stops
 * @param surfaceMm height of the reservoir's surface for its content
 */
export function fallBack(
  cells: readonly FrontCell[],
  wettedMl: Float64Array,
  reservoirMl: number,
  surfaceMm: (contentMl: number) => number,
): FallBack {
  const wetted = columnEnd(cells, wettedMl);
  // without a crest the whole column runs back
  const falling = afterLastCrest(cells, wetted) || wetted;
  const fallsAbove = (level: number): number => {
    let ml = 0;
    for (let index = 0; index < falling; index += 1) {
      const { heightMm, vesselKeepsBelowMm } = cells[index] as FrontCell;
      if (heightMm > Math.max(level, vesselKeepsBelowMm)) ml += wettedMl[index] as number;
    }
    return ml;
  };
  // The surface rises by what comes back; the higher it stands, the less comes.
  let low = surfaceMm(reservoirMl);
  let high = surfaceMm(reservoirMl + fallsAbove(low));
  for (let step = 0; step < 40; step += 1) {
    const level = (low + high) / 2;
    if (surfaceMm(reservoirMl + fallsAbove(level)) > level) low = level;
    else high = level;
  }
  const stays = wettedMl.slice();
  let fallsBackMl = 0;
  for (let index = 0; index < falling; index += 1) {
    const { heightMm, vesselKeepsBelowMm } = cells[index] as FrontCell;
    if (heightMm <= Math.max(high, vesselKeepsBelowMm)) continue;
    fallsBackMl += wettedMl[index] as number;
    stays[index] = 0;
  }
  return { fallsBackMl, stays };
}
