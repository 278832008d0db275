import { FILL, type Filling, type FrontDrive } from './frontMoves.js';
import type { FrontCell } from './frontPath.js';

/** How one pulse is run. */
export interface PulseWay {
  /** share of the file's speeds at which the pumps run */
  readonly slowed: number;
  /** mL that may leave the reservoir */
  readonly mostMl: number;
  /** mL in the reservoir while so much has left it: falling, or held at the mark by a hand that pours */
  readonly reservoirMl: (movedMl: number) => number;
  /** ends when the return is reached, though gas still leaves */
  readonly toReturn?: boolean;
  /** s after which the pump is switched off; missing: nobody does */
  readonly mostS?: number;
}

export interface Advance {
  readonly runS: number;
  readonly movedMl: number;
  /** liquid comes back */
  readonly reachedReturn: boolean;
  /** and no gas leaves any more */
  readonly finished: boolean;
  readonly stalled: boolean;
  /** what may leave the reservoir has left it */
  readonly emptied: boolean;
  /** L/h when it ended */
  readonly lastLph: number;
  /** mm; the most that the front had to rise above the surface */
  readonly liftMm: number;
}

const CLOSE_ML = 1e-12;
/** s; so little is left when somebody switches off in time */
const CLOSE_S = 1e-9;

type End = 'full' | 'emptied' | 'stalled' | 'switched-off' | 'finished' | 'at-return';

/** One pulse as it goes on: the front, and the gas that leaves beside it. */
class Pulse {
  movedMl = 0;
  runS = 0;
  lastLph = 0;
  liftMm = 0;
  private readonly leaving: number[] = [];

  constructor(
    private readonly drive: FrontDrive,
    private readonly filling: Filling,
    private readonly way: PulseWay,
  ) {}

  private missing = (index: number): number => (this.filling.cells[index] as FrontCell).volumeMl - (this.filling.wettedMl[index] as number);

  private wet(index: number, ml: number): void {
    this.filling.wettedMl[index] = (this.filling.wettedMl[index] as number) + ml;
  }

  private get roomMl(): number {
    return this.way.mostMl - this.movedMl;
  }

  /** Gas that leaves behind the front, while so much flows. @returns mL that took its room */
  private leave(flowsMl: number): number {
    let taken = 0;
    for (const index of this.leaving) {
      const ml = Math.min(this.missing(index), FILL.slowShare * flowsMl);
      this.wet(index, ml);
      taken += ml;
    }
    return taken;
  }

  private done(end: End, reachedReturn: boolean): Advance {
    const { runS, movedMl, lastLph, liftMm } = this;
    return {
      runS,
      movedMl,
      reachedReturn,
      finished: end === 'finished',
      stalled: end === 'stalled',
      emptied: end === 'emptied',
      lastLph,
      liftMm,
    };
  }

  /** s that the pump may still run */
  private get secondsLeft(): number {
    return (this.way.mostS ?? Number.POSITIVE_INFINITY) - this.runS;
  }

  run(): Advance {
    const { cells } = this.filling;
    for (let index = 0; index < cells.length; index += 1) {
      const cell = cells[index] as FrontCell;
      if (cell.slow) {
        if (this.missing(index) > CLOSE_ML) this.leaving.push(index);
        continue;
      }
      const end = this.fill(cell, index);
      if (end !== 'full') return this.done(end, false);
    }
    if (!this.way.toReturn) return this.done(this.circulate(), true);
    return this.done(this.leaving.every((index) => this.missing(index) <= CLOSE_ML) ? 'finished' : 'at-return', true);
  }

  /** Fills one cell with what the pumps drive into it. */
  private fill(cell: FrontCell, index: number): End {
    while (this.missing(index) > CLOSE_ML) {
      const active = this.leaving.filter((each) => this.missing(each) > CLOSE_ML).length;
      const share = Math.max(FILL.slowShare, 1 - FILL.slowShare * active);
      const wanted = Math.min(this.missing(index), this.roomMl * share);
      if (wanted <= CLOSE_ML) return 'emptied';
      const surface = this.drive.surfaceMm(this.way.reservoirMl(this.movedMl + wanted / share));
      this.liftMm = Math.max(this.liftMm, cell.liftMm - surface);
      const lph = this.drive.flowInto(cell, surface, this.way.slowed);
      if (lph <= FILL.stallLph) return 'stalled';
      this.lastLph = lph;
      const step = Math.min(wanted, (share * this.secondsLeft * lph) / 3.6);
      if (this.secondsLeft <= CLOSE_S) return 'switched-off';
      this.wet(index, step);
      const moved = step + this.leave(step / share);
      this.runS += (3.6 * moved) / lph;
      this.movedMl += moved;
    }
    return 'full';
  }

  /** Liquid goes round; only what takes the room of leaving gas still leaves the reservoir. */
  private circulate(): End {
    const lph = Math.max(FILL.stallLph, this.drive.steadyLph * this.way.slowed);
    for (;;) {
      const active = this.leaving.filter((index) => this.missing(index) > 1e-6);
      if (active.length === 0) return 'finished';
      if (this.roomMl <= CLOSE_ML) return 'emptied';
      if (this.secondsLeft <= CLOSE_S) return 'switched-off';
      this.lastLph = lph;
      const each = Math.min(...active.map(this.missing), this.roomMl / active.length, (FILL.slowShare * lph * this.secondsLeft) / 3.6);
      for (const index of active) this.wet(index, each);
      this.runS += (3.6 * each) / (FILL.slowShare * lph);
      this.movedMl += each * active.length;
    }
  }
}

/** Moves the front on until what may leave the reservoir has left it, nothing more goes in, or the pumps can push no further. */
export const advance = (drive: FrontDrive, filling: Filling, way: PulseWay): Advance => new Pulse(drive, filling, way).run();
