import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { MEASURED } from '../measuring/errors.js';
import { riseMm, type BleedCycle } from './bleed.js';

/** Where gas may sit, with the pressures it feels. */
export interface CandidatePocket {
  readonly parts: readonly string[];
  readonly volumeMl: number;
  readonly runGaugeKpa: number;
  readonly offGaugeKpa: number;
}

/** What levels at a stop say about gas: the reservoir's section, the places, the tubes. */
export interface RiseModel {
  /** free cross-section of the reservoir */
  readonly areaMm2: number;
  readonly pockets: readonly CandidatePocket[];
  /** mL that soft tube gives back when the pump stops */
  readonly stretchMl: number;
}

/** A stop with what its two levels may each be off by. */
export interface LevelledCycle extends BleedCycle {
  /** mm; missing: read by eye */
  readonly levelSdMm?: number;
}

export interface AirLeft {
  /** by cycle, mL: nine in ten lie between low and high, half below the middle */
  readonly cycles: readonly { readonly lowMl: number; readonly middleMl: number; readonly highMl: number }[];
  /** mL a cycle over the last ones; negative while air comes home. null with fewer than two cycles */
  readonly trendMl: number | null;
}

const AIR = {
  /** kPa; a pocket that feels less than this of the pump cannot be seen from the level */
  leastSqueezeKpa: 0.5,
  /** share by which a tube's modulus differs from its material's (estimate) */
  modulusSd: 0.3,
  /** mm that a surface moves by itself beside a running pump */
  restlessMm: 0.2,
  /** chance that gas hangs where stops free nothing to speak of, and the share that then still stays after one */
  stubbornShare: 0.25,
  holdsFrom: 0.85,
  /** chance that a stop frees next to nothing of gas that does come home */
  pausesShare: 0.3,
  /** mL below which any amount is as likely as another before anything was read */
  flatMl: 5,
  /** cycles that the trend looks back over */
  trendCycles: 4,
  nodes: 72,
} as const;

/** factors on the tubes' stretch with their weights: a normal spread, in five places (Gauss–Hermite) */
const STRETCHES: readonly (readonly [number, number])[] = [
  [-2.857, 0.0113],
  [-1.3556, 0.2221],
  [0, 0.5333],
  [1.3556, 0.2221],
  [2.857, 0.0113],
].map(([z, weight]) => [Math.max(0, 1 + AIR.modulusSd * (z as number)), weight as number] as const);

/** Amounts from nothing to all that the pockets can hold, closer together where they are small. */
function amounts(mostMl: number): Float64Array {
  return Float64Array.from({ length: AIR.nodes }, (_, at) => mostMl * (at / (AIR.nodes - 1)) ** 2);
}

/** What of the scale each amount stands for: half-way to its neighbours. */
const widthsOf = (grid: Float64Array): Float64Array => grid.map((ml, at) => ((grid[at + 1] ?? ml) - (grid[at - 1] ?? ml)) / 2);

/** What one stop leaves of each amount, by amount: never more. @param holdsShare chance that nearly all of it stays */
function transition(grid: Float64Array, holdsShare: number): Float64Array[] {
  const widths = widthsOf(grid);
  return Array.from(grid, (before, from) => {
    const row = new Float64Array(grid.length);
    if (from === 0) {
      row[0] = 1;
      return row;
    }
    const spread = (lowMl: number, share: number): void => {
      let sum = 0;
      for (let to = 0; to <= from; to += 1) if ((grid[to] as number) >= lowMl) sum += widths[to] as number;
      for (let to = 0; to <= from; to += 1)
        if ((grid[to] as number) >= lowMl) row[to] = (row[to] as number) + (share * (widths[to] as number)) / sum;
    };
    if (holdsShare < 1) spread(0, 1 - holdsShare);
    spread(AIR.holdsFrom * before, holdsShare);
    return row;
  });
}

/** One place, one stretch of the tubes and one way of coming home, with how likely each amount of gas is. */
interface Hypothesis {
  /** mm of rise for each mL of gas at standing pressure, and for none */
  readonly mmPerMl: number;
  readonly stretchMm: number;
  readonly step: readonly Float64Array[];
  weights: Float64Array;
}

/**
 * Gas left at each stop of the pump (handbook E): one estimate that is carried from stop to stop. Unknown are the amount,
 * the place (each feels the pump otherwise: ΔV = V·(p_run − p_off)/p_run), the tubes' stretch and whether it comes home; known are the level's own
 * errors, what the pockets can hold and what the book says is missing. A Bayesian filter over a grid of amounts.
 * @param missing gas outside the reservoir by the book: nobody has more than it, but for its error. null: nobody knows
 */
export function airLeft(
  { areaMm2, pockets, stretchMl }: RiseModel,
  cycles: readonly LevelledCycle[],
  missing: { readonly ml: number; readonly sdMl: number } | null = null,
): AirLeft {
  const seen = pockets.filter(({ runGaugeKpa, offGaugeKpa }) => runGaugeKpa - offGaugeKpa > AIR.leastSqueezeKpa);
  if (seen.length === 0) return { cycles: [], trendMl: null };
  const grid = amounts(holdsMl(pockets));
  const ways = [[transition(grid, 1), AIR.stubbornShare] as const, [transition(grid, AIR.pausesShare), 1 - AIR.stubbornShare] as const];
  const prior = priorOver(grid, missing);
  const mmPerMl = 1000 / areaMm2;
  const hypotheses = seen.flatMap(({ runGaugeKpa, offGaugeKpa }) =>
    STRETCHES.flatMap(([factor, weight]) =>
      ways.map(([step, share]): Hypothesis => ({
        mmPerMl: (mmPerMl * (runGaugeKpa - offGaugeKpa)) / (runGaugeKpa + STANDARD_ATMOSPHERE_KPA),
        stretchMm: factor * stretchMl * mmPerMl,
        step,
        weights: prior.map((each) => (each * weight * share) / seen.length),
      })),
    ),
  );
  const told = cycles.map((cycle, index) => {
    const sdMm = Math.hypot(Math.SQRT2 * (cycle.levelSdMm ?? MEASURED.levelByEyeSdMm), AIR.restlessMm);
    for (const each of hypotheses) {
      if (index > 0) each.weights = passed(each.weights, each.step);
      grid.forEach((ml, at) => {
        const z = (riseMm(cycle) - each.stretchMm - each.mmPerMl * ml) / sdMm;
        each.weights[at] = (each.weights[at] as number) * Math.exp(-0.5 * z * z);
      });
    }
    return bandOf(grid, hypotheses);
  });
  const last = told.slice(-AIR.trendCycles).map(({ middleMl }) => middleMl);
  return { cycles: told, trendMl: last.length < 2 ? null : ((last.at(-1) as number) - (last[0] as number)) / (last.length - 1) };
}

/** mL that all places together can hold; a pocket that spans several parts stands once for each of them, with its whole. */
const holdsMl = (pockets: readonly CandidatePocket[]): number =>
  [...new Set(pockets.map(({ volumeMl }) => volumeMl))].reduce((sum, ml) => sum + ml, 0);

function priorOver(grid: Float64Array, missing: { readonly ml: number; readonly sdMl: number } | null): Float64Array {
  const widths = widthsOf(grid);
  return grid.map((ml, at) => {
    const over = missing ? Math.max(0, ml - Math.max(0, missing.ml)) / Math.max(1, missing.sdMl) : 0;
    return ((widths[at] as number) / (ml + AIR.flatMl)) * Math.exp(-0.5 * over * over);
  });
}

function passed(weights: Float64Array, step: readonly Float64Array[]): Float64Array {
  const next = new Float64Array(weights.length);
  weights.forEach((weight, from) => {
    const row = step[from] as Float64Array;
    for (let to = 0; to <= from; to += 1) next[to] = (next[to] as number) + weight * (row[to] as number);
  });
  return next;
}

/** share that the band holds */
const BAND = 0.9;

/** The shortest range that holds nine in ten of what is likely now, and its middle; all hypotheses are kept to one sum. */
function bandOf(grid: Float64Array, hypotheses: readonly Hypothesis[]): AirLeft['cycles'][number] {
  const all = grid.map((_, at) => hypotheses.reduce((sum, { weights }) => sum + (weights[at] as number), 0));
  const whole = all.reduce((sum, each) => sum + each, 0);
  // readings that nothing explains, as far as numbers can tell: anything that the pockets hold
  if (whole <= 0) return { lowMl: 0, middleMl: (grid[grid.length - 1] as number) / 2, highMl: grid[grid.length - 1] as number };
  for (const each of hypotheses) each.weights = each.weights.map((weight) => weight / whole);
  const edge = (at: number): number => ((grid[Math.max(0, at - 1)] as number) + (grid[Math.min(grid.length - 1, at)] as number)) / 2;
  const widths = widthsOf(grid);
  const cells = Array.from(all, (weight, at) => ({ at, share: weight / whole, density: weight / (widths[at] as number) }));
  let held = 0;
  let [first, last] = [grid.length - 1, 0];
  for (const { at, share } of cells.toSorted((a, b) => b.density - a.density)) {
    if (held >= BAND) break;
    held += share;
    [first, last] = [Math.min(first, at), Math.max(last, at)];
  }
  let below = 0;
  const middle = cells.find(({ share }) => (below += share) >= 0.5);
  return { lowMl: edge(first), middleMl: grid[middle?.at ?? 0] as number, highMl: edge(last + 1) };
}
