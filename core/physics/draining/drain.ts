import { buildNetwork } from '../geometry/network.js';
import { totalMl } from '../contents/contents.js';
import { atLeast, turnNetwork, vesselAboveMl, type TurnedNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { floodFullLoop } from './flood.js';
import { openUp, type DrainSetup, type OpeningSetup, type Openings } from './openings.js';

/** mL by what becomes of it. */
export interface DrainSplit {
  /** runs out by itself: the certain figure */
  readonly drainedMl: number;
  /** could run out, but no air reaches it; lets go when knocked */
  readonly heldMl: number;
  /** stands above the drain behind a crest: may follow as a siphon while the column stays whole */
  readonly trappedHighMl: number;
  /** below the drain: only a turn, a pump or air gets it out */
  readonly trappedLowMl: number;
}

export interface PartSplit extends DrainSplit {
  readonly id: string;
}

export interface Spill {
  readonly port: string;
  readonly volumeMl: number;
}

export interface DrainResult extends DrainSplit {
  readonly spills: readonly Spill[];
  /** components in the file's order, then tubes */
  readonly parts: readonly PartSplit[];
}

/** mL; less than this at an opening is a drop on a towel, not a spill to warn of (contract) */
export const LEAST_SPILL_ML = 1;

/** mL by fate for every part, in the order of `partIds`. Rows: drained, held, trapped high, trapped low. */
export interface PartTotals {
  readonly drained: Float64Array;
  readonly held: Float64Array;
  readonly trappedHigh: Float64Array;
  readonly trappedLow: Float64Array;
}

/** Sorts every millilitre of a full loop by what becomes of it. */
function splitFullLoop(turned: TurnedNetwork, openings: Openings): PartTotals {
  const { network, heightMm } = turned;
  const { levelMm, gas, lowestDrainMm } = floodFullLoop(turned, openings);
  const parts = network.partIds.length;
  const totals: PartTotals = {
    drained: new Float64Array(parts),
    held: new Float64Array(parts),
    trappedHigh: new Float64Array(parts),
    trappedLow: new Float64Array(parts),
  };
  const add = (row: Float64Array, part: number, ml: number): void => {
    row[part] = (row[part] as number) + ml;
  };
  for (let node = 0; node < network.size; node += 1) {
    const part = network.part[node] as number;
    const ml = network.volumeMl[node] as number;
    const leaves = gas[node] === Number.NEGATIVE_INFINITY ? totals.held : totals.drained;
    const vessel = network.vesselOf[node] as number;
    if (vessel >= 0) {
      const aboveLevel = vesselAboveMl(turned, vessel, levelMm[node] as number);
      const aboveDrain = vesselAboveMl(turned, vessel, lowestDrainMm);
      add(leaves, part, aboveLevel);
      add(totals.trappedHigh, part, Math.max(0, aboveDrain - aboveLevel));
      add(totals.trappedLow, part, ml - Math.max(aboveDrain, aboveLevel));
    } else if (atLeast(heightMm[node] as number, levelMm[node] as number)) {
      add(leaves, part, ml);
    } else {
      add(atLeast(heightMm[node] as number, lowestDrainMm) ? totals.trappedHigh : totals.trappedLow, part, ml);
    }
  }
  return totals;
}

/** mL that would run out of each opening that is no drain, were the drains shut: cap it before you turn. */
function findSpills(turned: TurnedNetwork, setup: OpeningSetup): Spill[] {
  const drains = new Set(setup.drains);
  const others = [...new Set(setup.open)].filter((name) => !drains.has(name));
  return others
    .map((port) => {
      const alone = openUp(turned.network, { open: others.filter((name) => name !== port), drains: [port], closed: setup.closed });
      return { port, volumeMl: totalMl(splitFullLoop(turned, alone).drained) };
    })
    .filter(({ volumeMl }) => volumeMl > LEAST_SPILL_ML);
}

/**
 * What becomes of the liquid of a full loop as it stands turned and opened. mL; the four rows add up to the loop's
 * volume for every part.
 * Before: names and tubes exist, `drains` is not empty.
 */
export function drainTurned(turned: TurnedNetwork, setup: OpeningSetup): DrainResult {
  const totals = splitFullLoop(turned, openUp(turned.network, setup));
  return {
    drainedMl: totalMl(totals.drained),
    heldMl: totalMl(totals.held),
    trappedHighMl: totalMl(totals.trappedHigh),
    trappedLowMl: totalMl(totals.trappedLow),
    spills: findSpills(turned, setup),
    parts: turned.network.partIds.map((id, part) => ({
      id,
      drainedMl: totals.drained[part] as number,
      heldMl: totals.held[part] as number,
      trappedHighMl: totals.trappedHigh[part] as number,
      trappedLowMl: totals.trappedLow[part] as number,
    })),
  };
}

/** Drains a loop: {@link drainTurned} from the loop file. */
export function drainLoop(loop: LoopFile, { tilt, ...setup }: DrainSetup): DrainResult {
  return drainTurned(turnNetwork(buildNetwork(loop), tilt), setup);
}
