import type { Fluid } from '../../machine/liquids/fluids.js';
import type { Contents } from '../contents/contents.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { fallBack } from './fallBack.js';
import { FILL, fillPassively, frontDrive, type Filling } from './frontMoves.js';
import type { FrontCell } from './frontPath.js';

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

const firstReservoir = (loop: LoopFile): LoopComponent => loop.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;

/** The wetted cells as contents of nodes, with what stands in the reservoir. */
function contentsOf({ cells, wettedMl }: Filling, nodes: number, reservoirNode: number, reservoirMl: number): Contents {
  const contents = new Float64Array(nodes);
  cells.forEach(({ node }, index) => (contents[node] = (contents[node] as number) + (wettedMl[index] as number)));
  contents[reservoirNode] = reservoirMl;
  return contents;
}

/**
 * Fills an upright loop in pulses: the reservoir to its mark, pump on until the low mark or until the front reaches
 * the return, pump off, let the column fall back, top up.
 * Before: a checked loop with a reservoir with a box; pumps have curves.
 * @param reservoir the one to fill from, where a case holds several circuits
 */
export function simulateFill(loop: LoopFile, fluid: Fluid, reservoir: LoopComponent = firstReservoir(loop)): FillSimulation {
  const drive = frontDrive(loop, fluid, reservoir);
  const { cells, fillMarkMl, lowMarkMl, shutoffMm, surfaceMm } = drive;
  const contents = (reservoirMl: number): Contents => contentsOf(filling, drive.network.size, drive.reservoirNode, reservoirMl);

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
      const surface = surfaceMm(fillMarkMl - movedMl);
      liftMm = Math.max(liftMm, cell.liftMm - surface);
      return drive.flowInto(cell, surface);
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
