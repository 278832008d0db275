import type { PurchaseLine } from './purchase.js';
import type { ItemKind, KeptKind, StoreUnit, WasteKind } from './schema.js';

export interface StoreRow {
  id: string;
  name: string;
  kind: ItemKind;
  unit: StoreUnit;
  lot: string;
  count: number;
  reorderAt: number;
  /** minor units for `PRICE_FOR` of its unit; null: no price */
  priceMinor: number | null;
  version: number;
}

export interface LotRow {
  id: string;
  productName: string;
  colour: string;
  bottleMl: number;
  lot: string;
  openedOn: string | null;
  keepsUntil: string | null;
  stockMl: number | null;
  samplePlace: string;
  version: number;
  expired: boolean;
}

export interface KeptRow {
  id: string;
  name: string;
  kind: KeptKind;
  systemId: string | null;
  systemName: string | null;
  place: string;
  condition: string;
  heldMl: number;
  /** day since which it is wet inside; null: dry */
  wetOn: string | null;
  lentTo: string;
  untilDay: string | null;
  version: number;
}

/** What the workshop has: lots by their level, counted things against their reorder mark, parts with a place, waste by can. */
export interface StoreAnswer {
  readonly today: string;
  readonly items: StoreRow[];
  readonly lots: LotRow[];
  readonly kept: KeptRow[];
  readonly purchase: PurchaseLine[];
}

/** The machine an owner takes home meanwhile. */
export interface Loans {
  readonly lent: { readonly id: string; readonly name: string; readonly untilDay: string | null; readonly condition: string } | null;
  readonly free: readonly { readonly id: string; readonly name: string; readonly condition: string }[];
}

export interface WasteContainer {
  id: string;
  label: string;
  kind: WasteKind;
  capacityMl: number;
  levelMl: number;
  state: 'open' | 'handed-over';
  handedOn: string | null;
  handedTo: string;
  carrier: string;
  wasteCode: string;
  documentNumber: string;
  version: number;
}

export interface WasteEntryRow {
  id: string;
  at: string;
  volumeMl: number;
  note: string;
  systemName: string | null;
  systemId: string | null;
}

export interface WasteAnswer {
  containers: WasteContainer[];
}

/** One container with what went in. */
export interface WasteContainerAnswer {
  entries: WasteEntryRow[];
}
