import type { StoreUnit } from '../store/schema.js';

/** How hours are charged: as they were told before, or as they were taken. Workshops do either. */
export const CHARGES = {
  told: 'as told before the work',
  taken: 'as taken at the bench',
} as const;
export type Charge = keyof typeof CHARGES;

/** What a workshop asks for its work. Money in whole minor units of its currency. */
export interface Rates {
  /** ISO 4217 code */
  readonly currency: string;
  /** an attended hour of any kind; null: prices are not reckoned here */
  readonly hourMinor: number | null;
  /** kinds with an hour of their own */
  readonly hourMinorByKind: Readonly<Partial<Record<string, number>>>;
  /** %, on everything; 0 where none is asked */
  readonly taxPercent: number;
  /** prices hold the tax; otherwise it is added */
  readonly withTax: boolean;
  readonly charge: Charge;
  /** % by which a bill may pass what was agreed before the owner is asked again */
  readonly overPercent: number;
}

/** Nothing is reckoned until the workshop says what an hour costs. 10 % over a told estimate is what trade custom takes as no surprise. */
export const DEFAULT_RATES: Rates = {
  currency: 'EUR',
  hourMinor: null,
  hourMinorByKind: {},
  taxPercent: 0,
  withTax: true,
  charge: 'told',
  overPercent: 10,
};

export const hourOf = ({ hourMinor, hourMinorByKind }: Rates, kind: string): number | null => hourMinorByKind[kind] ?? hourMinor;

/** How much one price is for: a metre, a piece, a litre, a hundred grams. */
export const PRICE_FOR: Readonly<Record<PriceUnit, { readonly amount: number; readonly words: string }>> = {
  h: { amount: 1, words: 'an hour' },
  pcs: { amount: 1, words: 'each' },
  m: { amount: 1, words: 'a metre' },
  mL: { amount: 1000, words: 'a litre' },
  g: { amount: 100, words: 'for 100 g' },
};
export type PriceUnit = StoreUnit | 'h';

/** A coolant as it is priced: what its bottle costs a litre, and how much of the bottle a litre in the loop takes. */
export interface CoolantPrice {
  readonly id: string;
  readonly name: string;
  /** minor units a litre of the bottle; null: it has no price */
  readonly litreMinor: number | null;
  /** share of the bottle in the finished coolant; null: it is poured as it is */
  readonly targetFraction: number | null;
}

export interface ItemPrice {
  readonly id: string;
  readonly name: string;
  readonly unit: StoreUnit;
  /** minor units for `PRICE_FOR` of its unit; null: it has no price */
  readonly priceMinor: number | null;
}

/** All that a price is made from. */
export interface PriceList {
  readonly rates: Rates;
  readonly items: readonly ItemPrice[];
  readonly coolants: readonly CoolantPrice[];
}
