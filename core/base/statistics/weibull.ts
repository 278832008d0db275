import { Z_TWO_SIDED_95 } from '../units/physics.js';
import type { Life } from './lives.js';

export interface Weibull {
  /** below 1: the weak ones go first; above: they wear out */
  readonly shape: number;
  /** months after which all but 1/e are gone */
  readonly scale: number;
}

export interface AgeAtRisk {
  readonly months: number;
  /** 95 % two-sided */
  readonly lowMonths: number;
  readonly highMonths: number;
}

/** shapes between which a likelihood's top counts as found: beyond them one age fits as well as any */
const LOG_SHAPES = { from: Math.log(0.02), to: Math.log(500) } as const;
/** halvings of the search: the shape to the last digit */
const STEPS = 60;

/** Lives of one age, put together: days of a year are few, fills are many. */
interface Alike {
  readonly months: number;
  readonly entryMonths: number;
  readonly count: number;
}

function alike(lives: readonly Life[]): Alike[] {
  const byAge = new Map<number, Map<number, number>>();
  for (const { months, entryMonths } of lives) {
    const own = byAge.get(months) ?? new Map<number, number>();
    own.set(entryMonths, (own.get(entryMonths) ?? 0) + 1);
    byAge.set(months, own);
  }
  return [...byAge].flatMap(([months, own]) => [...own].map(([entryMonths, count]) => ({ months, entryMonths, count })));
}

/** What the likelihood of a Weibull distribution is made of at a shape, ages measured in the scale: Σ over lives of u^j·e^(k·u). */
function sumsAt(lives: readonly Alike[], shape: number, logScale: number): [number, number, number] {
  const sums: [number, number, number] = [0, 0, 0];
  for (const { months, entryMonths, count } of lives)
    for (const [age, sign] of [[months, count], [entryMonths, -count]] as const) {
      if (age <= 0) continue;
      const u = Math.log(age) - logScale;
      const power = sign * Math.exp(shape * u);
      sums[0] += power;
      sums[1] += power * u;
      sums[2] += power * u * u;
    } // prettier-ignore
  return sums;
}

/**
 * Weibull by maximum likelihood, with lives that have not ended and lives watched from an age on (their hazard counts from there:
 * Lawless, Statistical Models and Methods for Lifetime Data, 2003, section 5.2).
 * @returns null where no finite maximum exists: nothing failed, or all that failed did so at the oldest age
 */
export function fitWeibull(lives: readonly Life[]): Weibull | null {
  const failed = lives.filter(({ event }) => event);
  const oldest = lives.reduce((most, { months }) => Math.max(most, months), 0);
  if (failed.length === 0 || failed.every(({ months }) => months === oldest)) return null;
  const meanLog = failed.reduce((sum, { months }) => sum + Math.log(months), 0) / failed.length;
  const ages = alike(lives);
  // ages around their middle, so that no power runs over
  const scaleAt = (shape: number): number => meanLog + Math.log(sumsAt(ages, shape, meanLog)[0] / failed.length) / shape;
  /** derivative of the profile likelihood by the shape, a failure; falls with it */
  const slopeAt = (shape: number): number => {
    const [power, first] = sumsAt(ages, shape, meanLog);
    return 1 / shape - first / power;
  };
  let [from, to] = [LOG_SHAPES.from as number, LOG_SHAPES.to as number];
  if (slopeAt(Math.exp(from)) <= 0 || slopeAt(Math.exp(to)) >= 0) return null;
  for (let step = 0; step < STEPS; step += 1) {
    const middle = (from + to) / 2;
    if (slopeAt(Math.exp(middle)) > 0) from = middle;
    else to = middle;
  }
  const shape = Math.exp((from + to) / 2);
  return { shape, scale: Math.exp(scaleAt(shape)) };
}

/**
 * Age at which a share has failed, with its interval by the delta method on the logarithm of the age (observed information).
 * @param risk share, above 0 and below 1
 * @returns null where the likelihood has no curvature to tell how sure it is
 */
export function ageAtRisk(lives: readonly Life[], { shape, scale }: Weibull, risk: number): AgeAtRisk | null {
  const logScale = Math.log(scale);
  const failures = lives.filter(({ event }) => event).length;
  const [power, first, second] = sumsAt(alike(lives), shape, logScale);
  // the observed information in (shape, ln scale) at the maximum
  const [kk, ka, aa] = [failures / shape ** 2 + second, failures - power - shape * first, shape ** 2 * power];
  const determinant = kk * aa - ka * ka;
  if (!(determinant > 0)) return null;
  const reach = Math.log(-Math.log1p(-risk));
  // ln age = ln scale + reach / shape
  const [byShape, byScale] = [-reach / shape ** 2, 1];
  const variance = (byShape ** 2 * aa - 2 * byShape * byScale * ka + byScale ** 2 * kk) / determinant;
  const months = scale * Math.exp(reach / shape);
  const factor = Math.exp(Z_TWO_SIDED_95 * Math.sqrt(variance));
  return { months, lowMonths: months / factor, highMonths: months * factor };
}
