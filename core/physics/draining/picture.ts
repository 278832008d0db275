import type { TurnedBox } from '../geometry/levelCut.js';
import { levelAtShare } from '../geometry/levelCut.js';
import { atLeast, type TurnedNetwork } from '../geometry/turned.js';
import type { Contents } from '../contents/contents.js';
import { floodFullLoop } from './flood.js';
import { openUp, type OpeningSetup } from './openings.js';

/** What stands at a place. `liquid` where only how much is known, not what becomes of it. */
export type Fate = 'gas' | 'held' | 'high' | 'low' | 'liquid';

export interface VesselBand {
  readonly fromMm: number;
  readonly toMm: number;
  readonly fate: Fate;
}

/** What to draw at every node and in every vessel. */
export interface LiquidPicture {
  /** by node; hubs are told by `vessels` */
  readonly fates: readonly Fate[];
  /** by part index; bands from the bottom up */
  readonly vessels: ReadonlyMap<number, readonly VesselBand[]>;
}

function bandsUpTo(box: TurnedBox, limits: readonly { readonly toMm: number; readonly fate: Fate }[]): VesselBand[] {
  let fromMm = box.bottomMm;
  return limits.flatMap(({ toMm, fate }) => {
    const to = Math.min(box.topMm, Math.max(fromMm, toMm));
    const band = { fromMm, toMm: to, fate };
    fromMm = to;
    return band.toMm > band.fromMm ? [band] : [];
  });
}

/** What becomes of a full loop, place by place: the picture of `drainTurned`. */
export function pictureOfDrain(turned: TurnedNetwork, setup: OpeningSetup): LiquidPicture {
  const { network, heightMm, boxes } = turned;
  const { levelMm, gas, lowestDrainMm } = floodFullLoop(turned, openUp(network, setup));
  const fates = Array.from({ length: network.size }, (_, node): Fate => {
    const height = heightMm[node] as number;
    if (atLeast(height, levelMm[node] as number)) return gas[node] === Number.NEGATIVE_INFINITY ? 'held' : 'gas';
    return atLeast(height, lowestDrainMm) ? 'high' : 'low';
  });
  const vessels = new Map(
    network.vessels.map(({ node, part }, vessel) => {
      const box = boxes[vessel] as TurnedBox;
      const spill = levelMm[node] as number;
      const above: Fate = gas[node] === Number.NEGATIVE_INFINITY ? 'held' : 'gas';
      return [
        part,
        bandsUpTo(box, [
          { toMm: Math.min(lowestDrainMm, spill), fate: 'low' },
          { toMm: spill, fate: 'high' },
          { toMm: box.topMm, fate: above },
        ]),
      ] as const;
    }),
  );
  return { fates, vessels };
}

/** A loop that holds `contents`: liquid where a node is at least half full, vessels up to their level. */
export function pictureOfContents({ network, boxes }: TurnedNetwork, contents: Contents): LiquidPicture {
  const fates = Array.from({ length: network.size }, (_, node): Fate => {
    const ml = network.volumeMl[node] as number;
    return ml > 0 && (contents[node] as number) >= ml / 2 ? 'liquid' : 'gas';
  });
  const vessels = new Map(
    network.vessels.map(({ node, part }, vessel) => {
      const box = boxes[vessel] as TurnedBox;
      const ml = network.volumeMl[node] as number;
      const level = ml > 0 ? levelAtShare(box, (contents[node] as number) / ml) : box.bottomMm;
      return [
        part,
        bandsUpTo(box, [
          { toMm: level, fate: 'liquid' },
          { toMm: box.topMm, fate: 'gas' },
        ]),
      ] as const;
    }),
  );
  return { fates, vessels };
}
