import { Basin, belowMl } from './basin.js';
import { GEOMETRY } from '../geometry/defaults.js';
import type { TurnedBox } from '../geometry/levelCut.js';
import type { GeometricNetwork } from '../geometry/network.js';
import { atLeast, isCut, type TurnedNetwork } from '../geometry/turned.js';
import type { Contents } from '../contents/contents.js';
import type { Openings } from './openings.js';
import { gasPaths } from './gasPaths.js';
import { spillLevels, type SpillLevels } from './spillLevels.js';

export interface RunOut {
  readonly drainedMl: number;
  /** could leave, but no air reaches it */
  readonly heldMl: number;
  /** what stays, settled to the low points it can reach */
  readonly left: Contents;
  /** mL by drain node */
  readonly byDrain: ReadonlyMap<number, number>;
}

/** A node with less than this share of its volume is gas for all that wants to pass. */
const EMPTY_SHARE = 0.05;

/** Nodes gas passes freely: emptied ones, and the volume-less ones beside them. */
function freeNodes(network: GeometricNetwork, contents: Contents): Uint8Array {
  const free = new Uint8Array(network.size);
  for (let node = 0; node < network.size; node += 1) {
    const ml = network.volumeMl[node] as number;
    if (ml > 0 && (contents[node] as number) < EMPTY_SHARE * ml) free[node] = 1;
  }
  for (let node = 0; node < network.size; node += 1) {
    if ((network.volumeMl[node] as number) > 0) continue;
    for (let at = network.starts[node] as number; at < (network.starts[node + 1] as number); at += 1) {
      const next = network.links[at] as number;
      if (free[next] === 1 && (network.volumeMl[next] as number) > 0) free[node] = 2;
    }
  }
  return free;
}

/** Groups of nodes below a common spill level that stand in contact. */
function findBasins(turned: TurnedNetwork, { cuts }: Openings, { levelMm }: SpillLevels): WaysOut['basins'] {
  const { network, heightMm, boxes } = turned;
  const of = new Int32Array(network.size).fill(-1);
  const members: number[][] = [];
  const below = (node: number): boolean => {
    const vessel = network.vesselOf[node] as number;
    if (vessel >= 0) return (boxes[vessel] as TurnedBox).bottomMm < (levelMm[node] as number);
    return !atLeast(heightMm[node] as number, levelMm[node] as number);
  };
  for (let start = 0; start < network.size; start += 1) {
    if (of[start] !== -1 || !below(start)) continue;
    const group = [start];
    of[start] = members.length;
    for (let index = 0; index < group.length; index += 1) {
      const node = group[index] as number;
      for (let at = network.starts[node] as number; at < (network.starts[node + 1] as number); at += 1) {
        const next = network.links[at] as number;
        if (of[next] !== -1 || isCut(network, cuts, node, next) || !below(next)) continue;
        if (Math.abs((levelMm[next] as number) - (levelMm[node] as number)) > GEOMETRY.levelMm) continue;
        of[next] = members.length;
        group.push(next);
      }
    }
    members.push(group);
  }
  return { of, all: members.map((nodes) => new Basin(turned, nodes)) };
}

/**
 * What runs out of a loop that holds `contents`, and where the rest comes to rest. Liquid that air reaches runs along
 * its lowest way to a drain, filling on that way what lies lower than its next crest; what no air reaches stays where
 * it is. For a full loop this is the split of `drainTurned`.
 */
export const runOut = (turned: TurnedNetwork, openings: Openings, contents: Contents): RunOut =>
  runOutBy(waysOut(turned, openings), contents);

/** What does not depend on the contents: a search asks the same stand and openings again and again. */
export interface WaysOut {
  readonly turned: TurnedNetwork;
  readonly openings: Openings;
  readonly levels: SpillLevels;
  /** the basin of each node, −1 for none */
  readonly basins: { readonly of: Int32Array; readonly all: readonly Basin[] };
}

export function waysOut(turned: TurnedNetwork, openings: Openings): WaysOut {
  const levels = spillLevels(turned, openings.cuts, openings.drains);
  return { turned, openings, levels, basins: findBasins(turned, openings, levels) };
}

export function runOutBy({ turned, openings, levels, basins: { of, all } }: WaysOut, contents: Contents): RunOut {
  const { network } = turned;
  const gas = gasPaths(turned, openings.cuts, levels.levelMm, openings.openings, freeNodes(network, contents));
  const flowing = contents.slice();
  const left = new Float64Array(network.size);
  const inBasin = new Float64Array(all.length);
  const waiting = all.map(({ nodes }) => nodes.length);
  const byDrain = new Map<number, number>();
  let drainedMl = 0;
  const held = new Float64Array(network.size);

  const passOn = (node: number, ml: number): void => {
    if (ml <= 0) return;
    const next = levels.towardsOutlet[node] as number;
    if (next >= 0) flowing[next] = (flowing[next] as number) + ml;
    else {
      drainedMl += ml;
      byDrain.set(node, (byDrain.get(node) ?? 0) + ml);
    }
  };
  const finishBasin = (basin: number, exit: number, leads: boolean): void => {
    const level = levels.levelMm[exit] as number;
    const ml = inBasin[basin] as number;
    const capacity = leads ? (all[basin] as Basin).heldMl(level) : ml;
    (all[basin] as Basin).settle(Math.min(ml, capacity), level, left);
    if (ml > capacity) passOn(exit, ml - capacity);
  };

  for (let index = levels.order.length - 1; index >= 0; index -= 1) {
    const node = levels.order[index] as number;
    const basin = of[node] as number;
    const ml = flowing[node] as number;
    const reached = (gas[node] as number) !== Number.NEGATIVE_INFINITY;
    const own = Math.min(ml, contents[node] as number);
    if (basin >= 0) {
      const vessel = network.vesselOf[node] as number;
      const cap = belowMl(turned, node, levels.levelMm[node] as number);
      const above = vessel >= 0 && !reached ? Math.max(0, own - cap) : 0;
      held[node] = above;
      inBasin[basin] = (inBasin[basin] as number) + ml - above;
      waiting[basin] = (waiting[basin] as number) - 1;
      if (waiting[basin] === 0) finishBasin(basin, node, true);
    } else if (reached) passOn(node, ml);
    else {
      held[node] = own;
      passOn(node, ml - own);
    }
  }
  // pieces no path leads out of: their liquid only settles
  all.forEach(({ nodes }, basin) => {
    if ((waiting[basin] as number) === 0) return;
    inBasin[basin] = nodes.reduce((sum, node) => sum + (contents[node] as number), 0);
    finishBasin(basin, nodes[0] as number, false);
  });
  let heldMl = 0;
  for (let node = 0; node < network.size; node += 1) {
    heldMl += held[node] as number;
    left[node] = (left[node] as number) + (held[node] as number);
  }
  return { drainedMl, heldMl, left, byDrain };
}
