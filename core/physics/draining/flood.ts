import { atLeast, vesselAboveMl, type TurnedNetwork } from '../geometry/turned.js';
import { gasPaths } from './gasPaths.js';
import type { Openings } from './openings.js';
import { spillLevels } from './spillLevels.js';

/** What decides about every place of a full loop. Arrays run over nodes. */
export interface Flood {
  /** mm; lowest crest of any path to a drain */
  readonly levelMm: Float64Array;
  /** mm; −Infinity where no gas comes */
  readonly gas: Float64Array;
  /** mm; what cannot leave stays high above it, or low below it */
  readonly lowestDrainMm: number;
}

export function floodFullLoop(turned: TurnedNetwork, { cuts, openings, drains }: Openings): Flood {
  const { levelMm } = spillLevels(turned, cuts, drains);
  return {
    levelMm,
    gas: gasPaths(turned, cuts, levelMm, openings),
    lowestDrainMm: Math.min(...drains.map((node) => turned.heightMm[node] as number)),
  };
}

/** mL of a node of a full loop that can leave, whether air reaches it or not. */
export function leavingMl(turned: TurnedNetwork, { levelMm }: Flood, node: number): number {
  const { network, heightMm } = turned;
  const vessel = network.vesselOf[node] as number;
  if (vessel >= 0) return vesselAboveMl(turned, vessel, levelMm[node] as number);
  return atLeast(heightMm[node] as number, levelMm[node] as number) ? (network.volumeMl[node] as number) : 0;
}
