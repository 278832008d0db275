import type { RefusedRow } from './rows.js';

/** What went in, or would go in. */
export interface ImportAnswer {
  readonly owners: number;
  readonly systems: number;
  readonly refused: readonly RefusedRow[];
}
