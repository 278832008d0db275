import { Z_TWO_SIDED_95 } from '../units/physics.js';
import { medianOf } from './median.js';

/** One reading on its day; days are counted from any fixed day. */
export interface DayValue {
  readonly day: number;
  readonly value: number;
}

export interface Trend {
  /** a day; the median of all pairwise slopes */
  readonly slope: number;
  /** a day, 95 % two-sided; null: too few points to tell */
  readonly low: number | null;
  readonly high: number | null;
  /** day on which the line, and those with the other slopes, reach the limit; null: never. The earlier is low. */
  readonly crossesDay: number | null;
  readonly crossesLowDay: number | null;
  readonly crossesHighDay: number | null;
}

/** points with which the interval is that of the extremes: its rank falls a thousandth short of one */
const EXTREMES_AT = 5;

/**
 * A robust line through readings: Theil–Sen with Sen's interval (Sen 1968, J. Am. Stat. Assoc. 63, 1379), and where it meets a limit.
 * Half of the readings may be wrong before it is. Pairs of one day say nothing and are left out.
 * @param limit value that must not be passed; null: only the slope is asked for
 * @returns null where no two points lie on different days
 */
export function theilSen(points: readonly DayValue[], limit: number | null): Trend | null {
  const slopes: number[] = [];
  for (let a = 0; a < points.length; a += 1)
    for (let b = a + 1; b < points.length; b += 1) {
      const [one, other] = [points[a] as DayValue, points[b] as DayValue];
      if (one.day !== other.day) slopes.push((other.value - one.value) / (other.day - one.day));
    }
  if (slopes.length === 0) return null;
  slopes.sort((x, y) => x - y);
  const slope = medianOf(slopes);
  const [low, high] = senInterval(slopes, points.length);
  const days = points.map(({ day }) => day);
  const first = Math.min(...days);
  const crossing = (of: number | null): number | null => (limit === null || of === null ? null : crossingOf(points, of, limit, first));
  const others = [crossing(low), crossing(high)].filter((day) => day !== null).sort((x, y) => x - y);
  return {
    slope,
    low,
    high,
    crossesDay: crossing(slope),
    crossesLowDay: others[0] ?? null,
    crossesHighDay: others[1] ?? null,
  };
}

/** @param slopes sorted */
function senInterval(slopes: readonly number[], n: number): [number | null, number | null] {
  const c = Z_TWO_SIDED_95 * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const rank = Math.max(Math.floor((slopes.length - c) / 2), n === EXTREMES_AT ? 1 : 0);
  return rank < 1 ? [null, null] : [slopes[rank - 1] ?? null, slopes[slopes.length - rank] ?? null];
}

/**
 * A line that moves away from the limit never meets it; one that has passed it met it on a day since the first reading.
 * @param first day of the first reading
 */
function crossingOf(points: readonly DayValue[], slope: number, limit: number, first: number): number | null {
  if (slope === 0) return null;
  const intercept = medianOf(points.map(({ day, value }) => value - slope * day).sort((x, y) => x - y));
  const day = (limit - intercept) / slope;
  return day >= first ? day : null;
}
