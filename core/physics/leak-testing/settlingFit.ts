import { MOST_SETTLING_KPA, SETTLING_TAU_S } from './defaults.js';

/** The settled line and the settling term of p*(t) = p∞ + A·e^(−t/τ) − s·t. Times in s from the first reading, pressures in kPa. */
export interface SettlingFit {
  /** `settling`: the term stands out of the noise. `straight`: a line describes the readings as well. */
  readonly outcome: 'settling' | 'straight';
  /** p∞, kPa */
  readonly intercept: number;
  /** −s, kPa/s */
  readonly slope: number;
  /** kPa/s, with the noise never taken below `leastSd` */
  readonly slopeSe: number;
  /** A, kPa; 0 where straight */
  readonly amplitude: number;
  /** τ, s; 0 where straight */
  readonly tau: number;
}

/** Fewest readings that four unknowns and their scatter can come from. */
export const LEAST_FIT_READINGS = 8;

const SEARCH = {
  /** grid points over τ, on a logarithmic scale; the valley is wide, 36 never miss it */
  gridPoints: 36,
  /** golden-section steps inside the best interval: τ to about 1e-6 of itself */
  refineSteps: 32,
  /** τ as shares of the record's length: shorter is noise of one reading, longer cannot be told from a leak */
  shortest: 0.01,
  longest: 3,
  /** fall of the sum of squares, in variances, that two more unknowns must earn (chi-square with 2 degrees, 90 %) */
  earns: 4.6,
} as const;

interface Linear {
  readonly coefficients: readonly number[];
  readonly rss: number;
}

/** Least squares y ≈ Σ cⱼ·columnⱼ by the normal equations. Returns null when the columns depend on each other. */
function solveLinear(columns: readonly (readonly number[])[], y: readonly number[]): Linear | null {
  const inverse = invert(normalMatrix(columns));
  if (!inverse) return null;
  const right = columns.map((column) => dot(column, y));
  const coefficients = inverse.map((row) => dot(row, right));
  const rss = y.reduce(
    (sum, value, index) =>
      sum + (value - columns.reduce((fit, column, j) => fit + (coefficients[j] as number) * (column[index] as number), 0)) ** 2,
    0,
  );
  return { coefficients, rss };
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, value, index) => sum + value * (b[index] as number), 0);
const normalMatrix = (columns: readonly (readonly number[])[]): number[][] => columns.map((a) => columns.map((b) => dot(a, b)));

/** Gauss–Jordan with pivoting. null for a matrix that is singular to working precision. */
function invert(matrix: readonly (readonly number[])[]): number[][] | null {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  const scale = Math.max(...matrix.flat().map(Math.abs));
  for (let i = 0; i < n; i += 1) {
    let best = i;
    for (let k = i + 1; k < n; k += 1) if (Math.abs(rows[k]?.[i] as number) > Math.abs(rows[best]?.[i] as number)) best = k;
    const pivotRow = rows[best] as number[];
    const pivot = pivotRow[i] as number;
    if (!(Math.abs(pivot) > 1e-13 * scale)) return null;
    rows[best] = rows[i] as number[];
    rows[i] = pivotRow.map((value) => value / pivot);
    for (let k = 0; k < n; k += 1) {
      if (k === i) continue;
      const factor = rows[k]?.[i] as number;
      rows[k] = (rows[k] as number[]).map((value, j) => value - factor * (rows[i]?.[j] as number));
    }
  }
  return rows.map((row) => row.slice(n));
}

/**
 * Fits settling and leak together. For a given τ the model is linear, so only τ is searched (variable projection);
 * the standard error of the slope comes from all four unknowns together.
 * @param times rising, first one 0; at least `LEAST_FIT_READINGS`
 * @param leastSd standard deviation of one pressure that is known beforehand, kPa
 * Source: model of handbook section F; Golub & Pereyra 1973 for the projection.
 */
export function fitSettling(times: readonly number[], pressures: readonly number[], leastSd: number): SettlingFit | null {
  const span = times.at(-1) as number;
  const base = pressures[0] as number;
  const u = times.map((t) => t / span);
  const y = pressures.map((p) => p - base);
  const ones = u.map(() => 1);
  const line = solveLinear([ones, u], y);
  if (!line) return null;
  const straight = finish({ span, base, leastSd, columns: [ones, u], solution: line, amplitude: 0, tau: 0 });
  const range = tauRange(span);
  if (!range) return straight;
  const settled = (logTau: number): Linear | null => fitAmplitude(ones, u, u.map((x) => Math.exp(-x / Math.exp(logTau))), y); // prettier-ignore
  const logTau = searchTau((candidate) => settled(candidate)?.rss ?? Infinity, range);
  const best = settled(logTau);
  const noise = Math.max(leastSd ** 2, (best?.rss ?? 0) / Math.max(1, times.length - 4));
  const amplitude = best?.coefficients[2] ?? 0;
  if (!best || amplitude <= 0 || line.rss - best.rss < SEARCH.earns * noise) return straight;
  const tau = Math.exp(logTau);
  const decay = u.map((x) => Math.exp(-x / tau));
  const byTau = u.map((x, index) => (amplitude * x * (decay[index] as number)) / tau ** 2);
  return finish({ span, base, leastSd, columns: [ones, u, decay, byTau], solution: best, amplitude, tau: tau * span }) ?? straight;
}

/** Shares of the record's length that τ may take: as far as can be told apart, within what settling can be. null: none. */
function tauRange(span: number): { from: number; to: number } | null {
  const from = Math.max(SEARCH.shortest, SETTLING_TAU_S.least / span);
  const to = Math.min(SEARCH.longest, SETTLING_TAU_S.most / span);
  return from < to ? { from: Math.log(from), to: Math.log(to) } : null;
}

/** Settling beside a line, its amplitude at most what settling can take: what falls beyond that belongs to the line. */
function fitAmplitude(ones: readonly number[], u: readonly number[], decay: readonly number[], y: readonly number[]): Linear | null {
  const free = solveLinear([ones, u, decay], y);
  if (!free || (free.coefficients[2] as number) <= MOST_SETTLING_KPA) return free;
  const capped = solveLinear([ones, u], y.map((value, index) => value - MOST_SETTLING_KPA * (decay[index] as number))); // prettier-ignore
  return capped && { coefficients: [...capped.coefficients, MOST_SETTLING_KPA], rss: capped.rss };
}

interface Finish {
  readonly span: number;
  readonly base: number;
  readonly leastSd: number;
  /** the Jacobian's columns, slope second */
  readonly columns: readonly (readonly number[])[];
  readonly solution: Linear;
  readonly amplitude: number;
  readonly tau: number;
}

/**
 * The least slope s (kPa/s, positive for falling) that the readings still allow when a settling of any size with a usual
 * time constant may run beside it: the smallest s whose misfit stays within `standardErrors`² variances of the best
 * (profile likelihood over A and τ). A fall that settling could explain gives 0 or less.
 * @param taus s; time constants that settling of warm air and soft tube can have
 */
export function leastSlope(
  times: readonly number[],
  pressures: readonly number[],
  sd: number,
  taus: readonly number[],
  standardErrors: number,
): number {
  const base = pressures[0] as number;
  const y = pressures.map((p) => (p - base) / sd);
  const ones = times.map(() => 1);
  const models = [null, ...taus].flatMap((tau) => {
    const columns = [ones, times, ...(tau === null ? [] : [times.map((t) => Math.exp(-t / tau))])];
    const solution = solveLinear(columns, y);
    const covariance = invert(normalMatrix(columns));
    return solution && covariance ? [{ solution, covariance }] : [];
  });
  const best = Math.min(...models.map(({ solution }) => solution.rss));
  const lows = models.map(({ solution: { coefficients, rss }, covariance }) => {
    const allowed = standardErrors ** 2 - (rss - best);
    const spread = covariance[1]?.[1] ?? 0;
    if (allowed < 0 || !(spread > 0)) return Infinity;
    // the far end of the ellipse of slopes that fit; the settling that goes with it must be one, not a rise
    const steps = Math.sqrt(allowed / spread);
    const amplitude = coefficients.length > 2 ? (coefficients[2] as number) + steps * (covariance[1]?.[2] ?? 0) : 0;
    return amplitude < 0 ? Infinity : -((coefficients[1] as number) + steps * spread) * sd;
  });
  return Math.min(Infinity, ...lows);
}

/** Back to kPa and s, with the standard error of the slope. */
function finish({ span, base, leastSd, columns, solution, amplitude, tau }: Finish): SettlingFit | null {
  const covariance = invert(normalMatrix(columns));
  const freedom = (columns[0]?.length ?? 0) - columns.length;
  const variance = Math.max(leastSd ** 2, freedom > 0 ? solution.rss / freedom : 0);
  const spread = covariance?.[1]?.[1];
  if (spread === undefined || !(spread > 0)) return null;
  return {
    outcome: amplitude > 0 ? 'settling' : 'straight',
    intercept: base + (solution.coefficients[0] as number),
    slope: (solution.coefficients[1] as number) / span,
    slopeSe: Math.sqrt(variance * spread) / span,
    amplitude,
    tau,
  };
}

/** Smallest value over the logarithm of τ: a grid, then a golden section around its best point. */
function searchTau(cost: (logTau: number) => number, { from: low, to }: { from: number; to: number }): number {
  const step = (to - low) / (SEARCH.gridPoints - 1);
  let best = 0;
  for (let index = 1; index < SEARCH.gridPoints; index += 1) if (cost(low + index * step) < cost(low + best * step)) best = index;
  const golden = (Math.sqrt(5) - 1) / 2;
  let a = low + Math.max(0, best - 1) * step;
  let b = low + Math.min(SEARCH.gridPoints - 1, best + 1) * step;
  for (let n = 0; n < SEARCH.refineSteps; n += 1) {
    const c = b - golden * (b - a);
    const d = a + golden * (b - a);
    if (cost(c) < cost(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}
