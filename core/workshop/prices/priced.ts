import type { PriceUnit } from './rates.js';

export const LINE_KINDS = ['labour', 'coolant', 'part'] as const;
export type LineKind = (typeof LINE_KINDS)[number];

/** One line of an estimate or a bill. */
export interface PricedLine {
  readonly kind: LineKind;
  /** a coolant’s or a part’s name; of labour the job’s kind */
  readonly what: string;
  readonly amount: number;
  readonly unit: PriceUnit;
  /** minor units for `PRICE_FOR` of the unit; null: nobody priced it */
  readonly eachMinor: number | null;
  readonly sumMinor: number | null;
}

/** What a job costs, line by line, with its tax, in the currency of that day. */
export interface Priced {
  readonly currency: string;
  readonly taxPercent: number;
  readonly withTax: boolean;
  readonly lines: readonly PricedLine[];
  readonly netMinor: number;
  readonly taxMinor: number;
  readonly totalMinor: number;
  /** lines that nobody priced: the total is at least so much */
  readonly open: number;
}
