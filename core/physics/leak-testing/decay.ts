import { MBAR_PER_KPA, STANDARD_ATMOSPHERE_KPA, Z_TWO_SIDED_95, ZERO_CELSIUS_K } from '../../base/units/physics.js';
import {
  AIR_TO_WATER_VISCOSITY,
  BESIDE_SETTLING_SE,
  CERTAIN_FAIL_SE,
  LEAST_HOLD_MINUTES,
  LEAST_KEPT_SHARE,
  LEAST_TAIL_READINGS,
  MOST_SETTLING_KPA,
  MOST_WAIT_MINUTES,
  SETTLING_TAUS_S,
  TEMP_SD_K,
  WORKING_KPA,
} from './defaults.js';
import { readingSdKpa } from './hold.js';
import { fitLine, type Line } from '../../base/numerics/line.js';
import { fitSettling, LEAST_FIT_READINGS, leastSlope } from './settlingFit.js';

export interface DecayReading {
  /** s since the loop was closed; rising */
  readonly tS: number;
  readonly gaugeKpa: number;
  readonly tempC: number;
  /** kPa; where a barometer stands beside the gauge */
  readonly atmosphereKpa?: number;
}

export interface DecayInput {
  readonly volumeMl: number;
  readonly readings: readonly DecayReading[];
  readonly atmosphereKpa?: number;
  readonly resolutionKpa: number;
  readonly limitMbarLs: number;
  readonly tempSdK?: number;
  /** liquid left inside, which takes room from the gas */
  readonly liquidMl?: number;
  readonly workingKpa?: number;
}

export type DecayVerdict = 'pass' | 'fail' | 'not-yet';

export interface DecayResult {
  /** positive out of the loop; can be slightly negative by noise */
  readonly leakMbarLs: number;
  readonly seMbarLs: number;
  readonly verdict: DecayVerdict;
  /** null unless not yet */
  readonly moreMinutes: number | null;
  /** s from the first reading; the time after which only the leak moves the pressure, as far as can be told */
  readonly settledAfterS: number;
  /** water at 20 °C that the upper bound of the leak could let out in a day */
  readonly excludedMlPerDay: number;
  /** temperature-corrected absolute pressures in kPa, one per reading, and the fitted tail, for the chart */
  readonly correctedKpa: readonly number[];
  readonly tail: (Line & { readonly fromS: number }) | null;
}

/** p* = p_abs·T₀/T: what the gauge would show at the first reading's temperature. Ideal gas in a fixed volume. */
export function correctPressures(input: DecayInput): number[] {
  const zeroK = (input.readings[0]?.tempC ?? 0) + ZERO_CELSIUS_K;
  return input.readings.map(({ gaugeKpa, tempC, atmosphereKpa }) => {
    const absKpa = gaugeKpa + (atmosphereKpa ?? input.atmosphereKpa ?? STANDARD_ATMOSPHERE_KPA);
    return (absKpa * zeroK) / (tempC + ZERO_CELSIUS_K);
  });
}

/**
 * Judges a pressure-decay test. Stages: take the temperature out · tell settling from leaking · turn the slope into a leak
 * with 95 % bounds · decide. Noise is never taken below what gauge and thermometer can do.
 * Sources: ASTM E2930; EN 1779.
 */
export function judgeDecay(input: DecayInput): DecayResult {
  const first = input.readings[0] as DecayReading;
  const correctedKpa = correctPressures(input);
  const firstAbsKpa = correctedKpa[0] as number;
  const times = input.readings.map(({ tS }) => tS - first.tS);
  const span = times.at(-1) as number;
  const noiseKpa = readingSdKpa(input.resolutionKpa, firstAbsKpa, input.tempSdK ?? TEMP_SD_K, first.tempC + ZERO_CELSIUS_K);
  const gasL = (input.volumeMl - (input.liquidMl ?? 0)) / 1000;
  const atmosphere = first.atmosphereKpa ?? input.atmosphereKpa ?? STANDARD_ATMOSPHERE_KPA;
  const toLeak = (kpaPerS: number): number => kpaPerS * MBAR_PER_KPA * gasL;

  const settled = findSettled(times, correctedKpa, noiseKpa, input.resolutionKpa);
  const settledAfterS = settled?.afterS ?? span;
  // the added zero turns −0 into 0, which JSON readers elsewhere would show as a sign
  const leakMbarLs = settled ? toLeak(-settled.line.slope) + 0 : 0;
  // Without a line the standard error is that of the noise over the whole record: it says "cannot tell".
  const seMbarLs = toLeak(settled ? Math.max(settled.line.slopeSe, Number.MIN_VALUE) : noiseKpa / Math.max(1, span));
  const heldS = span - settledAfterS;
  const certainly = (): number => toLeak(leastSlope(times, correctedKpa, noiseKpa, SETTLING_TAUS_S, BESIDE_SETTLING_SE));
  const beyond = toLeak(beyondSettling(times, correctedKpa, noiseKpa));
  const lost = lastOf(input.readings).gaugeKpa < LEAST_KEPT_SHARE * first.gaugeKpa;
  const judged = settled ? decide(leakMbarLs, seMbarLs, input.limitMbarLs, heldS, certainly) : 'not-yet';
  const fails = settled !== null && beyond > input.limitMbarLs;
  const verdict = fails ? 'fail' : judged === 'pass' && lost ? 'not-yet' : judged;
  const wait = { times, settledAfterS, noiseKpa, gasL, leakMbarLs: settled ? leakMbarLs : null, limit: input.limitMbarLs };
  return {
    leakMbarLs,
    seMbarLs,
    verdict,
    moreMinutes: verdict === 'not-yet' ? minutesToGo(wait) : null,
    settledAfterS,
    excludedMlPerDay: liquidMlPerDay(leakMbarLs + Z_TWO_SIDED_95 * seMbarLs, firstAbsKpa, atmosphere, input.workingKpa ?? WORKING_KPA),
    correctedKpa,
    tail: settled ? { ...settled.line, fromS: settledAfterS } : null,
  };
}

const lastOf = <T>(list: readonly T[]): T => list.at(-1) as T;

/** kPa/s that left on average beyond anything settling could have taken, three standard deviations of the noise allowed for. */
function beyondSettling(times: readonly number[], pressures: readonly number[], noiseKpa: number): number {
  const fallKpa = (pressures[0] as number) - lastOf(pressures) - MOST_SETTLING_KPA - 3 * Math.SQRT2 * noiseKpa;
  return Math.max(0, fallKpa) / Math.max(1, lastOf(times));
}

interface Settled {
  readonly line: Line;
  /** s from the first reading until the settling term is below what the gauge can show */
  readonly afterS: number;
}

/** With enough readings settling and leak are fitted together; before that, the straight part at the end is taken. */
function findSettled(times: readonly number[], pressures: readonly number[], noiseKpa: number, resolutionKpa: number): Settled | null {
  const fit = times.length >= LEAST_FIT_READINGS ? fitSettling(times, pressures, noiseKpa) : null;
  if (fit) {
    const afterS = fit.amplitude > resolutionKpa ? fit.tau * Math.log(fit.amplitude / resolutionKpa) : 0;
    return { line: { intercept: fit.intercept, slope: fit.slope, slopeSe: fit.slopeSe }, afterS: Math.min(afterS, times.at(-1) as number) };
  }
  const tail = findTail(times, pressures, noiseKpa);
  return tail && { line: tail.line, afterS: times[tail.from] as number };
}

/**
 * The longest tail that is straight within the noise: first and last half of it agree in slope.
 * A settling term falls fast and then slowly, so its first half is steeper; a leak alone is straight.
 */
function findTail(times: readonly number[], pressures: readonly number[], noiseKpa: number): { from: number; line: Line } | null {
  for (let from = 0; from + LEAST_TAIL_READINGS <= times.length; from += 1) {
    const t = times.slice(from);
    const p = pressures.slice(from);
    const line = fitLine(t, p, noiseKpa);
    if (line && isStraight(t, p, line, noiseKpa)) return { from, line };
  }
  return null;
}

/** Curvature in standard errors above which the tail still counts as settling. */
const CURVATURE_SE = 1.64;

function isStraight(times: readonly number[], pressures: readonly number[], line: Line, noiseKpa: number): boolean {
  // Project the residuals on a parabola made orthogonal to the line: its weight is the curvature.
  const mean = times.reduce((sum, t) => sum + t, 0) / times.length;
  const span = Math.max(...times) - Math.min(...times);
  const u = times.map((t) => (t - mean) / span);
  const squares = u.map((x) => x * x);
  const base = fitLine(u, squares, 1);
  if (!base) return true;
  const q = squares.map((value, index) => value - (base.intercept + base.slope * (u[index] as number)));
  const qq = q.reduce((sum, value) => sum + value * value, 0);
  if (qq < 1e-12) return true;
  const curvature =
    q.reduce(
      (sum, value, index) => sum + value * ((pressures[index] as number) - (line.intercept + line.slope * (times[index] as number))),
      0,
    ) / qq;
  return curvature <= (CURVATURE_SE * noiseKpa) / Math.sqrt(qq);
}

/** @param certainly the leak that is there at least, even if the rest of the fall is settling */
function decide(leak: number, se: number, limit: number, heldS: number, certainly: () => number): DecayVerdict {
  if (heldS < LEAST_HOLD_MINUTES * 60) return leak - limit > CERTAIN_FAIL_SE * se && certainly() > limit ? 'fail' : 'not-yet';
  if (leak + Z_TWO_SIDED_95 * se < limit) return 'pass';
  return leak - Z_TWO_SIDED_95 * se > limit ? 'fail' : 'not-yet';
}

interface WaitInput {
  readonly times: readonly number[];
  readonly settledAfterS: number;
  readonly noiseKpa: number;
  readonly gasL: number;
  /** null before a line could be fitted: then no leak is assumed */
  readonly leakMbarLs: number | null;
  readonly limit: number;
}

/** Minutes until readings at today's pace would decide, if the leak is what it now seems. Between 1 and 1 440. */
function minutesToGo({ times, settledAfterS, noiseKpa, gasL, leakMbarLs, limit }: WaitInput): number {
  const spanS = times.at(-1) as number;
  const heldS = spanS - settledAfterS;
  const paceS = Math.max(1, Math.max(60, spanS) / Math.max(1, times.length - 1));
  const held = times.filter((t) => t >= settledAfterS).length;
  const distance = Math.abs(limit - Math.min(Math.max(0, leakMbarLs ?? 0), 2 * limit)) || limit / 100;
  for (let minutes = 1; minutes < MOST_WAIT_MINUTES; minutes += minutes < 60 ? 1 : 5) {
    const durationS = heldS + minutes * 60;
    const readings = held + (minutes * 60) / paceS;
    // a line through n evenly spaced readings over D: se = σ·√12 / (D·√n)
    const se = ((noiseKpa * Math.sqrt(12)) / (durationS * Math.sqrt(readings))) * MBAR_PER_KPA * gasL;
    if (durationS >= LEAST_HOLD_MINUTES * 60 && Z_TWO_SIDED_95 * se < distance) return minutes;
  }
  return MOST_WAIT_MINUTES;
}

/**
 * Liquid that the same path would let out at working pressure, mL a day (laminar leak):
 * Q_liq = q·2·(μ_gas/μ_liq)·Δp_liq/(p₁² − p₂²), q in Pa·m³/s. An upper bound: surface tension closes the finest paths.
 * @param leakMbarLs 1 mbar·L/s = 0.1 Pa·m³/s; below zero counts as zero
 */
export function liquidMlPerDay(leakMbarLs: number, firstAbsKpa: number, atmosphereKpa: number, workingKpa: number): number {
  const q = Math.max(0, leakMbarLs) * 0.1;
  const p1 = firstAbsKpa * 1000;
  const p2 = atmosphereKpa * 1000;
  if (p1 <= p2) return 0;
  const m3PerS = (q * 2 * AIR_TO_WATER_VISCOSITY * workingKpa * 1000) / (p1 ** 2 - p2 ** 2);
  return m3PerS * 1e6 * 86_400;
}
