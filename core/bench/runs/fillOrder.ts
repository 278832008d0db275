import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { liquidAt } from '../../machine/liquids/fluids.js';
import { copyOf, wettedOf, type LiquidTwin, type Wetted } from '../../physics/live-book/liquidTwin.js';
import { BOOK } from '../../physics/live-book/loopContents.js';
import { simulateFill, type FillSimulation, type SimulatedPulse } from '../../physics/filling/fillSimulation.js';
import { FILL } from '../../physics/filling/frontMoves.js';
import { BENCH_C, jugSdMl } from '../../physics/measuring/errors.js';
import { standingNow, twinOf, type Now } from './book.js';
import { leftOpen } from './locks.js';
import { stepThat, type Procedure } from './procedure.js';
import type { RunState } from './state.js';

/** What hands do next while a loop is filled, by what is inside now. */
export type FillOrder =
  /** what was left open and must be shut before liquid meets it: ports by name, joints by their tube */
  | { readonly do: 'shut'; readonly ports: readonly string[]; readonly joints: readonly string[] }
  /** so much at most, and no further than so many mL in the reservoir: the mark, or less where a pump may give back what is poured beside it */
  | { readonly do: 'pour'; readonly mostMl: number; readonly upToMl: number }
  /** the level is not known well enough to pour or to start the pump */
  | { readonly do: 'read-level' }
  /** more stands there than the mark allows and what comes back has room for */
  | { readonly do: 'draw-off'; readonly ml: number; readonly downToMl: number }
  /** for so long, at this share of full speed where it must be slowed; `pour`: poured meanwhile, in one go, and never further up than so many mL in the reservoir */
  | {
      readonly do: 'pump-on';
      readonly runS: number;
      readonly speed: number | null;
      /** mL in the reservoir at which it is switched off, whatever the clock says */
      readonly offAtMl: number;
      readonly pour: { readonly ml: number; readonly upToMl: number } | null;
    }
  | { readonly do: 'pump-off'; readonly inS: number }
  /** the pump runs and draws: pour as fast, up to the mark, until liquid comes back */
  | { readonly do: 'pour-running'; readonly upToMl: number }
  /** nothing more goes in: the level stays and liquid comes back */
  | { readonly do: 'finish' }
  /** the pump cannot lift it to the highest point */
  | { readonly do: 'cannot-prime'; readonly liftMm: number; readonly shutoffMm: number };

export const FILL_ORDER = {
  /** standard deviations that a pour stays below the lid, and a level above the low mark */
  keepsSd: 2,
  /** share by which a pump may move more than its curve says (its head by 15 %) */
  fasterShare: 1.15,
  /** s; how long liquid must come back before the level counts as staying */
  roundS: 60,
  /** factor on that after each run that liquid went round for so long, and the most: bubbles come home slower and slower, and each run wants a top-up */
  longerEachTime: 2,
  mostRoundS: 240,
  /** mL within which a level stays where it was: a column's meniscus, and once liquid goes round, what a minute of bubbles may take */
  staysWithinMl: 8,
  roundWithinMl: 15,
  /** share of the way that comes back as foam when liquid begins to go round (estimate) */
  foamShare: 0.05,
  /** share of its speed below which nobody can set a pump */
  leastSpeedShare: 0.2,
  /** times the lift that a slowed pump must still be able to push: its head may be 15 % less than its curve says */
  liftReserve: 1.2,
  /** factor on the speed after a run that the level ended early, and after one that moved nothing */
  slowerShare: 0.7,
  quickerShare: 1.25,
  /** share of its time below which a run was ended early */
  shortShare: 0.6,
  /** share of a speed that nobody sets more finely */
  settableShare: 0.005,
  /** factors on a pump's head, as its curve says and as far off as it may be, and how often a start from a lower level is tried */
  headFactors: [0.85, 1, 1.15],
  startSteps: 4,
  /** share of what stays behind a crest by which it may be less: volumes of several parts, each off by 20 % */
  staysSdShare: 0.1,
  /** s; longest that a bottle is poured beside a running pump */
  mostPourS: 120,
  /** s; nobody looks more often than that, nor needs to */
  leastLookS: 15,
  /** s; longest time at a stretch without a look at the level */
  mostRunS: 60,
} as const;

/** kPa under a millimetre of coolant */
const KPA_PER_MM = 9.8e-3;

/** A pour that leaves, with its own error and the level's, two standard deviations to the lid. */
function mostPour(roomMl: number, levelSdMl: number, toMarkMl: number): number {
  let most = Math.max(0, Math.min(toMarkMl, roomMl));
  for (let step = 0; step < 3; step += 1)
    most = Math.min(most, Math.max(0, roomMl - FILL_ORDER.keepsSd * Math.hypot(levelSdMl, jugSdMl(most))));
  return most;
}

const plans = new WeakMap<object, FillSimulation>();

/** The fill from what is inside now, as hands do it: one plan for every screen. null where nothing can be simulated. */
export function fillFromNow(procedure: Procedure, state: RunState): FillSimulation | null {
  const twin = twinOf(procedure);
  const { standing } = state.contents;
  const at = twin && wettedOf(twin, standing);
  if (!twin || !procedure.twin || !standing || !at) return null;
  const known = plans.get(standing);
  if (known) return known;
  const plan = simulateFill(twin.loop, liquidAt(procedure.twin.liquid, BENCH_C), twin.reservoir, {
    ...at,
    leastGainMl: FILL.handsGainMl,
    mostPourMlPerS: FILL.mostPourMlPerS / FILL_ORDER.fasterShare ** 2,
    drive: { drive: twin.drive, byCoreMl: twin.byCoreMl },
  });
  plans.set(standing, plan);
  return plan;
}

interface PulseRun {
  /** s that the pump may run by the book before the level could stand at the low mark, were it as quick as it can be */
  readonly runS: number;
  /** mL/s, the quickest of it */
  readonly fastestMlPerS: number;
}

function runOfPulse({ twin, at, sdMl }: Now, speed: number, volumeSdMl: number): PulseRun {
  const { lowMarkMl } = twin.drive;
  const slowed = speed / Math.max(1e-3, twin.drive.speed);
  const run = copyOf(at);
  const stepS = 0.25;
  let seconds = 0;
  let fastestMlPerS = 0;
  const done = (runS: number): PulseRun => ({ runS: Math.max(FILL.leastPulseS, runS), fastestMlPerS });
  while (seconds < FILL_ORDER.mostRunS && run.reservoirMl - FILL_ORDER.keepsSd * sdMl > lowMarkMl) {
    const { movedMl } = twin.run(run, stepS, slowed);
    fastestMlPerS = Math.max(fastestMlPerS, movedMl / stepS);
    seconds += stepS;
    if (!twin.goesRound(run)) continue;
    // the way may end later than the parts' volumes say: is there enough left for that?
    const sd = Math.hypot(sdMl, volumeSdMl, BOOK.gasSdShare * twin.wayMl(run));
    const enough = run.reservoirMl - FILL_ORDER.keepsSd * sd > lowMarkMl;
    return done(enough ? seconds + FILL_ORDER.roundS : seconds / FILL_ORDER.fasterShare);
  }
  return done(seconds / FILL_ORDER.fasterShare);
}

/** mL in the reservoir that are not exceeded while the pump runs: bubbles that the front left behind come back as room that liquid had. */
const runningMarkMl = (twin: LiquidTwin): number =>
  Math.max(twin.drive.lowMarkMl, Math.min(twin.drive.fillMarkMl, twin.brimMl - FILL_ORDER.foamShare * twin.wholeWayMl));

/** When liquid was last poured in, coolant or rinse; 0: never. */
const pouredAtMs = ({ pours, service }: RunState): number =>
  Math.max(0, ...[pours.at(-1), service.rinses.at(-1)].flatMap((each) => (each ? [Date.parse(each.at)] : [])));

/** Pump runs since the last pour, and how many of them in a row ended before their time: the level fell to where it is switched off. */
function runsSincePour(state: RunState): { readonly all: number; readonly short: number } {
  const since = pouredAtMs(state);
  const runs = state.pumpRuns.filter(({ startedAt, stoppedAt }) => stoppedAt !== null && Date.parse(startedAt) >= since);
  const isShort = ({ startedAt, stoppedAt }: (typeof runs)[number]): boolean =>
    Date.parse(stoppedAt as string) - Date.parse(startedAt) < 1000 * FILL_ORDER.shortShare * FILL_ORDER.roundS;
  const long = runs.findLastIndex((each) => !isShort(each));
  return { all: runs.length, short: runs.length - 1 - long };
}

/**
 * Share of full speed at which the pump runs; null: as it is set. Once liquid goes round the reservoir empties as fast as
 * the loop flows: a hand that is late by a second must still find the outlet under the surface. Where gas is squeezed so
 * that the level falls at once, slower squeezes less; where nothing moved, quicker lifts higher.
 */
function speedFor(
  { twin, isRound }: Now,
  wanted: number,
  liftShare: number,
  runs: { readonly all: number; readonly short: number },
): number | null {
  const { speed, steadyLph, lowMarkMl, outletMl, fixedPump } = twin.drive;
  if (fixedPump !== null) return null;
  const least = speed * Math.max(FILL_ORDER.leastSpeedShare, isRound ? 0 : Math.min(1, liftShare));
  const safe = steadyLph <= 0 ? speed : (speed * (3.6 * (lowMarkMl - outletMl))) / (FILL.lateS * FILL_ORDER.fasterShare * steadyLph);
  const tried = isRound
    ? speed * FILL_ORDER.slowerShare ** runs.short
    : Math.min(wanted, safe) * FILL_ORDER.quickerShare ** Math.max(0, runs.all - 1);
  const to = Math.min(speed, Math.max(least, tried));
  return to < speed * (1 - FILL_ORDER.settableShare) ? to : null;
}

/** mL by which the level falls at once when liquid comes back: gas that stays is squeezed by about half of the pump's push. */
function squeezedMl(twin: LiquidTwin, speedShare: number): number {
  const gasMl = Math.max(0, loopVolume(twin.loop).volumeMl - twin.brimMl - twin.wholeWayMl) + twin.byCoreMl;
  const gaugeKpa = (twin.drive.shutoffMm * speedShare ** 2 * KPA_PER_MM) / 2;
  return (gasMl * gaugeKpa) / (gaugeKpa + STANDARD_ATMOSPHERE_KPA);
}

/** mL in the reservoir at which the pump is switched off, so that a hand may be late even where liquid goes round already. */
function switchOffMl({ twin, isRound }: Now, speed: number | null, fastestMlPerS: number): number {
  const { lowMarkMl, fillMarkMl, outletMl, steadyLph } = twin.drive;
  if (isRound) return lowMarkMl;
  const share = speed === null ? 1 : speed / Math.max(1e-3, twin.drive.speed);
  const mlPerS = FILL_ORDER.fasterShare * Math.max(fastestMlPerS, (steadyLph * share) / 3.6);
  const lateMl = FILL.lateS * mlPerS + squeezedMl(twin, share);
  return Math.min(Math.max(lowMarkMl, outletMl + lateMl), (lowMarkMl + fillMarkMl) / 2);
}

/** s that a pump may run whose front is past the end that the book expects: as quick as the whole loop's flow takes what stands there. */
function unknownEndS({ twin, at, sdMl }: Now): number {
  const free = at.reservoirMl - FILL_ORDER.keepsSd * sdMl - twin.drive.lowMarkMl;
  return Math.max(FILL.leastPulseS, Math.min(FILL_ORDER.roundS, (3.6 * free) / Math.max(1, twin.drive.steadyLph * FILL_ORDER.fasterShare)));
}

/** s that liquid goes round this time: longer after each run that it did so already. */
function roundRunS({ pumpRuns }: RunState): number {
  const ended = pumpRuns.filter(({ stoppedAt }) => stoppedAt !== null);
  const isLong = ({ startedAt, stoppedAt }: (typeof ended)[number]): boolean =>
    Date.parse(stoppedAt as string) - Date.parse(startedAt) >= 900 * FILL_ORDER.roundS;
  const times = ended.length - 1 - ended.findLastIndex((each) => !isLong(each));
  return Math.min(FILL_ORDER.mostRoundS, FILL_ORDER.roundS * FILL_ORDER.longerEachTime ** times);
}

/** Whether liquid went round for long enough since the last pour, with the pump off again. */
function ranRound(state: RunState): boolean {
  const last = state.pumpRuns.at(-1);
  if (!last || last.stoppedAt === null) return false;
  const from = Math.max(Date.parse(last.startedAt), pouredAtMs(state));
  return Date.parse(last.stoppedAt) - from >= 1000 * FILL_ORDER.roundS * 0.9;
}

/**
 * The next order while a loop is filled or topped up. null: the loop's heights are not known, so that only volumes tell.
 * @param measuredMl mL in the reservoir by its sensor at this moment; null without one
 */
export function fillOrder(procedure: Procedure, state: RunState, nowMs: number, measuredMl: number | null = null): FillOrder | null {
  const now = standingNow(procedure, state, nowMs, measuredMl);
  if (!now) return null;
  const { twin, contents, isRound } = now;
  const { fillMarkMl } = twin.drive;
  const plan = fillFromNow(procedure, state);
  const pulse = plan?.pulses[0] ?? null;
  if (contents.pump) return whileRunning(now, pulse, procedure, state);
  const open = leftOpen(procedure, state);
  if (open.ports.length + open.joints.length > 0) return { do: 'shut', ...open };
  const fills = toMark(now, isRound ? fillMarkMl : startMarkMl(now, plan, state));
  if (fills) return fills;
  // the pump starts on a level that was read, or poured up to the mark
  if (!contents.isLevelRead) return { do: 'read-level' };
  if (plan && !plan.primes && !isRound) return { do: 'cannot-prime', liftMm: plan.liftMm, shutoffMm: plan.shutoffMm };
  // where nothing but a top-up is done the machine keeps its own power: nobody runs the pump alone
  const runsPump = stepThat(procedure, 'isolates') !== undefined;
  if (isRound && (!runsPump || ranRound(state))) return { do: 'finish' };
  return pumpOn(now, plan, procedure.volume.sdMl, state);
}

/** Share of full speed for the next run, by the plan. */
function speedOf(now: Now, plan: FillSimulation | null, pulse: SimulatedPulse | null, state: RunState): number | null {
  const liftShare = plan && plan.shutoffMm > 0 ? Math.sqrt((FILL_ORDER.liftReserve * Math.max(0, plan.liftMm)) / plan.shutoffMm) : 0;
  return speedFor(now, pulse?.speed ?? now.twin.drive.speed, liftShare, runsSincePour(state));
}

const startMarks = new WeakMap<object, number>();

/**
 * mL to which the reservoir is filled before the pump starts. Where a bottle is poured beside the running pump, a pump that
 * draws faster than a hand pours is stopped at the low mark, and the column comes back: what was poured until then must find
 * room. Tried at the pump's head as its curve says and off by what it may be off.
 */
function startMarkMl(now: Now, plan: FillSimulation | null, state: RunState): number {
  const { twin, at, contents } = now;
  const { fillMarkMl, lowMarkMl } = twin.drive;
  const pulse = plan?.pulses[0];
  const { standing } = contents;
  if (!pulse?.pouredRunning || !standing) return fillMarkMl;
  const known = startMarks.get(standing);
  if (known !== undefined) return known;
  const share = (speedOf(now, plan, pulse, state) ?? twin.drive.speed) / Math.max(1e-3, twin.drive.speed);
  const least = (lowMarkMl + fillMarkMl) / 2;
  let markMl = fillMarkMl;
  for (let step = 0; step < FILL_ORDER.startSteps && markMl > least; step += 1) {
    const overMl = Math.max(
      ...FILL_ORDER.headFactors.map((head) => comesBackOverMl(twin, { ...at, reservoirMl: markMl }, share * Math.sqrt(head))),
    );
    if (overMl <= 0) break;
    markMl = Math.max(least, markMl - overMl);
  }
  startMarks.set(standing, markMl);
  return markMl;
}

/** mL by which the reservoir runs over, errors of what was poured counted, where the pump is stopped at the low mark while a hand pours beside it; 0 or less: there is room, or it never sinks so low. */
function comesBackOverMl(twin: LiquidTwin, from: Wetted, slowed: number): number {
  const run = copyOf(from);
  const { lowMarkMl } = twin.drive;
  const topMl = runningMarkMl(twin);
  let pouredMl = 0;
  for (let seconds = 0; seconds < FILL_ORDER.mostPourS; seconds += 1) {
    twin.run(run, 1, slowed);
    if (twin.goesRound(run)) return 0;
    const ml = Math.max(0, Math.min(FILL.mostPourMlPerS, topMl - run.reservoirMl));
    twin.pour(run, ml);
    pouredMl += ml;
    if (run.reservoirMl > lowMarkMl) continue;
    const overMl = twin.stop(run);
    const staysMl = Math.max(0, twin.wayMl(run) - twin.wayMl(from));
    const sdMl = Math.hypot(jugSdMl(pouredMl), FILL_ORDER.staysSdShare * staysMl);
    return run.reservoirMl + overMl + FILL_ORDER.keepsSd * sdMl - twin.brimMl;
  }
  return 0;
}

/** What brings the level to its mark, or to the start of a run: nothing where it stands there. */
function toMark(now: Now, markMl: number): FillOrder | null {
  const { twin, at, sdMl, contents, isRound } = now;
  const { surfaceMm } = twin.drive;
  const toMarkMl = markMl - at.reservoirMl + (isRound ? 0 : settlesMl(twin, at, surfaceMm(at.reservoirMl), surfaceMm(markMl)));
  if (at.reservoirMl - markMl > FILL_ORDER.staysWithinMl + FILL_ORDER.keepsSd * sdMl && contents.isLevelRead)
    return { do: 'draw-off', ml: at.reservoirMl - markMl, downToMl: markMl };
  if (toMarkMl > (isRound ? FILL_ORDER.roundWithinMl : FILL_ORDER.staysWithinMl)) return pourOrLook(now, markMl, toMarkMl);
  return null;
}

/** So much at most; what is known badly is looked at before anything is poured. */
function pourOrLook({ twin, at, sdMl, contents }: Now, markMl: number, toMarkMl: number): FillOrder {
  const { fillMarkMl, lowMarkMl } = twin.drive;
  const mostMl = mostPour(twin.brimMl - at.reservoirMl + (toMarkMl - (markMl - at.reservoirMl)), sdMl, toMarkMl);
  const isVague = FILL_ORDER.keepsSd * sdMl > (fillMarkMl - lowMarkMl) / 2;
  const isWorthIt = mostMl >= Math.min(FILL.handsGainMl, toMarkMl / 2);
  return contents.isLevelRead || (isWorthIt && !isVague) ? { do: 'pour', mostMl, upToMl: markMl } : { do: 'read-level' };
}

/** The pump goes on: for a pulse, to see whether the level stays, or until liquid is seen to come back where the book expects no gap any more. */
function pumpOn(now: Now, plan: FillSimulation | null, volumeSdMl: number, state: RunState): FillOrder {
  const { twin, isRound } = now;
  const pulse = isRound ? null : (plan?.pulses[0] ?? null);
  const speed = speedOf(now, plan, pulse, state);
  const run = runOfPulse(now, speed ?? twin.drive.speed, volumeSdMl);
  const common = { do: 'pump-on', speed, offAtMl: switchOffMl(now, speed, run.fastestMlPerS) } as const;
  if (!pulse) return { ...common, runS: isRound ? roundRunS(state) : unknownEndS(now), pour: null };
  if (pulse.pouredRunning) return { ...common, runS: pulse.runS, pour: { ml: pulse.refillMl, upToMl: runningMarkMl(twin) } };
  return { ...common, runS: run.runS, pour: null };
}

/** mL that go on into the outlet's side while the surface rises: what lies below it now is filled already, once something stands there. */
function settlesMl(twin: LiquidTwin, at: Wetted, fromMm: number, toMm: number): number {
  const isDry = at.reservoirMl <= twin.drive.outletMl + 1;
  let ml = 0;
  for (const [index, cell] of twin.drive.cells.entries()) {
    if (cell.slow || (!isDry && cell.liftMm <= fromMm)) continue;
    if (cell.liftMm > toMm) break;
    ml += Math.max(0, cell.volumeMl - (at.wettedMl[index] as number));
  }
  return ml;
}

/** The pump runs: off in time, or pour as it draws. */
function whileRunning(now: Now, pulse: SimulatedPulse | null, procedure: Procedure, state: RunState): FillOrder {
  const { twin } = now;
  if (pulse?.pouredRunning && !now.isRound) return { do: 'pour-running', upToMl: runningMarkMl(twin) };
  const since = state.pump ? Date.parse(state.pump.since) : 0;
  const ranS = ((now.contents.pump?.carriedMs ?? since) - since) / 1000;
  if (now.isRound) return { do: 'pump-off', inS: Math.max(0, roundRunS(state) - ranS) };
  return { do: 'pump-off', inS: pulse ? Math.max(0, runOfPulse(now, pulse.speed, procedure.volume.sdMl).runS - FILL.leastPulseS) : 0 };
}

/** What may still come home as gas while the pump runs, against what stands above the low mark. */
export interface LevelWatch {
  /** mL at most: two standard deviations above what the parts' volumes leave for gas, or what the stops leave room for */
  readonly gasMl: number;
  /** mL in the reservoir above its low mark */
  readonly freeMl: number;
  /** s from one look at the level to the next; null: nothing that is left can empty the reservoir */
  readonly everyS: number | null;
}

/** What is seen beside the book: the level by a sensor, and the air that the rises at the stops leave room for. */
export interface SeenNow {
  readonly measuredMl?: number | null;
  readonly airAtMostMl?: number | null;
}

/** How often the level is looked at while the pump runs unattended: in the wet test and while bleeding. null without heights. */
export function levelWatch(
  procedure: Procedure,
  state: RunState,
  nowMs: number,
  { measuredMl = null, airAtMostMl = null }: SeenNow = {},
): LevelWatch | null {
  const now = standingNow(procedure, state, nowMs, measuredMl);
  if (!now || now.contents.insideMl === null) return null;
  const { twin, at, sdMl, contents } = now;
  const wayMl = loopVolume(twin.loop).volumeMl - twin.brimMl;
  const sd = Math.hypot(procedure.volume.sdMl, contents.insideSdMl);
  const byBookMl = Math.max(0, wayMl - ((contents.insideMl ?? 0) - at.reservoirMl) + FILL_ORDER.keepsSd * sd);
  const gasMl = Math.min(byBookMl, airAtMostMl ?? byBookMl);
  const freeMl = Math.max(0, at.reservoirMl - FILL_ORDER.keepsSd * sdMl - twin.drive.lowMarkMl);
  if (gasMl <= freeMl) return { gasMl, freeMl, everyS: null };
  const goneS = -BOOK.gasTauS * Math.log(1 - freeMl / gasMl);
  return { gasMl, freeMl, everyS: Math.max(FILL_ORDER.leastLookS, Math.floor(goneS / 2 / FILL_ORDER.leastLookS) * FILL_ORDER.leastLookS) };
}
