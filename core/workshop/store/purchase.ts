import { say } from '../../base/words/say.js';
import { formatMl } from '../../base/units/display.js';

/** What stands on the shelf of one coolant, all lots together. */
export interface CoolantStock {
  readonly productId: string;
  readonly name: string;
  readonly bottleMl: number;
  /** mL of lots that are counted and still keep; null where no lot is counted */
  readonly stockMl: number | null;
  /** share of concentrate in the finished coolant; null for ready-mix */
  readonly targetFraction: number | null;
  readonly reorderBottles: number;
}

export interface ItemStock {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly count: number;
  readonly reorderAt: number;
}

/** A job of the coming fortnight, with what it will take. */
export interface ComingJob {
  readonly id: string;
  readonly systemName: string;
  readonly productId: string | null;
  /** mL of finished coolant */
  readonly coolantMl: number;
  readonly partsText: string;
  /** parts that its estimate names: from the store, or from elsewhere */
  readonly parts: readonly { readonly itemId: string | null; readonly what: string; readonly amount: number; readonly unit: string }[];
}

export interface PurchaseLine {
  readonly what: string;
  readonly order: string;
  readonly why: string;
}

/** days that the purchase list looks ahead */
export const PURCHASE_DAYS = 14;
/** share of a bottle by which pouring, samples and towels go beyond a loop's volume */
const SPILL_SHARE = 0.05;

/**
 * What to order: coolant for the jobs of the coming fortnight and down to the reorder level, counted things below theirs,
 * and every part that a job names. What nobody counts is named as such, not guessed.
 */
export function purchaseList(coolants: readonly CoolantStock[], items: readonly ItemStock[], jobs: readonly ComingJob[]): PurchaseLine[] {
  return [
    ...coolants.flatMap((coolant) =>
      coolantLine(
        coolant,
        jobs.filter(({ productId }) => productId === coolant.productId),
      ),
    ),
    ...items.flatMap((item) => itemLine(item, jobs)),
    ...jobs.flatMap(({ systemName, parts }) =>
      parts
        .filter(({ itemId }) => itemId === null)
        .map(({ what, amount, unit }) => ({ what, order: `${round(amount)} ${unit}`, why: systemName })),
    ),
    ...jobs
      .filter(({ partsText }) => partsText.trim() !== '')
      .map(({ systemName, partsText }) => ({ what: partsText, order: say('for the job'), why: systemName })),
  ];
}

/** A counted thing that is below its mark, or will be after the jobs that name it. */
function itemLine({ id, name, unit, count, reorderAt }: ItemStock, jobs: readonly ComingJob[]): PurchaseLine[] {
  const takers = jobs.filter(({ parts }) => parts.some(({ itemId }) => itemId === id));
  const need = takers.flatMap(({ parts }) => parts.filter(({ itemId }) => itemId === id)).reduce((sum, { amount }) => sum + amount, 0);
  if (count - need >= reorderAt) return [];
  const taken =
    need > 0 ? say(', {need} for {map}', { need: round(need), map: takers.map(({ systemName }) => systemName).join(', ') }) : '';
  return [
    {
      what: name,
      order: `${round(2 * reorderAt - count + need)} ${unit}`,
      why: say('{count} {unit} left{taken}, reorder at {reorderAt}', { count: round(count), unit, taken, reorderAt: round(reorderAt) }),
    },
  ];
}

const round = (value: number): number => Math.round(value * 10) / 10;

function coolantLine(coolant: CoolantStock, jobs: readonly ComingJob[]): PurchaseLine[] {
  const share = coolant.targetFraction ?? 1;
  const needMl = jobs.reduce((sum, { coolantMl }) => sum + share * coolantMl * (1 + SPILL_SHARE), 0);
  const keepMl = coolant.reorderBottles * coolant.bottleMl;
  if (needMl === 0 && keepMl === 0) return [];
  const names = jobs.map(({ systemName }) => systemName).join(', ');
  if (coolant.stockMl === null)
    return needMl === 0
      ? []
      : [
          {
            what: coolant.name,
            order: say('{bottles}, if the shelf is bare', { bottles: bottles(needMl, coolant.bottleMl) }),
            why: say('{names}; no lot is counted', { names }),
          },
        ];
  const shortMl = needMl + keepMl - coolant.stockMl;
  if (shortMl <= 0) return [];
  return [
    {
      what: coolant.name,
      order: bottles(shortMl, coolant.bottleMl),
      why: say('{formatMl} on the shelf{say}{say2}', {
        formatMl: formatMl(coolant.stockMl),
        say: needMl > 0 ? say(', {formatMl} for {names}', { formatMl: formatMl(needMl), names }) : '',
        say2: keepMl > 0 ? say(', {formatMl} kept in reserve', { formatMl: formatMl(keepMl) }) : '',
      }),
    },
  ];
}

const bottles = (ml: number, bottleMl: number): string => {
  const count = Math.ceil(ml / bottleMl - 1e-9);
  return `${count} ${count === 1 ? say('bottle') : say('bottles')}`;
};
