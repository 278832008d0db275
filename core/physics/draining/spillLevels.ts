import FlatQueue from 'flatqueue';
import { isCut, type CutEnds, type TurnedNetwork } from '../geometry/turned.js';

/** Priority-Flood from some outlets. Arrays run over nodes. */
export interface SpillLevels {
  /**
   * mm; the lowest crest of any path from the node to an outlet (a hub's: of its inside). +Infinity without a path.
   */
  readonly levelMm: Float64Array;
  /** the next node on that path, −1 at outlets and without a path */
  readonly towardsOutlet: Int32Array;
  /** nodes in the order they were reached; every node comes after the one it leads to */
  readonly order: Int32Array;
}

/**
 * L(c) = min over paths from c to any outlet of the highest node on the path, hubs counting nothing.
 * Priority-Flood (Barnes, Lehman & Mulla 2014, depression filling in terrain), O(n log n).
 */
export function spillLevels(turned: TurnedNetwork, cuts: CutEnds, outlets: readonly number[]): SpillLevels {
  const { network, heightMm } = turned;
  const levelMm = new Float64Array(network.size).fill(Number.POSITIVE_INFINITY);
  const towardsOutlet = new Int32Array(network.size).fill(-1);
  const order = new Int32Array(network.size);
  const done = new Uint8Array(network.size);
  const queue = new FlatQueue<number>();
  let reached = 0;
  for (const outlet of outlets) {
    levelMm[outlet] = heightMm[outlet] as number;
    queue.push(outlet, levelMm[outlet] as number);
  }
  for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
    if (done[node] === 1) continue;
    done[node] = 1;
    order[reached++] = node;
    for (let at = network.starts[node] as number; at < (network.starts[node + 1] as number); at += 1) {
      const next = network.links[at] as number;
      const level = Math.max(levelMm[node] as number, heightMm[next] as number);
      if (done[next] === 1 || level >= (levelMm[next] as number) || isCut(network, cuts, node, next)) continue;
      levelMm[next] = level;
      towardsOutlet[next] = node;
      queue.push(next, level);
    }
  }
  return { levelMm, towardsOutlet, order: order.subarray(0, reached) };
}
