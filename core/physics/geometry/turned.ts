import { GEOMETRY } from './defaults.js';
import { shareBelow, turnBox, type TurnedBox } from './levelCut.js';
import type { GeometricNetwork } from './network.js';
import { upVector, type Tilt } from '../../machine/loop-file/orientation.js';

/** A network as it stands: heights of all nodes and the turned boxes of its vessels. */
export interface TurnedNetwork {
  readonly network: GeometricNetwork;
  /** mm; −Infinity for hubs, which count nothing on a path */
  readonly heightMm: Float64Array;
  /** by vessel index */
  readonly boxes: readonly TurnedBox[];
}

export function turnNetwork(network: GeometricNetwork, tilt: Tilt): TurnedNetwork {
  const up = upVector(tilt);
  const heights = new Float64Array(network.size);
  for (let node = 0; node < network.size; node += 1) {
    heights[node] =
      (network.vesselOf[node] as number) >= 0
        ? Number.NEGATIVE_INFINITY
        : up[0] * (network.x[node] as number) + up[1] * (network.y[node] as number) + up[2] * (network.z[node] as number);
  }
  return { network, heightMm: heights, boxes: network.vessels.map(({ box }) => turnBox(box, up)) };
}

/** Which joints are taken apart. 1 at the tube's end node: the edge between it and its port is cut. */
export type CutEnds = Uint8Array;

export const isCut = (network: GeometricNetwork, cuts: CutEnds, a: number, b: number): boolean =>
  (cuts[a] === 1 && network.isPort[b] === 1) || (cuts[b] === 1 && network.isPort[a] === 1);

/** mL of a vessel above a level. */
export function vesselAboveMl({ network, boxes }: TurnedNetwork, vessel: number, levelMm: number): number {
  const hub = network.vessels[vessel] as { node: number };
  return (network.volumeMl[hub.node] as number) * (1 - shareBelow(boxes[vessel] as TurnedBox, levelMm));
}

/** Level within the tolerance, or higher. */
export const atLeast = (heightMm: number, levelMm: number): boolean => heightMm >= levelMm - GEOMETRY.levelMm;
