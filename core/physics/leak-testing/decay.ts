import { MBAR_PER_KPA, STANDARD_ATMOSPHERE_KPA, Z_TWO_SIDED_95, ZERO_CELSIUS_K } from '../../base/units/physics.js';
import {
  AIR_TO_WATER_VISCOSITY,
  COARSE_BEYOND,
  LEAST_KEPT_SHARE,
  LEAST_TAIL_READINGS,
  MOST_WAIT_MINUTES,
  PUMPED_UP_KPA,
  TEMP_SD_K,
  WEATHER_KPA_PER_S,
  WORKING_KPA,
} from './defaults.js';
import { slopeInterval, type SlopeInterval } from './alwaysValid.js';
import { holdMinutes, readingSdKpa } from './hold.js';
import { fitLine, type Line } from '../../base/numerics/line.js';
import { SlopeProfile, type DecaySeries, type SlopeFit } from './slopeProfile.js';

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

/** Why nothing can be told yet: too few readings, the hold time, half of the pressure gone, somebody pumped, the weather, or noise. */
export type DecayOpen = 'few-readings' | 'hold' | 'lost-half' | 'pumped-up' | 'weather' | 'noise';

export interface DecayResult {
  /** positive out of the loop; can be slightly negative by noise */
  readonly leakMbarLs: number;
  readonly seMbarLs: number;
  readonly verdict: DecayVerdict;
  /** null unless not yet */
  readonly open: DecayOpen | null;
  /** null unless not yet */
  readonly moreMinutes: number | null;
  /** s from the first reading; the time after which only the leak moves the pressure, as far as can be told */
  readonly settledAfterS: number;
  /** water at 20 °C that the upper bound of the leak could let out in a day */
  readonly excludedMlPerDay: number;
  /** temperature-corrected absolute pressures in kPa, one per reading, the time at the first reading's pressure that would leak as much, in s, and the fitted tail over it, for the chart */
  readonly correctedKpa: readonly number[];
  readonly leakTimesS: readonly number[];
  readonly tail: (Line & { readonly fromS: number }) | null;
}

/** p* = p_abs·T₀/T: what the gauge would show at the first reading's temperature. Ideal gas in a fixed volume. */
export function correctPressures(input: Pick<DecayInput, 'readings' | 'atmosphereKpa'>): number[] {
  const zeroK = (input.readings[0]?.tempC ?? 0) + ZERO_CELSIUS_K;
  return input.readings.map(({ gaugeKpa, tempC, atmosphereKpa }) => {
    const absKpa = gaugeKpa + (atmosphereKpa ?? input.atmosphereKpa ?? STANDARD_ATMOSPHERE_KPA);
    return (absKpa * zeroK) / (tempC + ZERO_CELSIUS_K);
  });
}

/** Whether air was pumped in between two readings: what follows is a test of its own. */
export const isPumpedUp = (before: DecayReading, after: DecayReading): boolean => {
  const [was = 0, is = 0] = correctPressures({ readings: [before, after] });
  return is - was > PUMPED_UP_KPA;
};

/** What stands of the corrected pressures when they are judged. */
interface Judged {
  readonly interval: SlopeInterval;
  readonly fit: SlopeFit;
}

/** s; time weighted by how fast a laminar leak runs: ∫(p² − p_atm²)/(p₁² − p_atm²) dt over the measured pressures, by trapezoids. */
function leakTimes(times: readonly number[], absKpa: readonly number[], atmosphereKpa: readonly number[]): number[] {
  const drive = (index: number): number => (absKpa[index] as number) ** 2 - (atmosphereKpa[index] as number) ** 2;
  const first = drive(0);
  // without pressure at the start there is nothing that drives a leak: plain time
  if (!(first > 0)) return [...times];
  const at = [0];
  for (let index = 1; index < times.length; index += 1) {
    const mean = Math.max(0, (drive(index - 1) + drive(index)) / 2);
    at.push((at[index - 1] as number) + (mean / first) * ((times[index] as number) - (times[index - 1] as number)));
  }
  return at;
}

/**
 * Judges a pressure-decay test: take the temperature out · the likelihood of each slope, with any settling beside it · the
 * slopes that are not excluded, at 95 % for the whole test however often it is read · decide. A leak is that at the first
 * reading; no verdict comes before the hold time, and a gauge that lost half, or was pumped up again in between,
 * is never a pass.
 * Sources: ASTM E2930; EN 1779; Ville 1939 for looking often.
 */
export function judgeDecay(input: DecayInput): DecayResult {
  const { readings, resolutionKpa, limitMbarLs, tempSdK = TEMP_SD_K } = input;
  const first = readings[0] as DecayReading;
  const correctedKpa = correctPressures(input);
  const times = readings.map(({ tS }) => tS - first.tS);
  const spanS = lastOf(times);
  const gasMl = input.volumeMl - (input.liquidMl ?? 0);
  const toLeak = (kpaPerS: number): number => (kpaPerS * MBAR_PER_KPA * gasMl) / 1000;
  const limitKpaPerS = limitMbarLs / toLeak(1);
  const atmospheres = readings.map(({ atmosphereKpa }) => atmosphereKpa ?? input.atmosphereKpa ?? STANDARD_ATMOSPHERE_KPA);
  const known = readings.every(({ atmosphereKpa }) => atmosphereKpa !== undefined);
  const judged = judgeSlope(input, times, correctedKpa, atmospheres, limitKpaPerS);
  const noiseKpa = readingSdKpa(resolutionKpa, correctedKpa[0] as number, tempSdK, first.tempC + ZERO_CELSIUS_K);
  // the weather moves the gauge as a leak does, unless a barometer stands beside it
  const weather = known ? 0 : Z_TWO_SIDED_95 * WEATHER_KPA_PER_S;
  const { best, low, high } = judged?.interval ?? { best: 0, low: -noiseKpa / Math.max(1, spanS), high: noiseKpa / Math.max(1, spanS) };
  const lower = toLeak(best - Math.hypot(best - low, weather));
  const upper = toLeak(best + Math.hypot(high - best, weather));
  const holdS = 60 * holdMinutes({ volumeMl: gasMl, limitMbarLs, resolutionKpa, tempSdK, gaugeKpa: Math.max(0, first.gaugeKpa) });
  const { verdict, open } = decide({
    early: judged === null ? 'few-readings' : spanS < holdS ? 'hold' : null,
    spoilt: whatSpoils(readings),
    lower,
    upper,
    upperInStillAir: toLeak(high),
    limitMbarLs,
  });
  const seMbarLs = Math.max((upper - lower) / (2 * Z_TWO_SIDED_95), Number.MIN_VALUE);
  const settledAfterS = judged ? Math.min(spanS, settledAfter(judged.fit, resolutionKpa)) : spanS;
  const wait = { times, noiseKpa, limitKpaPerS, holdS, slope: judged?.interval.best ?? null, weatherSd: known ? 0 : WEATHER_KPA_PER_S };
  return {
    // the added zero turns −0 into 0, which JSON readers elsewhere would show as a sign
    leakMbarLs: toLeak(best) + 0,
    seMbarLs,
    verdict,
    open,
    moreMinutes: verdict === 'not-yet' ? minutesToGo(wait) : null,
    settledAfterS,
    excludedMlPerDay: liquidMlPerDay(upper, correctedKpa[0] as number, atmospheres[0] as number, input.workingKpa ?? WORKING_KPA),
    correctedKpa,
    leakTimesS: leakTimes(times, correctedKpa, atmospheres),
    tail: judged && {
      intercept: (correctedKpa[0] as number) + judged.fit.interceptKpa,
      slope: -best,
      slopeSe: seMbarLs / toLeak(1),
      fromS: settledAfterS,
    },
  };
}

/** What keeps a series from ever being a pass: half of the pressure gone, or air pumped in between. */
function whatSpoils(readings: readonly DecayReading[]): 'lost-half' | 'pumped-up' | null {
  const first = readings[0] as DecayReading;
  const isPumped = readings.some((reading, index) => index > 0 && isPumpedUp(readings[index - 1] as DecayReading, reading));
  if (isPumped) return 'pumped-up';
  return readings.some(({ gaugeKpa }) => gaugeKpa < LEAST_KEPT_SHARE * first.gaugeKpa) ? 'lost-half' : null;
}

/** Tells, or says why nothing can be told. mbar·L/s */
function decide(given: {
  readonly early: 'few-readings' | 'hold' | null;
  readonly spoilt: 'lost-half' | 'pumped-up' | null;
  readonly lower: number;
  readonly upper: number;
  /** the upper bound without the weather */
  readonly upperInStillAir: number;
  readonly limitMbarLs: number;
}): { readonly verdict: DecayVerdict; readonly open: DecayOpen | null } {
  const { early, spoilt, lower, upper, upperInStillAir, limitMbarLs } = given;
  if (early !== null) return { verdict: 'not-yet', open: early };
  if (lower > limitMbarLs) return { verdict: 'fail', open: null };
  if (spoilt !== null) return { verdict: 'not-yet', open: spoilt };
  if (upper < limitMbarLs) return { verdict: 'pass', open: null };
  return { verdict: 'not-yet', open: upperInStillAir < limitMbarLs ? 'weather' : 'noise' };
}

const lastOf = <T>(list: readonly T[]): T => list.at(-1) as T;

/** shares of a coarse gauge's step; a thermometer without error would leave nothing to reckon with */
const LEAST_SHARE_OF_STEP = 1e-3;
/** readings of a coarse gauge that are reckoned with: each costs, and between its steps more of them say nothing new */
const MOST_COARSE = 240;

/** Evenly spaced ones of a list, the first and the last among them. */
const thinned = <T>(list: readonly T[], most: number): T[] =>
  list.length <= most
    ? [...list]
    : Array.from({ length: most }, (_, index) => list[Math.round((index * (list.length - 1)) / (most - 1))] as T);

/** The slopes that the readings allow; null from too few of them. */
function judgeSlope(
  { readings, resolutionKpa, tempSdK = TEMP_SD_K }: DecayInput,
  times: readonly number[],
  correctedKpa: readonly number[],
  atmospheres: readonly number[],
  limitKpaPerS: number,
): Judged | null {
  if (times.length < LEAST_TAIL_READINGS) return null;
  const [firstKpa, first] = [correctedKpa[0] as number, readings[0] as DecayReading];
  const tempSdKpa = readingSdKpa(0, firstKpa, tempSdK, first.tempC + ZERO_CELSIUS_K);
  const isCoarse = resolutionKpa > COARSE_BEYOND * tempSdKpa;
  const most = isCoarse ? MOST_COARSE : Infinity;
  const series: DecaySeries = {
    times: thinned(times, most),
    leakTimes: thinned(leakTimes(times, correctedKpa, atmospheres), most),
    pressures: thinned(correctedKpa, most).map((kpa) => kpa - firstKpa),
    sdKpa: isCoarse
      ? Math.max(tempSdKpa, LEAST_SHARE_OF_STEP * resolutionKpa)
      : readingSdKpa(resolutionKpa, firstKpa, tempSdK, first.tempC + ZERO_CELSIUS_K),
    halfStepKpa: isCoarse ? resolutionKpa / 2 : null,
  };
  const line = fitLine(series.leakTimes, series.pressures, isCoarse ? resolutionKpa / 2 : series.sdKpa);
  if (!line) return null;
  const profile = new SlopeProfile(series);
  const interval = slopeInterval((slope) => profile.at(slope).logL, -line.slope, line.slopeSe, limitKpaPerS);
  return { interval, fit: profile.at(interval.best) };
}

/** s until the settling term is below what the gauge can show */
const settledAfter = ({ amplitudeKpa, tauS }: SlopeFit, resolutionKpa: number): number =>
  amplitudeKpa > resolutionKpa ? tauS * Math.log(amplitudeKpa / resolutionKpa) : 0;

interface WaitInput {
  readonly times: readonly number[];
  readonly noiseKpa: number;
  readonly limitKpaPerS: number;
  readonly holdS: number;
  /** null before a line could be fitted: then no leak is assumed */
  readonly slope: number | null;
  readonly weatherSd: number;
}

/** Minutes until readings at today's pace would decide, if the leak is what it now seems. Between 1 and 1 440. */
function minutesToGo({ times, noiseKpa, limitKpaPerS, holdS, slope, weatherSd }: WaitInput): number {
  const spanS = lastOf(times);
  const paceS = Math.max(1, Math.max(60, spanS) / Math.max(1, times.length - 1));
  const distance = Math.abs(limitKpaPerS - Math.min(Math.max(0, slope ?? 0), 2 * limitKpaPerS)) || limitKpaPerS / 100;
  for (let minutes = 1; minutes < MOST_WAIT_MINUTES; minutes += minutes < 60 ? 1 : 5) {
    const durationS = spanS + minutes * 60;
    if (durationS < holdS) continue;
    // a line through n evenly spaced readings over D: se = σ·√12 / (D·√n)
    const se = (noiseKpa * Math.sqrt(12)) / (durationS * Math.sqrt(times.length + (minutes * 60) / paceS));
    // the normal likelihood's mixture interval in closed form: z² = (1 + se²/sd²)·(2·ln 20 + ln(1 + sd²/se²))
    const z = Math.sqrt((1 + (se / limitKpaPerS) ** 2) * (2 * Math.log(20) + Math.log(1 + (limitKpaPerS / se) ** 2)));
    if (Math.hypot(z * se, Z_TWO_SIDED_95 * weatherSd) < distance) return minutes;
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
