import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import type { Contents } from '../contents/contents.js';
import { advance, type Advance } from './advance.js';
import { fallBack } from './fallBack.js';
import { runsBackMl } from './runsBack.js';
import { contentsOf, fillDrive, firstReservoir, type FillDrive } from './fillDrive.js';
import { FILL, fillPassively, type Filling, type FrontDrive } from './frontMoves.js';

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
  /** share of full speed at which the pump runs: lowered where a hand could not switch in time */
  readonly speed: number;
  /** whether it is lowered by more than nobody sets */
  readonly slowed: boolean;
  /** where the liquid stands when the pump stops, and once the column has settled and the reservoir is topped up */
  readonly atStop: Contents;
  readonly settled: Contents;
}

export interface FillSimulation {
  /** false when the lift exceeds what the pump can push at no flow */
  readonly primes: boolean;
  /** liquid comes back and nothing more goes in */
  readonly finished: boolean;
  /** id of a pump that would have to run slower than it can be set; null: hands can do it */
  readonly tooQuick: string | null;
  /** reservoir to its fill mark, and what fills by itself */
  readonly passiveMl: number;
  readonly passive: Contents;
  /** up to where the pump stalls, when it does not prime */
  readonly pulses: readonly SimulatedPulse[];
  /** everything poured; gas that stays at the running flow is left out */
  readonly totalMl: number;
  /** all that may stay left out */
  readonly leastMl: number;
  /** the loop without the reservoir's room above its mark */
  readonly mostMl: number;
  /** largest height of the front above the falling surface */
  readonly liftMm: number;
  readonly shutoffMm: number;
  /** mL that run over when the pump stops, because gas enters at a return above the surface */
  readonly overflowMl: number;
}

/** share of full speed; a smaller change is none that a hand sets */
const LEAST_SLOWING = 0.005;
/** times a speed that is as good as that speed */
const ALIKE = 1.03;

/** A pulse that was chosen, and where the liquid then stands. */
interface Chosen {
  readonly pulse: SimulatedPulse;
  readonly wettedMl: Float64Array;
  readonly went: Advance;
  readonly tooQuick: boolean;
}

/** From where a fill goes on, and how it is done. */
export interface FillFrom {
  /** what stands inside already; missing: the loop is dry */
  readonly wettedMl?: Float64Array;
  readonly reservoirMl?: number;
  /** mL; where a pulse gains less, hands keep pouring while the pump runs. Missing: as the contract says */
  readonly leastGainMl?: number;
  /** mL/s that a hand is asked to pour beside the pump; missing: as the contract says */
  readonly mostPourMlPerS?: number;
  /** the way of the front, where it is known already */
  readonly drive?: FillDrive;
}

class FillRun {
  readonly filling: Filling;
  private readonly workingMl: number;
  /** share of the speeds that suited the last slowed pulse */
  private slowedTo: number | null = null;

  constructor(
    private readonly drive: FrontDrive,
    /** mm; the highest lift of the whole fill, if it is known: a slowed pump must still push it */
    private readonly wholeLiftMm: number | null,
    private readonly from: FillFrom,
  ) {
    this.filling = { cells: drive.cells, wettedMl: from.wettedMl?.slice() ?? new Float64Array(drive.cells.length) };
    this.workingMl = drive.fillMarkMl - drive.lowMarkMl;
  }

  /** Cells wetted like this as contents of the nodes. */
  at(wettedMl: Float64Array, reservoirMl: number): Contents {
    return contentsOf({ cells: this.filling.cells, wettedMl }, this.drive, reservoirMl);
  }

  /** From where the liquid stands, at a share of the speeds; what is wetted then comes with it. */
  private attempt(slowed: number, pouring: boolean): { went: Advance; wettedMl: Float64Array } {
    const { fillMarkMl } = this.drive;
    const trial = { cells: this.filling.cells, wettedMl: this.filling.wettedMl.slice() };
    const way = pouring
      ? { slowed, mostMl: Number.POSITIVE_INFINITY, reservoirMl: () => fillMarkMl, toReturn: true }
      : { slowed, mostMl: this.workingMl, reservoirMl: (movedMl: number) => fillMarkMl - movedMl };
    return { went: advance(this.drive, trial, way), wettedMl: trial.wettedMl };
  }

  /** The least share of the speeds whose push at no flow still exceeds the lift by the reserve. */
  private get slowest(): number {
    const { shutoffMm } = this.drive;
    return Math.min(1, Math.sqrt(((1 + FILL.liftReserve) * Math.max(0, this.wholeLiftMm ?? shutoffMm)) / Math.max(1e-9, shutoffMm)));
  }

  /** The highest share of the speeds at which hands can do a pulse; the slowest where none is. */
  private slowDown(suits: (went: Advance) => boolean, pouring: boolean): number {
    // pulses are much alike: what suited the last one mostly suits again
    const before = this.slowedTo;
    if (before !== null && suits(this.attempt(before, pouring).went) && !suits(this.attempt(ALIKE * before, pouring).went)) return before;
    let [low, high] = [this.slowest, 1];
    if (!suits(this.attempt(low, pouring).went)) return low;
    for (let step = 0; step < 9; step += 1) {
      const middle = (low + high) / 2;
      if (suits(this.attempt(middle, pouring).went)) low = middle;
      else high = middle;
    }
    this.slowedTo = low;
    return low;
  }

  /** One pulse at full speed, slowed where a hand is too slow for it; null: nothing moves. */
  next(): Chosen | null {
    const { fillMarkMl, outletMl, fixedPump } = this.drive;
    const full = this.attempt(1, false);
    if (full.went.movedMl <= 0) return null;
    const gain = this.gainOf(full);
    const pouring = !full.went.reachedReturn && !full.went.stalled && gain.gainMl < (this.from.leastGainMl ?? FILL.leastGainMl);
    const suits = pouring
      ? ({ lastLph, stalled }: Advance) => stalled || lastLph / 3.6 <= (this.from.mostPourMlPerS ?? FILL.mostPourMlPerS)
      : ({ runS, movedMl, lastLph, stalled }: Advance) =>
          stalled || (runS >= FILL.leastPulseS && fillMarkMl - movedMl - (lastLph / 3.6) * FILL.lateS >= outletMl);
    const first = pouring ? this.attempt(1, true) : full;
    const quick = pouring ? !suits(first.went) : full.went.runS < FILL.leastPulseS && !full.went.stalled;
    const slowed = quick && this.wholeLiftMm !== null && fixedPump === null ? this.slowDown(suits, pouring) : 1;
    const run = slowed === 1 ? first : this.attempt(slowed, pouring);
    return this.chosen(run, slowed, pouring, quick && (fixedPump !== null || !suits(run.went)));
  }

  /** What a pulse leaves behind once the pump stands and the reservoir is at its mark again. */
  private gainOf({ went, wettedMl }: { went: Advance; wettedMl: Float64Array }): {
    gainMl: number;
    fallsBackMl: number;
    rested: Float64Array;
  } {
    const { cells, fillMarkMl, surfaceMm } = this.drive;
    if (went.reachedReturn) return { gainMl: went.movedMl, fallsBackMl: 0, rested: wettedMl };
    const { fallsBackMl, stays } = fallBack(cells, wettedMl, fillMarkMl - went.movedMl, surfaceMm);
    // pouring to the mark raises the surface: what lies below it on the outlet's side fills again by itself
    const rested = { cells, wettedMl: stays.slice() };
    return { gainMl: went.movedMl - fallsBackMl + fillPassively(rested, surfaceMm(fillMarkMl)), fallsBackMl, rested: rested.wettedMl };
  }

  private chosen(run: { went: Advance; wettedMl: Float64Array }, slowed: number, pouring: boolean, tooQuick: boolean): Chosen | null {
    const { fillMarkMl, speed } = this.drive;
    const { went } = run;
    const gain = pouring ? { gainMl: went.movedMl, fallsBackMl: 0, rested: run.wettedMl } : this.gainOf(run);
    if (went.stalled && gain.gainMl < FILL.leastGainMl) return null;
    const pulse: SimulatedPulse = {
      runS: went.runS,
      movedMl: went.movedMl,
      fallsBackMl: gain.fallsBackMl,
      refillMl: gain.gainMl,
      pouredRunning: pouring,
      speed: speed * slowed,
      slowed: speed * (1 - slowed) > LEAST_SLOWING,
      atStop: this.at(run.wettedMl, pouring ? fillMarkMl : fillMarkMl - went.movedMl),
      settled: this.at(gain.rested, fillMarkMl),
    };
    return { pulse, wettedMl: gain.rested, went, tooQuick };
  }
}

/** What one pass of pulses comes to. */
interface Pass {
  readonly pulses: readonly SimulatedPulse[];
  readonly passiveMl: number;
  readonly passive: Contents;
  readonly liftMm: number;
  readonly stalled: boolean;
  readonly finished: boolean;
  readonly tooQuick: boolean;
}

function fillOnce(drive: FrontDrive, wholeLiftMm: number | null, from: FillFrom): Pass {
  const { fillMarkMl, lowMarkMl, surfaceMm } = drive;
  const run = new FillRun(drive, wholeLiftMm, from);
  const passiveMl = Math.max(0, fillMarkMl - (from.reservoirMl ?? 0)) + fillPassively(run.filling, surfaceMm(fillMarkMl));
  const passive = run.at(run.filling.wettedMl, fillMarkMl);
  const pulses: SimulatedPulse[] = [];
  let [liftMm, stalled, finished, tooQuick] = [0, false, false, false];
  while (pulses.length < FILL.mostPulses && fillMarkMl > lowMarkMl) {
    const next = run.next();
    // nothing moves: either everything is full, or the pump's push is spent
    if (next === null) {
      finished = run.filling.cells.every(({ volumeMl }, index) => volumeMl - (run.filling.wettedMl[index] as number) <= 1e-6);
      stalled = !finished;
      break;
    }
    run.filling.wettedMl.set(next.wettedMl);
    pulses.push(next.pulse);
    liftMm = Math.max(liftMm, next.went.liftMm);
    tooQuick ||= next.tooQuick;
    if (next.went.stalled) stalled = true;
    if (next.went.finished || next.went.stalled) {
      finished = next.went.finished;
      break;
    }
  }
  if (stalled) liftMm = Math.max(liftMm, remainingLift(run.filling, surfaceMm(fillMarkMl)));
  return { pulses, passiveMl, passive, liftMm, stalled, finished, tooQuick };
}

/** mm; the highest the front would still have to go from a full reservoir */
const remainingLift = ({ cells, wettedMl }: Filling, surface: number): number =>
  cells.reduce((most, cell, index) => ((wettedMl[index] as number) < cell.volumeMl ? Math.max(most, cell.liftMm - surface) : most), 0);

/**
 * Fills an upright loop in pulses that hands can do: the reservoir to its mark, pump on until the low mark or until the
 * front reaches the return, pump off, let the column fall back, top up; with the pump running where nothing would stay
 * between pulses. Gas that stays at the running flow is left out (contract, `fill` and `air`).
 * Before: a checked loop with a reservoir with a box; pumps have curves.
 * @param reservoir the one to fill from, where a case holds several circuits
 * @param from what stands inside already: `totalMl` is then what is still poured
 */
export function simulateFill(
  loop: LoopFile,
  fluid: Fluid,
  reservoir: LoopComponent = firstReservoir(loop),
  from: FillFrom = {},
): FillSimulation {
  const { drive, byCoreMl } = from.drive ?? fillDrive(loop, fluid, reservoir);
  const { fillMarkMl, shutoffMm } = drive;
  const first = fillOnce(drive, null, from);
  const primes = !first.stalled && first.liftMm <= shutoffMm;
  // how slow a pump may turn follows from the whole lift, which only the whole fill tells
  const canSlow = primes && first.tooQuick && drive.fixedPump === null;
  const { pulses, passiveMl, passive, liftMm, finished, tooQuick } = canSlow ? fillOnce(drive, first.liftMm, from) : first;
  const backMl = finished ? runsBackMl(loop, reservoir, drive) : 0;
  const last = pulses.at(-1);
  const totalMl = pulses.reduce((sum, { refillMl }) => sum + refillMl, passiveMl);
  return {
    primes,
    finished,
    tooQuick: tooQuick ? (drive.fixedPump?.id ?? loop.components.find(({ kind }) => kind === 'pump')?.id ?? null) : null,
    passiveMl,
    passive,
    pulses: last && backMl > 0 ? [...pulses.slice(0, -1), { ...last, fallsBackMl: last.fallsBackMl + backMl }] : pulses,
    totalMl,
    leastMl: Math.max(0, totalMl - byCoreMl),
    mostMl: loopVolume(loop).volumeMl - (reservoir.volume_ml - fillMarkMl),
    liftMm,
    shutoffMm,
    overflowMl: Math.max(0, backMl - (reservoir.volume_ml - fillMarkMl)),
  };
}
