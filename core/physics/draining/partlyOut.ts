import type { Contents } from '../contents/contents.js';
import { levelAtShare, type TurnedBox } from '../geometry/levelCut.js';
import type { TurnedNetwork } from '../geometry/turned.js';

/** slices of a vessel between its level before and after */
const SLICES = 24;

interface Slice {
  readonly node: number;
  readonly heightMm: number;
  readonly ml: number;
}

/**
 * Where a drain stands once only a part of what it gives has come: levels fall from the top, so what stands highest has
 * left first (communicating vessels, no flow losses).
 * @param after what stays once all has come
 * @param ml of it that has come, at most all
 * @returns contents that are `ml` less than `before`
 */
export function partlyOut(turned: TurnedNetwork, before: Contents, after: Contents, ml: number): Contents {
  const slices: Slice[] = [];
  let drainedMl = 0;
  let settledMl = 0;
  before.forEach((had, node) => {
    const leaves = had - (after[node] as number);
    drainedMl += leaves;
    if (leaves > 0) slices.push(...slicesOf(turned, node, had, leaves));
    else settledMl -= leaves;
  });
  const share = drainedMl > 0 ? Math.min(1, Math.max(0, ml / drainedMl)) : 0;
  if (share >= 1) return Float64Array.from(after);
  const now = Float64Array.from(before, (had, node) => Math.max(had, had + share * ((after[node] as number) - had)));
  // what settles elsewhere meanwhile comes from above as well
  let left = share * (drainedMl + settledMl);
  for (const slice of slices.sort((a, b) => b.heightMm - a.heightMm)) {
    const gone = Math.min(left, slice.ml);
    now[slice.node] = (now[slice.node] as number) - gone;
    left -= gone;
    if (left <= 0) break;
  }
  return now;
}

function slicesOf({ network, heightMm, boxes }: TurnedNetwork, node: number, hadMl: number, leavesMl: number): Slice[] {
  const vessel = network.vesselOf[node] as number;
  const volumeMl = network.volumeMl[node] as number;
  if (vessel < 0 || volumeMl <= 0) return [{ node, heightMm: heightMm[node] as number, ml: leavesMl }];
  return Array.from({ length: SLICES }, (_, index): Slice => {
    const middleMl = hadMl - (leavesMl * (index + 0.5)) / SLICES;
    return { node, heightMm: levelAtShare(boxes[vessel] as TurnedBox, Math.min(1, middleMl / volumeMl)), ml: leavesMl / SLICES };
  });
}
