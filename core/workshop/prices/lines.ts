import type { Estimate, EstimateInput, PartLine } from './estimate.js';
import type { LineKind, Priced, PricedLine } from './priced.js';
import { hourOf, PRICE_FOR, type PriceList, type PriceUnit, type Rates } from './rates.js';

export function line(kind: LineKind, what: string, amount: number, unit: PriceUnit, eachMinor: number | null): PricedLine {
  return { kind, what, amount, unit, eachMinor, sumMinor: eachMinor === null ? null : Math.round((amount / PRICE_FOR[unit].amount) * eachMinor) }; // prettier-ignore
}

/** Adds lines up. Tax is reckoned once, from the sum, so that lines and total never differ by rounding. */
export function sumUp({ currency, taxPercent, withTax }: Rates, lines: readonly PricedLine[]): Priced {
  const sum = lines.reduce((all, { sumMinor }) => all + (sumMinor ?? 0), 0);
  const taxMinor = Math.round(withTax ? (sum * taxPercent) / (100 + taxPercent) : (sum * taxPercent) / 100);
  const totalMinor = withTax ? sum : sum + taxMinor;
  const open = lines.filter(({ sumMinor }) => sumMinor === null).length;
  return { currency, taxPercent, withTax, lines, netMinor: totalMinor - taxMinor, taxMinor, totalMinor, open };
}

/** The price of `ml` in the loop: of a concentrate only its share comes out of the bottle. */
export function coolantLine({ coolants }: PriceList, coolantId: string | null, ml: number): PricedLine | null {
  if (ml <= 0) return null;
  const coolant = coolants.find(({ id }) => id === coolantId);
  const litreMinor = coolant?.litreMinor ?? null;
  const each = litreMinor === null ? null : Math.round(litreMinor * (coolant?.targetFraction ?? 1));
  return line('coolant', coolant?.name ?? '', ml, 'mL', each);
}

/** A part from the store is asked for by the store's name and price; anything else by what was written. */
export function partLine({ items }: PriceList, { itemId, what, amount, unit, eachMinor }: PartLine): PricedLine {
  const item = items.find(({ id }) => id === itemId);
  return item ? line('part', item.name, amount, item.unit, item.priceMinor) : line('part', what, amount, unit, eachMinor);
}

/**
 * What a job will cost by its estimate; null where this workshop reckons no prices.
 * @param coolantId what will be poured; null: not known yet, its line stays open
 */
export function priceEstimate(list: PriceList, kind: string, coolantId: string | null, estimate: EstimateInput): Priced | null {
  const hourMinor = hourOf(list.rates, kind);
  if (hourMinor === null) return null;
  const coolant = coolantLine(list, coolantId, estimate.coolantMl);
  return sumUp(list.rates, [
    line('labour', kind, estimate.hours, 'h', hourMinor),
    ...(coolant ? [coolant] : []),
    ...estimate.parts.map((part) => partLine(list, part)),
  ]);
}

/** What a job took, as the bench and the store wrote it down. */
export interface Taken {
  /** attended hours; null: it is not over, or nobody could tell */
  readonly hours: number | null;
  readonly poured: readonly { readonly coolantId: string; readonly ml: number }[];
  readonly items: readonly { readonly itemId: string; readonly amount: number }[];
}

/**
 * What is asked for a job at its end: hours as told or as taken, coolant as poured, parts as they left the shelf and those of the
 * estimate that no shelf counts. null where this workshop reckons no prices.
 */
export function priceTaken(list: PriceList, kind: string, told: Estimate, taken: Taken): Priced | null {
  const hourMinor = hourOf(list.rates, kind);
  if (hourMinor === null) return null;
  const hours = list.rates.charge === 'told' ? told.hours : taken.hours;
  const rate = told.priced?.lines.find((each) => each.kind === 'labour')?.eachMinor ?? hourMinor;
  return sumUp(list.rates, [
    ...(hours === null ? [] : [line('labour', kind, hours, 'h', rate)]),
    ...taken.poured.flatMap(({ coolantId, ml }) => coolantLine(list, coolantId, ml) ?? []),
    ...taken.items
      .filter(({ amount }) => amount > 0)
      .map(({ itemId, amount }) => partLine(list, { itemId, what: '', amount, unit: 'pcs', eachMinor: null })),
    ...told.parts.filter(({ itemId }) => itemId === null).map((part) => partLine(list, part)),
  ]);
}

/** Whether a bill passes what its owner agreed to by more than the workshop lets it. */
export function passesConsent({ overPercent }: Rates, agreed: Priced, bill: Priced): boolean {
  return agreed.currency === bill.currency && bill.totalMinor > Math.round(agreed.totalMinor * (1 + overPercent / 100));
}
