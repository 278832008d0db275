/** A temperature while a load test runs. */
export interface WarmingSample {
  readonly tS: number;
  readonly tempC: number;
}

/** Where a warming (or cooling) trace ends, and how far it is. */
export interface Saturation {
  readonly finalC: number;
  /** one standard deviation; what the curve itself cannot tell, without the sensor's own error */
  readonly finalSdC: number;
  /** s; null: the trace is flat */
  readonly tauS: number | null;
  /** share of the way from the curve's start to its end, at the last sample */
  readonly reachedFraction: number;
  /** from the last sample until half a kelvin is left */
  readonly minutesToHalfKelvin: number;
}

/** K; so close to the end an answer no longer changes */
const HALF_KELVIN = 0.5;
export const LEAST_SAMPLES = 4;
/** a curve explains so much by chance alone no more often than this */
const BY_CHANCE = 0.05;
/** time constants looked through, as shares of the span of the samples: shorter is a step, longer a straight line */
const TAUS = { from: 0.01, to: 100, perDecade: 12 } as const;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
const REFINED = 60;

/**
 * T(t) = T∞ − (T∞ − T₀)·e^(−t/τ), by least squares: T∞ and T₀ are linear for each τ, τ is searched. The sd of T∞ is that of all three
 * together (linearised at the fit). A trace that a constant explains as well, and that moves less than half a kelvin, is flat.
 * @param samples at least four, in the order of time, the first at the start of the curve
 * @returns null where every sample has the same time
 */
export function saturate(samples: readonly WarmingSample[]): Saturation | null {
  const n = samples.length;
  const start = samples[0]?.tS ?? 0;
  const times = samples.map(({ tS }) => tS - start);
  const temps = samples.map(({ tempC }) => tempC);
  const span = times.at(-1) ?? 0;
  if (n < LEAST_SAMPLES || !(span > 0)) return null;
  const mean = temps.reduce((sum, each) => sum + each, 0) / n;
  const constantRss = temps.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  if (constantRss === 0) return flat(mean, 0);
  const tau = bestTau(times, temps, span);
  const fit = fitAt(times, temps, tau);
  const moved = Math.abs(fit.amplitude) * (1 - Math.exp(-span / tau));
  // F with two degrees of freedom above has a closed tail
  const spare = Math.max(1, n - 3);
  const ratio = fit.rss === 0 ? Infinity : (constantRss - fit.rss) / 2 / (fit.rss / spare);
  const chance = (1 + (2 * ratio) / spare) ** (-spare / 2);
  if (moved < HALF_KELVIN && chance > BY_CHANCE) return flat(mean, Math.sqrt(constantRss / (n - 1) / n));
  const left = Math.abs(fit.amplitude) * Math.exp(-span / tau);
  return {
    finalC: fit.finalC,
    finalSdC: finalSd(times, fit, tau, spare),
    tauS: tau,
    reachedFraction: 1 - Math.exp(-span / tau),
    minutesToHalfKelvin: left <= HALF_KELVIN ? 0 : (tau * Math.log(left / HALF_KELVIN)) / 60,
  };
}

const flat = (finalC: number, finalSdC: number): Saturation => ({
  finalC,
  finalSdC,
  tauS: null,
  reachedFraction: 1,
  minutesToHalfKelvin: 0,
});

interface Fit {
  readonly finalC: number;
  /** K from the start of the curve to its end, rising positive */
  readonly amplitude: number;
  readonly rss: number;
}

/** T = T∞ − A·e^(−t/τ) for one τ. */
function fitAt(times: readonly number[], temps: readonly number[], tau: number): Fit {
  const n = times.length;
  const bases = times.map((t) => Math.exp(-t / tau));
  const meanBase = bases.reduce((sum, each) => sum + each, 0) / n;
  const meanTemp = temps.reduce((sum, each) => sum + each, 0) / n;
  let [both, own] = [0, 0];
  bases.forEach((base, index) => {
    both += (base - meanBase) * ((temps[index] as number) - meanTemp);
    own += (base - meanBase) ** 2;
  });
  const amplitude = own > 0 ? -both / own : 0;
  const finalC = meanTemp + amplitude * meanBase;
  const rss = temps.reduce((sum, temp, index) => sum + (temp - finalC + amplitude * (bases[index] as number)) ** 2, 0);
  return { finalC, amplitude, rss };
}

/** The least squares over τ: the best of a grid, then narrowed by golden sections. */
function bestTau(times: readonly number[], temps: readonly number[], span: number): number {
  const rssAt = (logTau: number): number => fitAt(times, temps, Math.exp(logTau)).rss;
  const [from, to] = [Math.log(TAUS.from * span), Math.log(TAUS.to * span)];
  const steps = Math.ceil((Math.log10(TAUS.to) - Math.log10(TAUS.from)) * TAUS.perDecade);
  const step = (to - from) / steps;
  let best = from;
  let least = Infinity;
  for (let index = 0; index <= steps; index += 1) {
    const rss = rssAt(from + index * step);
    if (rss < least) [best, least] = [from + index * step, rss];
  }
  let [low, high] = [Math.max(from, best - step), Math.min(to, best + step)];
  for (let n = 0; n < REFINED; n += 1) {
    const [a, b] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
    if (rssAt(a) < rssAt(b)) high = b;
    else low = a;
  }
  return Math.exp((low + high) / 2);
}

/** From the curvature of all three unknowns; infinite where the samples do not tell them apart. */
function finalSd(times: readonly number[], { amplitude, rss }: Fit, tau: number, spare: number): number {
  // derivatives by T∞, A and ln τ; the last in units of A, so that a small curve is no singular one
  const [s, a, b, aa, ab, bb] = times.reduce<[number, number, number, number, number, number]>(
    (sums, t) => {
      const byA = -Math.exp(-t / tau);
      const byTau = byA * (t / tau);
      return [sums[0] + 1, sums[1] + byA, sums[2] + byTau, sums[3] + byA * byA, sums[4] + byA * byTau, sums[5] + byTau * byTau];
    },
    [0, 0, 0, 0, 0, 0],
  );
  const inner = aa * bb - ab * ab;
  // Schur complement of the other two
  const left = s - (a * (a * bb - b * ab) + b * (b * aa - a * ab)) / inner;
  if (amplitude === 0) return Math.sqrt(rss / spare / s);
  return inner > 0 && left > 0 ? Math.sqrt(rss / spare / left) : Infinity;
}
