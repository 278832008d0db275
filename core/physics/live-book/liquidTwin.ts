import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDING, type Tilt } from '../../machine/loop-file/orientation.js';
import { leavesAt, nodesOf, openUp, type OpeningSetup } from '../draining/openings.js';
import { partlyOut } from '../draining/partlyOut.js';
import { runOut } from '../draining/runOut.js';
import { advance } from '../filling/advance.js';
import { fallBack } from '../filling/fallBack.js';
import { contentsOf, fillDrive, firstReservoir, type FillDrive } from '../filling/fillDrive.js';
import type { FrontDrive } from '../filling/frontMoves.js';
import type { FrontCell } from '../filling/frontPath.js';
import { returnAboveSurface } from '../filling/runsBack.js';
import { turnNetwork } from '../geometry/turned.js';
import { totalMl, type Contents } from '../contents/contents.js';

/** Where the liquid of a loop stands: in the reservoir, and cell by cell on the way. mL */
export interface Wetted {
  reservoirMl: number;
  readonly wettedMl: Float64Array;
}

/** Contents as they were kept, for this twin; null where none are known, or they belong to a loop of another shape. */
export const wettedOf = (
  twin: LiquidTwin,
  kept: { readonly reservoirMl: number; readonly wettedMl: readonly number[] } | null | undefined,
): Wetted | null =>
  kept?.wettedMl.length === twin.drive.cells.length ? { reservoirMl: kept.reservoirMl, wettedMl: Float64Array.from(kept.wettedMl) } : null;

export const copyOf = ({ reservoirMl, wettedMl }: Wetted): Wetted => ({ reservoirMl, wettedMl: wettedMl.slice() });

/** mL; a cell that lacks no more is full */
const FULL_WITHIN_ML = 1e-6;

/** mm; a return that ends so little above the surface is wetted by what falls from it: no gas goes up it (estimate) */
const DIPS_WITHIN_MM = 10;

export interface PumpRan {
  readonly movedMl: number;
  /** s with the reservoir's outlet uncovered */
  readonly dryS: number;
}

/**
 * What hands and pump do to the liquid in one loop, filled from one reservoir: pour, run the pump for a while, stop it,
 * open it in any stand. Every move changes the given contents in place and keeps every millilitre.
 */
export class LiquidTwin {
  readonly drive: FrontDrive;
  /** mL of gas that may stay as well */
  readonly byCoreMl: number;
  readonly brimMl: number;

  /** Before: a checked loop; the reservoir has a box, pumps have curves. */
  constructor(
    readonly loop: LoopFile,
    fluid: Fluid,
    readonly reservoir: LoopComponent = firstReservoir(loop),
    { drive, byCoreMl }: FillDrive = fillDrive(loop, fluid, reservoir),
  ) {
    this.drive = drive;
    this.byCoreMl = byCoreMl;
    this.brimMl = reservoir.volume_ml;
  }

  empty(): Wetted {
    return { reservoirMl: 0, wettedMl: new Float64Array(this.drive.cells.length) };
  }

  /** A filled loop: everything wetted that is likely to be, the reservoir at its mark. */
  atMark(): Wetted {
    return { reservoirMl: this.drive.fillMarkMl, wettedMl: Float64Array.from(this.drive.cells, ({ volumeMl }) => volumeMl) };
  }

  /** mL outside the reservoir */
  wayMl({ wettedMl }: Wetted): number {
    return totalMl(wettedMl);
  }

  /** mL on the way of a filled loop */
  get wholeWayMl(): number {
    return this.drive.cells.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
  }

  insideMl(at: Wetted): number {
    return at.reservoirMl + this.wayMl(at);
  }

  private missing(at: Wetted, index: number): number {
    return (this.drive.cells[index] as FrontCell).volumeMl - (at.wettedMl[index] as number);
  }

  /** Whether a running pump brings liquid back: no gap is left on the way. */
  goesRound(at: Wetted): boolean {
    return this.drive.cells.every(({ slow }, index) => slow || this.missing(at, index) <= FULL_WITHIN_ML);
  }

  /** Liquid finds its level by itself on the outlet's side, up to the first crest above the surface. */
  private settle(at: Wetted): void {
    const { cells, surfaceMm, outletMl } = this.drive;
    for (let index = 0; index < cells.length; index += 1) {
      const cell = cells[index] as FrontCell;
      const missing = this.missing(at, index);
      if (cell.slow || missing <= 1e-9) continue;
      const free = at.reservoirMl - outletMl;
      if (free <= 0 || cell.liftMm > surfaceMm(at.reservoirMl)) return;
      const moved = Math.min(missing, free);
      at.wettedMl[index] = (at.wettedMl[index] as number) + moved;
      at.reservoirMl -= moved;
    }
  }

  /** @returns mL that run over the brim */
  private skim(at: Wetted): number {
    const overMl = Math.max(0, at.reservoirMl - this.brimMl);
    at.reservoirMl -= overMl;
    return overMl;
  }

  /** @returns mL that run over the brim */
  pour(at: Wetted, ml: number): number {
    at.reservoirMl += ml;
    this.settle(at);
    return this.skim(at);
  }

  /** The pump runs upright for a while, at a share of the file's speeds. */
  run(at: Wetted, seconds: number, slowed = 1): PumpRan {
    const { cells, outletMl } = this.drive;
    const start = at.reservoirMl;
    const free = Math.max(0, start - outletMl);
    const filling = { cells, wettedMl: at.wettedMl };
    const went = advance(this.drive, filling, { slowed, mostMl: free, reservoirMl: (moved) => start - moved, mostS: seconds });
    at.reservoirMl = start - went.movedMl;
    const uncovered = went.emptied || (free <= 0 && !went.stalled);
    return { movedMl: went.movedMl, dryS: uncovered ? Math.max(0, seconds - went.runS) : 0 };
  }

  /**
   * The pump stops: what does not hang behind a crest falls back, and gas enters where the return lies above the surface.
   * @param mostBackMl what the pump has moved: no more falls back
   * @returns mL that run over
   */
  stop(at: Wetted, mostBackMl = Number.POSITIVE_INFINITY): number {
    if (this.goesRound(at)) {
      const end = returnAboveSurface(this.loop, this.reservoir, this.drive, at.reservoirMl, DIPS_WITHIN_MM);
      if (end !== null) this.runBack(at, end);
    } else {
      const { fallsBackMl, stays } = fallBack(this.drive.cells, at.wettedMl, at.reservoirMl, this.drive.surfaceMm);
      // what stood there before the pump ran stands there again
      const share = fallsBackMl > 0 ? Math.min(1, mostBackMl / fallsBackMl) : 0;
      at.wettedMl.forEach((ml, index) => (at.wettedMl[index] = ml + share * ((stays[index] as number) - ml)));
      at.reservoirMl += share * fallsBackMl;
    }
    this.settle(at);
    return this.skim(at);
  }

  /** What leaves the tube at the return joins the reservoir. */
  private runBack(at: Wetted, end: string): void {
    const turned = turnNetwork(this.drive.network, STANDING.upright);
    const contents = this.contents(at);
    const inside = totalMl(contents);
    const { left, byDrain } = runOut(turned, openUp(this.drive.network, { open: [end], drains: [end], closed: [] }), contents);
    const [tubeNode] = nodesOf(this.drive.network, end);
    if ((byDrain.get(tubeNode as number) ?? 0) <= 0) return;
    this.take(at, left);
    at.reservoirMl = inside - this.wayMl(at);
  }

  /** Opened in a stand, with the pump off. `contents`: where they are not those of the cells. @returns mL that leave by each opening that runs, and what is held for want of air */
  open(
    at: Wetted,
    tilt: Tilt,
    setup: OpeningSetup,
    contents = this.contents(at),
  ): { readonly drainedMl: number; readonly heldMl: number; at(opening: string): number } {
    const { network } = this.drive;
    const { drainedMl, heldMl, left, byDrain } = runOut(turnNetwork(network, tilt), openUp(network, setup), contents);
    this.take(at, left);
    return { drainedMl, heldMl, at: (opening) => leavesAt(network, opening, byDrain) };
  }

  /**
   * Opened in a stand until so much has come, then shut: what stood highest left first.
   * @returns mL that came, at most what would
   */
  openUntil(at: Wetted, tilt: Tilt, setup: OpeningSetup, ml: number, contents = this.contents(at)): number {
    const { network } = this.drive;
    const turned = turnNetwork(network, tilt);
    const { drainedMl, left } = runOut(turned, openUp(network, setup), contents);
    const came = Math.min(ml, drainedMl);
    this.take(at, partlyOut(turned, contents, left, came));
    return came;
  }

  /** As contents of the geometric network's nodes. */
  contents({ reservoirMl, wettedMl }: Wetted): Contents {
    return contentsOf({ cells: this.drive.cells, wettedMl }, this.drive, reservoirMl);
  }

  /** From contents of nodes: a vessel's cells from its bottom up; more than a cell is likely to hold stays with it. */
  take(at: Wetted, contents: Contents): void {
    const { cells, reservoirNode } = this.drive;
    const rest = contents.slice();
    const lastOf = new Map(cells.map(({ node }, index) => [node, index]));
    cells.forEach(({ node, volumeMl }, index) => {
      const held = rest[node] as number;
      const here = lastOf.get(node) === index ? held : Math.min(volumeMl, held);
      at.wettedMl[index] = here;
      rest[node] = held - here;
    });
    at.reservoirMl = contents[reservoirNode] as number;
  }

  /** So much stands on the way: the front goes on or back until it does. What no cell can hold is left out. */
  setWay(at: Wetted, ml: number): void {
    const { cells } = this.drive;
    let more = ml - this.wayMl(at);
    for (let index = 0; index < cells.length && more > 0; index += 1) {
      const add = Math.min(more, Math.max(0, this.missing(at, index)));
      at.wettedMl[index] = (at.wettedMl[index] as number) + add;
      more -= add;
    }
    for (let index = cells.length - 1; index >= 0 && more < 0; index -= 1) {
      const gone = Math.min(-more, at.wettedMl[index] as number);
      at.wettedMl[index] = (at.wettedMl[index] as number) - gone;
      more += gone;
    }
  }
}
