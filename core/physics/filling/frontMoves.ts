import type { Fluid } from '../../machine/liquids/fluids.js';
import { brokenLine, valueAt } from '../../base/numerics/broken.js';
import { LPH_PER_LPM } from '../flow/defaults.js';
import { columnKpa, solveFlow, type FlowResult } from '../flow/flow.js';
import { levelAtShare, shareBelow, type TurnedBox } from '../geometry/levelCut.js';
import { buildNetwork, type GeometricNetwork } from '../geometry/network.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { turnNetwork, type TurnedNetwork } from '../geometry/turned.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { frontPath, type FrontCell } from './frontPath.js';

export const FILL = {
  /** exponent of losses with flow while the wetted length grows: between laminar and rough turbulent */
  lossExponent: 1.85,
  /** mL; a pulse that gains less than this leaves the settled level where it was (contract) */
  leastGainMl: 1,
  /** share of the flow by which gas leaves a radiator's core (contract, estimate) */
  slowShare: 0.05,
  /** mL; at the bench a pulse that gains less is a nuisance: hands keep pouring while the pump runs (workshop practice) */
  handsGainMl: 30,
  /** s; a shorter pulse cannot be switched by hand (contract) */
  leastPulseS: 2,
  /** s by which a hand may be late (contract) */
  lateS: 1,
  /** mL/s that a hand can pour beside a running pump (contract) */
  mostPourMlPerS: 25,
  /** share of the lift that a slowed pump keeps in hand (contract) */
  liftReserve: 0.05,
  /** pulses before the simulation gives up; a loop that needs more has a reservoir too small to fill from */
  mostPulses: 200,
  /** L/h; the pump's push is spent */
  stallLph: 1e-3,
} as const;

/** The pumps' push at a flow through the reservoir and at a share of their speeds, kPa; each takes its share of the flow and weighs by it. */
function pushKpa(pumpsOfLoop: readonly LoopComponent[], steady: FlowResult, totalLph: number): (lph: number, slowed: number) => number {
  const pumps = pumpsOfLoop.map(({ id, curve, speed = 1 }) => {
    const own = Math.abs(steady.links.get(id)?.flowLph ?? 0);
    const share = totalLph > FILL.stallLph ? Math.min(1, own / totalLph) : 1;
    return { line: brokenLine(curve ?? []), speed, share };
  });
  return (lph, slowed) =>
    pumps.reduce((sum, { line, speed: full, share }) => {
      const speed = full * slowed;
      return speed > 0 ? sum + share * speed * speed * valueAt(line, (lph * share) / speed) : sum;
    }, 0);
}

/** The path that a filling front takes, and what drives it. */
export interface FrontDrive {
  readonly network: GeometricNetwork;
  readonly reservoirNode: number;
  readonly cells: readonly FrontCell[];
  readonly fillMarkMl: number;
  readonly lowMarkMl: number;
  /** L/h of the full loop */
  readonly steadyLph: number;
  /** mm; lift at which the pumps' push is spent */
  readonly shutoffMm: number;
  /** mm; where the reservoir's surface stands with so much in it */
  surfaceMm(contentMl: number): number;
  /** share of full speed that the file gives the first pump on the way */
  readonly speed: number;
  /** a pump on the way whose speed nobody can set */
  readonly fixedPump: LoopComponent | null;
  /** mL in the reservoir at which its outlet comes free */
  readonly outletMl: number;
  /** L/h that the pumps drive into a cell over a surface; `slowed`: share of the file's speeds */
  flowInto(cell: FrontCell, surfaceMm: number, slowed?: number): number;
}

/**
 * Before: a checked upright loop; the reservoir has a box, pumps have curves.
 * @param reservoir the one to fill from
 * @param gasThatStays mL by node at the running flow; without it all gas above vessels' ports, and none elsewhere
 */
export function frontDrive(
  loop: LoopFile,
  fluid: Fluid,
  reservoir: LoopComponent,
  gasThatStays?: (turned: TurnedNetwork, steady: FlowResult) => Float64Array,
): FrontDrive {
  const network = buildNetwork(loop);
  const turned = turnNetwork(network, STANDING.upright);
  const vessel = network.vessels.findIndex(({ part }) => loop.components[part] === reservoir);
  const box = turned.boxes[vessel] as TurnedBox;
  const steady = solveFlow(loop, { fluid, speeds: {}, closed: [] });
  const steadyLph = Math.abs(steady.links.get(reservoir.id)?.flowLph ?? 0);
  const cells = frontPath(turned, loop, reservoir, steady, gasThatStays?.(turned, steady) ?? null);
  const onTheWay = new Set(cells.map(({ node }) => network.part[node]));
  const pumps = loop.components.filter(({ kind, curve }, part) => kind === 'pump' && curve && onTheWay.has(part));
  const push = pushKpa(pumps, steady, steadyLph);
  const outlet = reservoir.flow?.[1] ?? (Object.keys(reservoir.ports).at(-1) as string);
  const outletHeight = turned.heightMm[network.ports.get(`${reservoir.id}.${outlet}`) as number] as number;
  const freeLph = loop.components.reduce((most, { curve }) => Math.max(most, curve?.at(-1)?.[0] ?? 0), 0) * 2 + LPH_PER_LPM;
  return {
    network,
    reservoirNode: (network.vessels[vessel] as { node: number }).node,
    cells,
    ...reservoirMarks(reservoir),
    steadyLph,
    shutoffMm: push(0, 1) / columnKpa(fluid.densityKgM3, 1),
    speed: pumps[0]?.speed ?? 1,
    fixedPump: pumps.find(({ speed_fixed: fixed }) => fixed === true) ?? null,
    outletMl: reservoir.volume_ml * shareBelow(box, outletHeight),
    surfaceMm: (contentMl) => levelAtShare(box, reservoir.volume_ml > 0 ? contentMl / reservoir.volume_ml : 0),
    flowInto: (cell, surface, slowed = 1) =>
      flowAgainst(
        (lph) => push(lph, slowed),
        columnKpa(fluid.densityKgM3, Math.max(0, cell.liftMm - surface)),
        cell.lossKpa,
        steadyLph,
        freeLph,
      ),
  };
}

export interface Filling {
  readonly cells: readonly FrontCell[];
  readonly wettedMl: Float64Array;
}

/** L/h to which a flow is found */
const FLOW_WITHIN_LPH = 1e-6;

/**
 * Flow in L/h that the push still drives against a lift and the losses so far. The push falls and the losses rise: one
 * crossing, found by regula falsi with the Illinois change (Dowell & Jarratt 1971).
 */
function flowAgainst(push: (lph: number) => number, liftKpa: number, lossKpa: number, steadyLph: number, freeLph: number): number {
  const excess = (lph: number): number => push(lph) - liftKpa - (steadyLph > 0 ? lossKpa * (lph / steadyLph) ** FILL.lossExponent : 0);
  let low = 0;
  let high = freeLph;
  let atLow = excess(low);
  if (atLow <= 0) return 0;
  let atHigh = excess(high);
  if (atHigh > 0) return high;
  let side = 0;
  for (let step = 0; step < 60 && high - low > FLOW_WITHIN_LPH; step += 1) {
    const lph = (low * atHigh - high * atLow) / (atHigh - atLow);
    const at = excess(lph);
    if (Math.abs(at) < 1e-12) return lph;
    if (at > 0) {
      if (side === 1) atHigh /= 2;
      [low, atLow, side] = [lph, at, 1];
    } else {
      if (side === -1) atLow /= 2;
      [high, atHigh, side] = [lph, at, -1];
    }
  }
  return low;
}

/** Fills what lies below the reservoir's surface on the outlet's side, up to the first crest above it. mL */
export function fillPassively({ cells, wettedMl }: Filling, surface: number): number {
  let ml = 0;
  for (let index = 0; index < cells.length; index += 1) {
    const cell = cells[index] as FrontCell;
    // gas above a radiator's ports needs the flow to leave
    if (cell.slow) continue;
    if (cell.liftMm > surface) break;
    ml += cell.volumeMl - (wettedMl[index] as number);
    wettedMl[index] = cell.volumeMl;
  }
  return ml;
}
