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
  /** minor units for a litre of the bottle; null: no price */
  priceMinor: number | null;
  lots: Lot[];
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
