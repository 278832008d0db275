import type { Metal } from '../../machine/materials/metals.js';
import type { CoolantProductInput } from './schema.js';

export interface Lot {
  id: string;
  productId: string;
  lot: string;
  openedOn: string | null;
}

export interface Product extends CoolantProductInput {
  id: string;
  version: number;
  /** metals that its sheet suits; null: it names none, or nobody looked */
  metals: readonly Metal[] | null;
  /** minor units for a litre of the bottle; null: no price */
  priceMinor: number | null;
  lots: Lot[];
}

/** What a coolant may last, as its sheet says; null: its class counts. */
export interface SheetLife {
  readonly sheetLifeMonths: number | null;
  readonly sheetLifeHours: number | null;
}

/** A limit that was changed: what it was, what it is, whose dates moved, who heard of it. */
export interface LimitChangeRow {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly coolant: string;
  readonly before: SheetLife;
  readonly after: SheetLife;
  readonly moved: readonly Moved[];
  /** ids of the dates whose owners were told */
  readonly told: readonly string[];
  readonly undoneAt: string | null;
  /** nothing was changed on it since: it can be taken back */
  readonly canUndo: boolean;
}

/** A machine whose date moved, and whom to call. */
export interface Moved {
  readonly id: string;
  readonly systemId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly phone: string | null;
  readonly email: string | null;
  readonly channel: string;
  readonly before: string;
  readonly dueOn: string;
}
