import { GEOMETRY } from '../geometry/defaults.js';
import type { TurnedBox } from '../geometry/levelCut.js';
import { isCut, vesselAboveMl, type CutEnds, type TurnedNetwork } from '../geometry/turned.js';
import { spillLevels } from '../draining/spillLevels.js';

/** A place where gas can stay because every way up to the reservoir dips below it first. */
export interface AirPocket {
  readonly volumeMl: number;
  /** nodes that hold the gas, zero-volume ones included */
  readonly nodes: readonly number[];
  /** indices into the network's `partIds`, ascending, parts with volume only */
  readonly parts: readonly number[];
  /** mm, height in the turned frame of the highest gas */
  readonly topMm: number;
  /** mm, the dip of the best way out: gas must be pushed down to here before it moves on */
  readonly sillMm: number;
}

export interface TrappedAir {
  /** largest first */
  readonly pockets: readonly AirPocket[];
  readonly totalMl: number;
  /** mm by node; the highest dip of any path to a reservoir's gas space, −Infinity without a path */
  readonly dipMm: Float64Array;
  /** mL of gas by node that can stay */
  readonly gasMl: Float64Array;
}

/** mL; less is rounding of a level plane, not gas */
const LEAST_POCKET_ML = 1e-6;

/** Where gas collects: the reservoirs; without one, the vessel or node that reaches highest. */
function gasSpaces({ network, heightMm, boxes }: TurnedNetwork): number[] {
  const reservoirs = network.vessels.filter(({ isReservoir }) => isReservoir).map(({ node }) => node);
  if (reservoirs.length > 0 || network.size === 0) return reservoirs;
  const reach = (node: number): number => {
    const vessel = network.vesselOf[node] as number;
    return vessel >= 0 ? (boxes[vessel] as TurnedBox).topMm : (heightMm[node] as number);
  };
  let highest = 0;
  for (let node = 1; node < network.size; node += 1) if (reach(node) > reach(highest)) highest = node;
  return [highest];
}

/** Where gas at each node can stay, and how far down the best way out leads. Arrays run over nodes. */
interface GasAtNode {
  readonly dipMm: Float64Array;
  /** mL of gas at the node */
  readonly ml: Float64Array;
  /** 1 where gas can stay, zero-volume nodes included */
  readonly inPocket: Uint8Array;
}

function gasAtNodes(turned: TurnedNetwork, cuts: CutEnds, spaces: readonly number[]): GasAtNode {
  const { network, heightMm } = turned;
  // The same flood on the loop turned inside out: crests become dips.
  const upsideDown = { ...turned, heightMm: heightMm.map((height) => (height === Number.NEGATIVE_INFINITY ? height : -height)) };
  const { levelMm } = spillLevels(upsideDown, cuts, spaces);
  const dipMm = levelMm.map((level) => -level);
  const ml = new Float64Array(network.size);
  const inPocket = new Uint8Array(network.size);
  const isSpace = new Set(spaces);
  for (let node = 0; node < network.size; node += 1) {
    if (isSpace.has(node)) continue;
    const vessel = network.vesselOf[node] as number;
    const dip = dipMm[node] as number;
    if (vessel >= 0) ml[node] = vesselAboveMl(turned, vessel, dip);
    else if ((heightMm[node] as number) > dip + GEOMETRY.levelMm) ml[node] = network.volumeMl[node] as number;
    const above = vessel >= 0 ? (ml[node] as number) > LEAST_POCKET_ML : (heightMm[node] as number) > dip + GEOMETRY.levelMm;
    inPocket[node] = above ? 1 : 0;
  }
  return { dipMm, ml, inPocket };
}

/** Nodes joined to one another through gas; a part that no way leads out of is a pocket of its own. */
function groupPockets({ network }: TurnedNetwork, cuts: CutEnds, { dipMm, inPocket }: GasAtNode): number[][] {
  const seen = new Uint8Array(network.size);
  const groups: number[][] = [];
  for (let start = 0; start < network.size; start += 1) {
    if (seen[start] === 1 || inPocket[start] === 0) continue;
    const group = [start];
    seen[start] = 1;
    const cutOff = dipMm[start] === Number.NEGATIVE_INFINITY;
    for (let index = 0; index < group.length; index += 1) {
      const node = group[index] as number;
      for (let at = network.starts[node] as number; at < (network.starts[node + 1] as number); at += 1) {
        const next = network.links[at] as number;
        if (seen[next] === 1 || inPocket[next] === 0 || isCut(network, cuts, node, next)) continue;
        if (cutOff && network.part[next] !== network.part[node]) continue;
        seen[next] = 1;
        group.push(next);
      }
    }
    groups.push(group);
  }
  return groups;
}

function describePocket(turned: TurnedNetwork, nodes: number[], gas: GasAtNode): AirPocket {
  const { network, heightMm, boxes } = turned;
  const reach = (node: number, end: 'topMm' | 'bottomMm'): number => {
    const vessel = network.vesselOf[node] as number;
    return vessel >= 0 ? (boxes[vessel] as TurnedBox)[end] : (heightMm[node] as number);
  };
  const parts = [...new Set(nodes.filter((node) => (gas.ml[node] as number) > 0).map((node) => network.part[node] as number))];
  const dip = gas.dipMm[nodes[0] as number] as number;
  const hasWayOut = dip !== Number.NEGATIVE_INFINITY;
  return {
    volumeMl: nodes.reduce((total, node) => total + (gas.ml[node] as number), 0),
    nodes,
    parts: parts.sort((a, b) => a - b),
    topMm: Math.max(...nodes.map((node) => reach(node, 'topMm'))),
    sillMm: hasWayOut ? dip : Math.min(...nodes.map((node) => reach(node, 'bottomMm'))),
  };
}

/**
 * Where gas can stay while the loop stands like this, full and at rest: gas at height e is trapped iff every path to a
 * reservoir's inside dips below e. Volumes in mL, heights in mm of the turned frame.
 */
export function findTrappedAir(turned: TurnedNetwork, cuts: CutEnds = new Uint8Array(turned.network.size)): TrappedAir {
  const gas = gasAtNodes(turned, cuts, gasSpaces(turned));
  const pockets = groupPockets(turned, cuts, gas)
    .map((nodes) => describePocket(turned, nodes, gas))
    .filter(({ volumeMl }) => volumeMl > LEAST_POCKET_ML)
    .sort((a, b) => b.volumeMl - a.volumeMl);
  return { pockets, totalMl: pockets.reduce((total, { volumeMl }) => total + volumeMl, 0), dipMm: gas.dipMm, gasMl: gas.ml };
}

/** mL of gas that stays at each node when gas can leave at `outlets` alone, say at a port under a filling bottle. */
export const gasAgainst = (turned: TurnedNetwork, outlets: readonly number[]): Float64Array =>
  gasAtNodes(turned, new Uint8Array(turned.network.size), outlets).ml;
