import type { LeftOut, RefusedRow } from './cells.js';
import type { ImportTableKind } from './fields.js';

/** How the dates stand that came in, or would. */
export interface ImportedDates {
  readonly overdue: number;
  readonly soon: number;
  readonly later: number;
  /** machines that have no date yet */
  readonly none: number;
}

/** What went in, or would go in. */
export interface ImportAnswer {
  /** null: a trial, nothing was written */
  readonly importId: string | null;
  readonly owners: number;
  readonly systems: number;
  /** rows of a history */
  readonly works: number;
  readonly coolants: number;
  readonly dates: ImportedDates;
  readonly refused: readonly RefusedRow[];
  readonly leftOut: readonly LeftOut[];
}

/** What an import made. */
export type ImportCounts = Pick<ImportAnswer, 'owners' | 'systems' | 'works' | 'coolants'>;

/** An import of before, as the page lists it. */
export interface PastImport {
  readonly id: string;
  readonly kind: ImportTableKind;
  readonly fileName: string;
  readonly at: string;
  readonly by: string;
  readonly counts: ImportCounts;
  readonly undoneAt: string | null;
}

/** What undoing an import took away, and what stays because it was worked with since. */
export interface UndoneImport {
  readonly removed: ImportCounts;
  readonly kept: readonly string[];
}
