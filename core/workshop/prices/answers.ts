import type { Priced } from './priced.js';

/** What a job costs, as its page and papers show it. */
export interface JobBill {
  /** what it took so far; null: prices are not reckoned here, or nothing was begun */
  readonly used: Priced | null;
  /** what the owner agreed to last; null: nothing, or nothing with a price */
  readonly agreed: Priced | null;
  /** it passes what was agreed by more than the workshop lets it */
  readonly passes: boolean;
}

/** A finished job of the table for the bookkeeping. */
export interface BillRow {
  readonly jobId: string;
  readonly on: string;
  readonly owner: string;
  readonly system: string;
  /** of the job */
  readonly kind: string;
  readonly bill: Priced;
}
export interface BillsAnswer {
  readonly rows: readonly BillRow[];
}
