import { brokenLine, valueAt } from '../flow/broken.js';
import { LPH_PER_LPM } from '../flow/defaults.js';
import { columnKpa, solveFlow, type FlowResult } from '../flow/flow.js';
import type { Fluid } from '../flow/friction.js';
import { levelAtShare, type TurnedBox } from '../geometry/levelCut.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING } from '../geometry/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import type { LoopComponent, LoopFile } from '../loops/loopFile.js';
import { reservoirMarks } from '../loops/marks.js';
import type { Contents } from '../geometry/contents.js';
import { fallBack } from './fallBack.js';
import { frontPath, type FrontCell } from './frontPath.js';

export interface SimulatedPulse {
  /** s until the low mark, or until the front reaches the return */
  readonly runS: number;
  readonly movedMl: number;
  /** back into the reservoir when the pump stops: leave room for it */
  readonly fallsBackMl: number;
  /** to the fill mark again, what fills by itself on the way included: pour at most this */
  readonly refillMl: number;
  /** poured while the pump runs, because between pulses all of it would fall back */
  readonly pouredRunning: boolean;
  /** where the liquid stands when the pump stops, and once the column has settled and the reservoir is topped up */
  readonly atStop: Contents;
  readonly settled: Contents;
}

export interface FillSimulation {
  /** false when the lift exceeds what the pump can push at no flow */
  readonly primes: boolean;
  /** reservoir to its fill mark, and what fills by itself */
  readonly passiveMl: number;
  readonly passive: Contents;
  /** up to where the pump stalls, when it does not prime */
  readonly pulses: readonly SimulatedPulse[];
  /** everything poured; gas that stays is left out */
  readonly totalMl: number;
  /** largest height of the front above the falling surface */
  readonly liftMm: number;
  readonly shutoffMm: number;
}

export const FILL = {
  /** exponent of losses with flow while the wetted length grows: between laminar and rough turbulent */
  lossExponent: 1.85,
  /** mL; a pulse that gains less than this leaves the settled level where it was */
  leastGainMl: 0.5,
  /** pulses before the simulation gives up; a loop that needs more has a reservoir too small to fill from */
  mostPulses: 200,
  /** L/h; the pump's push is spent */
  stallLph: 1e-3,
} as const;

/** The pumps' push at a flow through the reservoir, kPa; each takes its share of the flow and weighs by it. */
function pushKpa(pumpsOfLoop: readonly LoopComponent[], steady: FlowResult, totalLph: number): (lph: number) => number {
  const pumps = pumpsOfLoop.map(({ id, curve, speed = 1 }) => {
    const own = Math.abs(steady.links.get(id)?.flowLph ?? 0);
    const share = totalLph > FILL.stallLph ? Math.min(1, own / totalLph) : 1;
    return { line: brokenLine(curve ?? []), speed, share };
  });
  return (lph) =>
    pumps.reduce(
      (sum, { line, speed, share }) => (speed > 0 ? sum + share * speed * speed * valueAt(line, (lph * share) / speed) : sum),
      0,
    );
}

const firstReservoir = (loop: LoopFile): LoopComponent => loop.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;

interface Filling {
  readonly cells: readonly FrontCell[];
  readonly wettedMl: Float64Array;
}

/** The wetted cells as contents of nodes, with what stands in the reservoir. */
function contentsOf({ cells, wettedMl }: Filling, nodes: number, reservoirNode: number, reservoirMl: number): Contents {
  const contents = new Float64Array(nodes);
  cells.forEach(({ node }, index) => (contents[node] = (contents[node] as number) + (wettedMl[index] as number)));
  contents[reservoirNode] = reservoirMl;
  return contents;
}

/** Flow in L/h that the push still drives against a lift and the losses so far. The push falls and the losses rise: bisection. */
function flowAgainst(push: (lph: number) => number, liftKpa: number, lossKpa: number, steadyLph: number, freeLph: number): number {
  if (push(0) <= liftKpa) return 0;
  let low = 0;
  let high = freeLph;
  for (let step = 0; step < 40; step += 1) {
    const lph = (low + high) / 2;
    const loss = steadyLph > 0 ? lossKpa * (lph / steadyLph) ** FILL.lossExponent : 0;
    if (push(lph) > liftKpa + loss) low = lph;
    else high = lph;
  }
  return low;
}

/**
 * Fills an upright loop in pulses: the reservoir to its mark, pump on until the low mark or until the front reaches
 * the return, pump off, let the column fall back, top up.
 * Before: a checked loop with a reservoir with a box; pumps have curves.
 * @param reservoir the one to fill from, where a case holds several circuits
 */
export function simulateFill(loop: LoopFile, fluid: Fluid, reservoir: LoopComponent = firstReservoir(loop)): FillSimulation {
  const network = buildNetwork(loop);
  const turned = turnNetwork(network, STANDING.upright);
  const vessel = network.vessels.findIndex(({ part }) => loop.components[part] === reservoir);
  const box = turned.boxes[vessel] as TurnedBox;
  const surfaceMm = (contentMl: number): number => levelAtShare(box, reservoir.volume_ml > 0 ? contentMl / reservoir.volume_ml : 0);
  const { fillMarkMl, lowMarkMl } = reservoirMarks(reservoir);
  const steady = solveFlow(loop, { fluid, speeds: {}, closed: [] });
  const steadyLph = Math.abs(steady.links.get(reservoir.id)?.flowLph ?? 0);
  const cells = frontPath(turned, loop, reservoir, steady);
  const onTheWay = new Set(cells.map(({ node }) => network.part[node]));
  const pumps = loop.components.filter(({ kind, curve }, part) => kind === 'pump' && curve && onTheWay.has(part));
  const push = pushKpa(pumps, steady, steadyLph);
  const freeLph = loop.components.reduce((most, { curve }) => Math.max(most, curve?.at(-1)?.[0] ?? 0), 0) * 2 + LPH_PER_LPM;
  const shutoffMm = push(0) / columnKpa(fluid.densityKgM3, 1);
  const reservoirNode = (network.vessels[vessel] as { node: number }).node;
  const contents = (reservoirMl: number): Contents => contentsOf(filling, network.size, reservoirNode, reservoirMl);

  const filling = { cells, wettedMl: new Float64Array(cells.length) };
  const passiveMl = fillMarkMl + fillPassively(filling, surfaceMm(fillMarkMl));
  const passive = contents(fillMarkMl);
  const pulses: SimulatedPulse[] = [];
  let totalMl = passiveMl;
  let liftMm = 0;
  let primes = true;
  const workingMl = fillMarkMl - lowMarkMl;

  while (pulses.length < FILL.mostPulses && workingMl > 0) {
    const before = filling.wettedMl.slice();
    const run = advance(filling, workingMl, (cell, movedMl) => {
      const lift = cell.liftMm - surfaceMm(fillMarkMl - movedMl);
      liftMm = Math.max(liftMm, lift);
      return flowAgainst(push, columnKpa(fluid.densityKgM3, Math.max(0, lift)), cell.lossKpa, steadyLph, freeLph);
    });
    if (run.movedMl <= 0) break;
    if (run.stalled) primes = false;
    const atStop = contents(fillMarkMl - run.movedMl);
    const settled = run.reachedReturn
      ? { fallsBackMl: 0, stays: filling.wettedMl }
      : fallBack(cells, filling.wettedMl, fillMarkMl - run.movedMl, surfaceMm);
    // pouring to the mark raises the surface: what lies below it on the outlet's side fills again by itself
    const rested = { cells, wettedMl: settled.stays.slice() };
    const gainMl = run.movedMl - settled.fallsBackMl + (run.reachedReturn ? 0 : fillPassively(rested, surfaceMm(fillMarkMl)));
    const pouredRunning = !run.reachedReturn && !run.stalled && gainMl < FILL.leastGainMl;
    if (!run.stalled || gainMl >= FILL.leastGainMl) {
      if (!pouredRunning) filling.wettedMl.set(rested.wettedMl);
      const refillMl = pouredRunning ? run.movedMl : gainMl;
      const fallsBackMl = pouredRunning ? 0 : settled.fallsBackMl;
      pulses.push({ runS: run.runS, movedMl: run.movedMl, fallsBackMl, refillMl, pouredRunning, atStop, settled: contents(fillMarkMl) });
      totalMl += refillMl;
    } else filling.wettedMl.set(before);
    if (run.reachedReturn || run.stalled) break;
  }
  if (!primes) liftMm = Math.max(liftMm, remainingLift(filling, surfaceMm(fillMarkMl)));
  return { primes: primes && liftMm <= shutoffMm, passiveMl, passive, pulses, totalMl, liftMm, shutoffMm };
}

/** Fills what lies below the reservoir's surface on the outlet's side, up to the first crest above it. mL */
function fillPassively({ cells, wettedMl }: Filling, surface: number): number {
  let ml = 0;
  for (let index = 0; index < cells.length; index += 1) {
    const cell = cells[index] as FrontCell;
    if (cell.liftMm > surface) break;
    ml += cell.volumeMl - (wettedMl[index] as number);
    wettedMl[index] = cell.volumeMl;
  }
  return ml;
}

interface Run {
  readonly runS: number;
  readonly movedMl: number;
  readonly reachedReturn: boolean;
  readonly stalled: boolean;
}

/** Moves the front on until `mostMl` have left the reservoir, the return is reached, or the pump can push no further. */
function advance({ cells, wettedMl }: Filling, mostMl: number, flowAt: (cell: FrontCell, movedMl: number) => number): Run {
  let movedMl = 0;
  let runS = 0;
  for (let index = 0; index < cells.length; index += 1) {
    const cell = cells[index] as FrontCell;
    const missing = cell.volumeMl - (wettedMl[index] as number);
    if (missing <= 1e-12) continue;
    const step = Math.min(missing, mostMl - movedMl);
    if (step <= 1e-12) return { runS, movedMl, reachedReturn: false, stalled: false };
    const lph = flowAt(cell, movedMl + step);
    if (lph <= FILL.stallLph) return { runS, movedMl, reachedReturn: false, stalled: true };
    runS += (3.6 * step) / lph;
    movedMl += step;
    wettedMl[index] = (wettedMl[index] as number) + step;
  }
  return { runS, movedMl, reachedReturn: true, stalled: false };
}

/** mm; the highest the front would still have to go from a full reservoir */
const remainingLift = ({ cells, wettedMl }: Filling, surface: number): number =>
  cells.reduce((most, cell, index) => ((wettedMl[index] as number) < cell.volumeMl ? Math.max(most, cell.liftMm - surface) : most), 0);
