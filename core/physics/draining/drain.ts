import { buildNetwork } from '../geometry/network.js';
import { totalMl } from '../contents/contents.js';
import { atLeast, turnNetwork, vesselAboveMl, type TurnedNetwork } from '../geometry/turned.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { floodFullLoop, leavingMl } from './flood.js';
import { openUp, type DrainSetup, type OpeningSetup, type Openings } from './openings.js';
import { findSpills, type Spill } from './spills.js';

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

export interface DrainResult extends DrainSplit {
  readonly spills: readonly Spill[];
  /** components in the file's order, then tubes */
  readonly parts: readonly PartSplit[];
}

/** mL by fate for every part, in the order of `partIds`. Rows: drained, held, trapped high, trapped low. */
interface PartTotals {
  readonly drained: Float64Array;
  readonly held: Float64Array;
  readonly trappedHigh: Float64Array;
  readonly trappedLow: Float64Array;
}

/** Sorts every millilitre of a full loop by what becomes of it. */
function splitFullLoop(turned: TurnedNetwork, openings: Openings): PartTotals {
  const { network, heightMm } = turned;
  const flood = floodFullLoop(turned, openings);
  const { gas, lowestDrainMm } = flood;
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
    const leaves = leavingMl(turned, flood, node);
    add(gas[node] === Number.NEGATIVE_INFINITY ? totals.held : totals.drained, part, leaves);
    const vessel = network.vesselOf[node] as number;
    if (vessel >= 0) {
      const aboveDrain = vesselAboveMl(turned, vessel, lowestDrainMm);
      add(totals.trappedHigh, part, Math.max(0, aboveDrain - leaves));
      add(totals.trappedLow, part, ml - Math.max(aboveDrain, leaves));
    } else if (leaves === 0) {
      add(atLeast(heightMm[node] as number, lowestDrainMm) ? totals.trappedHigh : totals.trappedLow, part, ml);
    }
  }
  return totals;
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
