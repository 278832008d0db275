import { groupBy } from '../../base/numerics/groupBy.js';
import { kaplanMeier, type SurvivalStep } from '../../base/statistics/lives.js';
import { DAYS_PER_MONTH } from '../../base/units/calendar.js';
import { COOLANT_CLASSES, type CoolantClass } from '../../machine/liquids/classes.js';
import { DEFAULT_HOURS_PER_DAY } from '../usage/defaults.js';
import { learnedLife, type FillLife, type LearnedLife } from './fillLives.js';

/** By what fills are put together to see how long they last. */
export const LIFE_GROUPS = ['class', 'product', 'lot', 'tube', 'metals'] as const;
export type LifeGroupBy = (typeof LIFE_GROUPS)[number];

/** Fills of one class, product, lot, tube or set of metals, and how long they lasted. */
export interface LifeGroup {
  readonly by: LifeGroupBy;
  /** class, product id, lot id, or materials joined by " + " */
  readonly key: string;
  readonly coolantClass: CoolantClass;
  readonly fills: number;
  readonly failed: number;
  /** age of the oldest, whether it failed or not */
  readonly oldestMonths: number;
  /** of its sheet or its class, beside which it is weighed */
  readonly policyMonths: number;
  /** at each age of a failure, thinned */
  readonly steps: readonly SurvivalStep[];
  /** fills still watched at the ages of `RISK_AGES` */
  readonly atRisk: readonly number[];
  /** null: too few failed to tell */
  readonly learned: LearnedLife | null;
}

/** months at which the numbers at risk are told */
export const RISK_AGES = [0, 3, 6, 9, 12, 18, 24, 36] as const;
/** steps of a curve that are kept */
const MOST_STEPS = 120;

/** Months that a coolant is taken to last: by its sheet, else by its class; hours of show coolants at the usual hours a day. */
export function policyMonthsOf(coolantClass: CoolantClass, sheetLifeMonths: number | null): number {
  const { baseLifeMonths, baseLifeRunningHours } = COOLANT_CLASSES[coolantClass];
  if (sheetLifeMonths !== null) return sheetLifeMonths;
  return baseLifeRunningHours === null ? baseLifeMonths : baseLifeRunningHours / DEFAULT_HOURS_PER_DAY / DAYS_PER_MONTH;
}

/** Every so-manieth step, the last among them: a curve of thousands of failures looks the same. */
function thinned(steps: readonly SurvivalStep[]): SurvivalStep[] {
  const every = Math.ceil(steps.length / MOST_STEPS);
  return steps.filter((_, index) => index % every === 0 || index === steps.length - 1);
}

const wordOf: Readonly<Record<LifeGroupBy, (fill: FillLife) => string | null>> = {
  class: ({ coolantClass }) => coolantClass,
  product: ({ productId }) => productId,
  lot: ({ lotId }) => lotId,
  tube: ({ tubes }) => (tubes.length === 0 ? null : tubes.join(' + ')),
  metals: ({ metals }) => (metals.length === 0 ? null : metals.join(' + ')),
};

/**
 * Fills put together in every way of `LIFE_GROUPS`. Tubes and metals are told within a class: what lasts differently by its nature is not
 * put together.
 * @param sheetMonths of products whose sheet states a life, by their id
 * @param risk share that may have failed by the day of the change
 */
export function lifeGroups(fills: readonly FillLife[], sheetMonths: ReadonlyMap<string, number | null>, risk: number): LifeGroup[] {
  return LIFE_GROUPS.flatMap((by) => {
    const grouped = groupBy(fills, (fill) => {
      const key = wordOf[by](fill);
      return key === null ? null : `${fill.coolantClass} ${key}`;
    });
    return [...grouped.values()].map((own) => groupOf(by, own, sheetMonths, risk));
  });
}

function groupOf(by: LifeGroupBy, fills: readonly FillLife[], sheetMonths: ReadonlyMap<string, number | null>, risk: number): LifeGroup {
  const first = fills[0] as FillLife;
  const ofOneProduct = by === 'product' || by === 'lot';
  const policyMonths = policyMonthsOf(first.coolantClass, ofOneProduct ? (sheetMonths.get(first.productId) ?? null) : null);
  return {
    by,
    key: wordOf[by](first) as string,
    coolantClass: first.coolantClass,
    fills: fills.length,
    failed: fills.filter(({ event }) => event).length,
    oldestMonths: fills.reduce((oldest, { months }) => Math.max(oldest, months), 0),
    policyMonths,
    steps: thinned(kaplanMeier(fills)),
    atRisk: RISK_AGES.map((age) => fills.filter(({ months, entryMonths }) => entryMonths <= age && months > age).length),
    learned: learnedLife(fills, policyMonths, risk),
  };
}
