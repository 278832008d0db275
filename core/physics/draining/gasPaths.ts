import FlatQueue from 'flatqueue';
import { GEOMETRY } from '../geometry/defaults.js';
import type { TurnedBox } from '../geometry/levelCut.js';
import { atLeast, isCut, type CutEnds, type TurnedNetwork } from '../geometry/turned.js';

/**
 * Where gas comes to as the liquid leaves. Gas starts at every opening and carries m, the lowest height it passed
 * since it was last in a wide space or at an opening. It enters only what can leave: a hub always; from a hub (where m
 * rises to the vessel's top) the ports at or below m; along one wide tube always, m rising with it; any other node at
 * or below m, and m sinks with it (contract, `drain`).
 * In a loop that is partly empty gas passes emptied nodes as it passes a wide space.
 * @param free 1 or 2 where a node is empty; none for a full loop
 * @returns for each node its highest m in mm, −Infinity where no gas comes
 */
export function gasPaths(
  turned: TurnedNetwork,
  cuts: CutEnds,
  levelMm: Float64Array,
  openings: readonly number[],
  free?: Uint8Array,
): Float64Array {
  const { network, heightMm, boxes } = turned;
  const carried = new Float64Array(network.size).fill(Number.NEGATIVE_INFINITY);
  const queue = new FlatQueue<number>();
  const offer = (node: number, m: number): void => {
    if (m <= (carried[node] as number)) return;
    carried[node] = m;
    queue.push(node, -m);
  };
  for (const opening of openings) offer(opening, heightMm[opening] as number);
  while (queue.length > 0) {
    const m = -(queue.peekValue() as number);
    const node = queue.pop() as number;
    if (m < (carried[node] as number)) continue;
    for (let at = network.starts[node] as number; at < (network.starts[node + 1] as number); at += 1) {
      const next = network.links[at] as number;
      if (!isCut(network, cuts, node, next)) offer(next, entering(node, next, m));
    }
  }
  return carried;

  /** The m that gas brings into `next`, −Infinity where it cannot go. */
  function entering(node: number, next: number, m: number): number {
    const vessel = network.vesselOf[next] as number;
    if (vessel >= 0) {
      const { topMm } = boxes[vessel] as TurnedBox;
      if (free !== undefined && (free[next] as number) > 0) return Math.max(m, topMm);
      return atLeast(topMm, levelMm[next] as number) ? Math.max(m, topMm) : Number.NEGATIVE_INFINITY;
    }
    const height = heightMm[next] as number;
    if (free !== undefined && (free[next] as number) > 0) return Math.max(m, height);
    if (!atLeast(height, levelMm[next] as number)) return Number.NEGATIVE_INFINITY;
    const tube = network.wideTube[next] as number;
    if (tube >= 0 && tube === network.wideTube[node]) return Math.max(m, height);
    return height <= m + GEOMETRY.levelMm ? Math.min(m, height) : Number.NEGATIVE_INFINITY;
  }
}
