import { logBetween, logDensity } from '../../base/numerics/normal.js';
import { MOST_SETTLING_KPA, SETTLING_TAU_S } from './defaults.js';

/** Corrected pressures of an air test as a likelihood sees them. */
export interface DecaySeries {
  /** s since the first reading */
  readonly times: readonly number[];
  /** s; time weighted by how fast a laminar leak runs at the pressure of that time */
  readonly leakTimes: readonly number[];
  /** kPa, less the first one */
  readonly pressures: readonly number[];
  /** kPa; standard deviation of one pressure. Of a coarse gauge that of the temperature alone */
  readonly sdKpa: number;
  /** kPa; half the step of a coarse gauge: the pressure lies within it on either side of the reading. null: a fine one */
  readonly halfStepKpa: number | null;
}

/** The best settling and start beside one slope: p*(t) = p∞ + A·e^(−t/τ) − s·u(t). */
export interface SlopeFit {
  readonly logL: number;
  /** kPa, less the first pressure */
  readonly interceptKpa: number;
  readonly amplitudeKpa: number;
  /** s; 0 where nothing settles */
  readonly tauS: number;
}

/** Time constants that are tried: fine enough for the shape of a settling, and the coarse likelihood costs more each. */
const TAUS = { fine: 24, coarse: 8 } as const;

const tauGrid = (count: number): number[] =>
  Array.from({ length: count }, (_, index) => SETTLING_TAU_S.least * (SETTLING_TAU_S.most / SETTLING_TAU_S.least) ** (index / (count - 1)));

/** Sums of one settling shape over the readings; the shape of nothing is `null`. */
interface Shape {
  readonly tauS: number;
  readonly values: readonly number[];
  readonly sum: number;
  readonly squares: number;
  readonly byPressure: number;
  readonly byLeakTime: number;
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, value, index) => sum + value * (b[index] as number), 0);
const total = (of: readonly number[]): number => of.reduce((sum, value) => sum + value, 0);

/**
 * Log-likelihood of a leak's slope, with the start and any settling that warm air and soft tube can have beside it taken
 * as well as they fit (0 ≤ A ≤ 5 kPa, τ from 20 s to an hour): a fall that settling explains is no leak.
 */
export class SlopeProfile {
  private readonly shapes: readonly Shape[];
  private readonly sums: { y: number; u: number; yy: number; uu: number; yu: number };
  private readonly count: number;

  constructor(private readonly series: DecaySeries) {
    const { times, pressures: y, leakTimes: u, halfStepKpa } = series;
    this.count = times.length;
    this.sums = { y: total(y), u: total(u), yy: dot(y, y), uu: dot(u, u), yu: dot(y, u) };
    this.shapes = tauGrid(halfStepKpa === null ? TAUS.fine : TAUS.coarse).map((tauS) => {
      const values = times.map((t) => Math.exp(-t / tauS));
      return { tauS, values, sum: total(values), squares: dot(values, values), byPressure: dot(values, y), byLeakTime: dot(values, u) };
    });
  }

  /** @param slope kPa/s, positive for falling */
  at(slope: number): SlopeFit {
    const { halfStepKpa } = this.series;
    const fits = [null, ...this.shapes].map((shape) => {
      const fit = this.leastSquares(slope, shape);
      if (halfStepKpa === null) return fit;
      // a shape that takes no part is the one of nothing
      return shape && fit.amplitudeKpa === 0 ? NOTHING : this.withinSteps(slope, shape, fit, halfStepKpa);
    });
    return fits.reduce((best, each) => (each.logL > best.logL ? each : best));
  }

  /** Closed form: for one slope and τ the model is linear in start and amplitude. */
  private leastSquares(slope: number, shape: Shape | null): SlopeFit {
    const { count: n } = this;
    const { y, u, yy, uu, yu } = this.sums;
    const sum = y + slope * u;
    const squares = yy + 2 * slope * yu + slope * slope * uu;
    let amplitudeKpa = 0;
    if (shape) {
      const det = n * shape.squares - shape.sum ** 2;
      const along = shape.byPressure + slope * shape.byLeakTime;
      amplitudeKpa = det > 1e-12 * n * shape.squares ? Math.min(MOST_SETTLING_KPA, Math.max(0, (n * along - shape.sum * sum) / det)) : 0;
    }
    const e = shape ?? { sum: 0, squares: 0, byPressure: 0, byLeakTime: 0 };
    const interceptKpa = (sum - amplitudeKpa * e.sum) / n;
    const along = e.byPressure + slope * e.byLeakTime;
    const rss =
      squares -
      2 * interceptKpa * sum -
      2 * amplitudeKpa * along +
      n * interceptKpa ** 2 +
      2 * interceptKpa * amplitudeKpa * e.sum +
      amplitudeKpa ** 2 * e.squares;
    return {
      logL: -Math.max(0, rss) / (2 * this.series.sdKpa ** 2),
      interceptKpa,
      amplitudeKpa,
      tauS: shape && amplitudeKpa > 0 ? shape.tauS : 0,
    };
  }

  /** Newton's method for start and amplitude where each reading only says between which pressures it lies. Concave: it ends at the top. */
  private withinSteps(slope: number, shape: Shape | null, from: SlopeFit, halfStep: number): SlopeFit {
    let [c, a] = [from.interceptKpa, from.amplitudeKpa];
    let here = this.stepScore(slope, shape, c, a, halfStep);
    for (let step = 0; step < NEWTON.most; step += 1) {
      const free = shape !== null && !((a <= 0 && here.ga <= 0) || (a >= MOST_SETTLING_KPA && here.ga >= 0));
      const { dc, da } = newtonStep(here, free);
      if (Math.abs(dc) + Math.abs(da) < NEWTON.closeKpa * halfStep) break;
      let share = 1;
      let next = here;
      for (; share > 1e-4; share /= 2) {
        const [tryC, tryA] = [c + share * dc, Math.min(MOST_SETTLING_KPA, Math.max(0, a + share * da))];
        next = this.stepScore(slope, shape, tryC, tryA, halfStep);
        if (next.logL >= here.logL - 1e-12) {
          [c, a] = [tryC, tryA];
          break;
        }
      }
      if (share <= 1e-4 || next.logL - here.logL < NEWTON.gains) break;
      here = next;
    }
    return { logL: here.logL, interceptKpa: c, amplitudeKpa: a, tauS: shape && a > 0 ? shape.tauS : 0 };
  }

  private stepScore(slope: number, shape: Shape | null, c: number, a: number, halfStep: number): Score {
    const { pressures, leakTimes, sdKpa } = this.series;
    const score = { logL: 0, gc: 0, ga: 0, hcc: 0, hca: 0, haa: 0 };
    for (let index = 0; index < this.count; index += 1) {
      const e = shape ? (shape.values[index] as number) : 0;
      const off = ((pressures[index] as number) - c - a * e + slope * (leakTimes[index] as number)) / sdKpa;
      const [low, high] = [off - halfStep / sdKpa, off + halfStep / sdKpa];
      // well inside its step a reading says nothing
      if (low < -NEWTON.inside && high > NEWTON.inside) continue;
      const logP = logBetween(low, high);
      const [atLow, atHigh] = [Math.exp(logDensity(low) - logP), Math.exp(logDensity(high) - logP)];
      const g = (atLow - atHigh) / sdKpa;
      const h = (low * atLow - high * atHigh) / sdKpa ** 2 - g * g;
      score.logL += logP;
      score.gc += g;
      score.ga += g * e;
      score.hcc += h;
      score.hca += h * e;
      score.haa += h * e * e;
    }
    return score;
  }
}

const NOTHING: SlopeFit = { logL: Number.NEGATIVE_INFINITY, interceptKpa: 0, amplitudeKpa: 0, tauS: 0 };

const NEWTON = {
  most: 30,
  /** shares of half a step: closer is rounding */
  closeKpa: 1e-5,
  /** standard scores from both ends of a step at which a pressure lies inside for certain */
  inside: 7,
  /** a step that gains less than this changes no verdict */
  gains: 1e-6,
} as const;

interface Score {
  readonly logL: number;
  readonly gc: number;
  readonly ga: number;
  readonly hcc: number;
  readonly hca: number;
  readonly haa: number;
}

/** One Newton step uphill; where the top is flat a little steepness is lent, so that it stays finite. */
function newtonStep({ gc, ga, hcc, hca, haa }: Score, free: boolean): { dc: number; da: number } {
  const lent = 1e-9 * Math.abs(hcc) + 1e-9;
  const [cc, aa] = [hcc - lent, haa - lent];
  if (!free) return { dc: -gc / cc, da: 0 };
  const det = cc * aa - hca * hca;
  if (!(det > 0)) return { dc: -gc / cc, da: 0 };
  return { dc: -(aa * gc - hca * ga) / det, da: -(cc * ga - hca * gc) / det };
}
