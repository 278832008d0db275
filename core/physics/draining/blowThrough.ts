import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Contents } from '../contents/contents.js';
import type { GeometricNetwork } from '../geometry/network.js';
import { MEASURED } from '../measuring/errors.js';
import { nodesOf, openablePorts } from './openings.js';

/** What air from a hand bulb takes along (estimates: a film stays on every wall, and gas finds its way over liquid in wide parts). */
export const BLOW = {
  tubeShare: 0.85,
  partShare: 0.6,
  vesselShare: 0.25,
  /** mL; less is not worth a bulb */
  leastMl: 15,
} as const;

/** Blown through with a hand bulb from one port to another, once everything has run out that will. */
export interface BlowThrough {
  /** where the bulb sits, and where the jug stands */
  readonly air: string;
  readonly drain: string;
  readonly likelyMl: number;
  readonly sdMl: number;
}

/**
 * The pair of ports between which a bulb gets most out. Air takes the way that holds least liquid: what stands on the
 * other arm of the ring stays. null where no pair is worth it.
 * @param left what the drain left, node by node
 */
export function adviseBlowing(loop: LoopFile, network: GeometricNetwork, left: Contents): BlowThrough | null {
  const ports = openablePorts(loop);
  const takes = takenShares(loop, network);
  let best: BlowThrough | null = null;
  ports.forEach((air, index) => {
    const ways = leastLiquid(network, left, nodesOf(network, air)[0] as number);
    for (const drain of ports.slice(index + 1)) {
      let likelyMl = 0;
      for (let node = nodesOf(network, drain)[0] as number; node >= 0; node = ways[node] as number)
        likelyMl += (takes[node] as number) * (left[node] as number);
      if (likelyMl >= BLOW.leastMl && likelyMl > (best?.likelyMl ?? 0))
        best = { ...downwards(network, air, drain), likelyMl, sdMl: MEASURED.judgedSdShare * likelyMl };
    }
  });
  return best;
}

/** From the higher port to the lower one. */
function downwards(network: GeometricNetwork, a: string, b: string): Pick<BlowThrough, 'air' | 'drain'> {
  const heightOf = (port: string): number => network.y[nodesOf(network, port)[0] as number] as number;
  return heightOf(a) >= heightOf(b) ? { air: a, drain: b } : { air: b, drain: a };
}

/** By node: share of its liquid that air takes along. */
function takenShares(loop: LoopFile, network: GeometricNetwork): Float64Array {
  const tubes = new Set(loop.tubes.map(({ id }) => id));
  return Float64Array.from({ length: network.size }, (_, node) => {
    if ((network.vesselOf[node] as number) >= 0) return BLOW.vesselShare;
    return tubes.has(network.partIds[network.part[node] as number] as string) ? BLOW.tubeShare : BLOW.partShare;
  });
}

/** The node before each on the way that holds least liquid (Dijkstra; a loop has some hundred nodes); −1 at its start. */
function leastLiquid(network: GeometricNetwork, left: Contents, start: number): Int32Array {
  const before = new Int32Array(network.size).fill(-1);
  const cost = new Float64Array(network.size).fill(Number.POSITIVE_INFINITY);
  const done = new Uint8Array(network.size);
  cost[start] = 0;
  for (;;) {
    let node = -1;
    for (let each = 0; each < network.size; each += 1)
      if (done[each] === 0 && (node < 0 || (cost[each] as number) < (cost[node] as number))) node = each;
    if (node < 0 || !Number.isFinite(cost[node])) return before;
    done[node] = 1;
    for (let at = network.starts[node] as number; at < (network.starts[node + 1] as number); at += 1) {
      const next = network.links[at] as number;
      // a way without liquid is still a way: the shorter one counts
      const through = (cost[node] as number) + (left[next] as number) + 1e-6;
      if (through >= (cost[next] as number)) continue;
      cost[next] = through;
      before[next] = node;
    }
  }
}
