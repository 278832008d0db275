import type { Life } from '../../base/statistics/lives.js';
import { ageAtRisk, fitWeibull, type AgeAtRisk, type Weibull } from '../../base/statistics/weibull.js';
import { DAYS_PER_MONTH, daysBetween } from '../../base/units/calendar.js';
import type { CoolantClass } from '../../machine/liquids/classes.js';
import type { CauseKey } from '../due-dates/facts.js';

/** What ends the life of a coolant, where it is found; dirt from elsewhere and mistakes of hands do not. */
export const ENDS_A_COOLANT: readonly CauseKey[] = ['fallout', 'plasticiser-bloom', 'growth', 'corrosion', 'plating-loss', 'colour'];

/** One fill, from the day it went in until it failed, came out, or today. */
export interface FillLife extends Life {
  readonly fillId: string;
  readonly systemId: string;
  readonly coolantClass: CoolantClass;
  readonly productId: string;
  readonly lotId: string | null;
  /** materials of its tubes and wetted metals, each in order */
  readonly tubes: readonly string[];
  readonly metals: readonly string[];
}

/** a fill that fails on its own day lasted half of it */
const LEAST_MONTHS = 0.5 / DAYS_PER_MONTH;
const monthsFrom = (from: string, to: string): number => Math.max(LEAST_MONTHS, daysBetween(from, to) / DAYS_PER_MONTH);

/**
 * A fill as a life: it ends with the first thing that was found of it, or is still good when it is drained, or today.
 * @param failedOn days on which something that ends a coolant was found in this machine, in any order
 * @param knownFrom day from which it was known to be good: of an imported fill that of its import; null: from the beginning
 */
export function lifeOfFill(fill: {
  readonly filledOn: string;
  readonly drainedOn: string | null;
  readonly failedOn: readonly string[];
  readonly knownFrom: string | null;
  readonly today: string;
}): Life {
  const { filledOn, drainedOn, failedOn, knownFrom, today } = fill;
  const until = drainedOn ?? today;
  const failed = failedOn.filter((on) => on >= filledOn && on <= until).sort()[0];
  const months = monthsFrom(filledOn, failed ?? until);
  const entryMonths = knownFrom === null || knownFrom <= filledOn ? 0 : monthsFrom(filledOn, knownFrom);
  return { months, event: failed !== undefined, entryMonths: Math.min(entryMonths, months * (1 - 1e-9)) };
}

/** Share of fills that may have failed by the day of their change; how many failures a class's policy is worth beside one's own. */
export const LEARNING = { risk: 0.05, policyWorth: 5 } as const;

export interface LearnedLife {
  readonly fills: number;
  readonly failed: number;
  readonly weibull: Weibull;
  /** age at which the chosen share has failed, by these fills alone */
  readonly alone: AgeAtRisk;
  /** of what these fills say, beside the policy of their class: 0 to 1 */
  readonly weight: number;
  /** months at the chosen risk, both together, and the lower end of their interval (95 % two-sided) */
  readonly months: number;
  readonly lowMonths: number;
}

/**
 * How long fills last here, with what their class is taken to last while few have failed: an average on a logarithmic scale, weighed by
 * the failures (empirical Bayes with a prior worth `LEARNING.policyWorth` of them).
 * @param policyMonths of the class
 * @returns null where nothing failed, or all that failed did so at the oldest age
 */
export function learnedLife(lives: readonly Life[], policyMonths: number, risk: number = LEARNING.risk): LearnedLife | null {
  const weibull = fitWeibull(lives);
  const alone = weibull && ageAtRisk(lives, weibull, risk);
  if (!weibull || !alone || !(policyMonths > 0)) return null;
  const failed = lives.filter(({ event }) => event).length;
  const weight = failed / (failed + LEARNING.policyWorth);
  const blended = (months: number): number => Math.exp(weight * Math.log(months) + (1 - weight) * Math.log(policyMonths));
  return { fills: lives.length, failed, weibull, alone, weight, months: blended(alone.months), lowMonths: blended(alone.lowMonths) };
}
