import { heightMm } from '../../machine/loop-file/orientation.js';
import type { Point } from '../../machine/loop-file/loopFile.js';

export interface Box {
  readonly min: Point;
  readonly max: Point;
}

/** A turned box seen by a level plane. `edges` are the box's three edges as heights in mm, ascending, all ≥ 0. */
export interface TurnedBox {
  readonly bottomMm: number;
  readonly topMm: number;
  readonly edgesMm: readonly [number, number, number];
}

/** Before: min ≤ max on each axis. */
export function turnBox(box: Box, up: Point): TurnedBox {
  const edges = [0, 1, 2].map((axis) => Math.abs(up[axis] as number) * ((box.max[axis] as number) - (box.min[axis] as number)));
  edges.sort((a, b) => a - b);
  const middle = heightMm(up, [0, 1, 2].map((axis) => ((box.min[axis] as number) + (box.max[axis] as number)) / 2) as unknown as Point);
  const half = ((edges[0] as number) + (edges[1] as number) + (edges[2] as number)) / 2;
  return { bottomMm: middle - half, topMm: middle + half, edgesMm: edges as unknown as [number, number, number] };
}

/** Below this share of the longest edge an edge counts as level: the cubic formula would lose its digits there. */
const FLAT_SHARE = 1e-5;

/**
 * Share of a box's volume below a level plane at `levelMm`, 0 … 1.
 * Exact: the volume of a cut box by inclusion and exclusion of its corners,
 * V(s) = Σ (−1)^|S| · max(0, s − Σ_S)^d ÷ (d! · Π edges) over the d edges that are not level
 * (distribution function of a sum of uniform variables, Irwin–Hall with unequal widths).
 */
export function shareBelow({ bottomMm, topMm, edgesMm }: TurnedBox, levelMm: number): number {
  if (levelMm <= bottomMm) return levelMm < bottomMm || topMm > bottomMm ? 0 : 1;
  if (levelMm >= topMm) return 1;
  const [a, b, c] = edgesMm;
  const s = levelMm - bottomMm;
  const flat = FLAT_SHARE * c;
  if (b <= flat) return Math.min(1, s / c);
  const ramp = (value: number, power: number): number => (value > 0 ? value ** power : 0);
  if (a <= flat) {
    return Math.min(1, Math.max(0, (ramp(s, 2) - ramp(s - b, 2) - ramp(s - c, 2) + ramp(s - b - c, 2)) / (2 * b * c)));
  }
  const cubes =
    ramp(s, 3) -
    ramp(s - a, 3) -
    ramp(s - b, 3) -
    ramp(s - c, 3) +
    ramp(s - a - b, 3) +
    ramp(s - a - c, 3) +
    ramp(s - b - c, 3) -
    ramp(s - a - b - c, 3);
  return Math.min(1, Math.max(0, cubes / (6 * a * b * c)));
}

/** Height in mm of the level that has `share` of the box below it. Bisection, where the box does not stand straight: the share grows with the level. */
export function levelAtShare(turned: TurnedBox, share: number): number {
  if (share <= 0) return turned.bottomMm;
  if (share >= 1) return turned.topMm;
  const [, b, c] = turned.edgesMm;
  if (b <= FLAT_SHARE * c) return turned.bottomMm + share * c;
  let low = turned.bottomMm;
  let high = turned.topMm;
  for (let step = 0; step < 50; step += 1) {
    const middle = (low + high) / 2;
    if (shareBelow(turned, middle) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
