import type { ItemKind, KeptKind, StoreUnit } from '@core/workshop/store/schema.js';

export interface StoreRow {
  id: string;
  name: string;
  kind: ItemKind;
  unit: StoreUnit;
  lot: string;
  count: number;
  reorderAt: number;
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
  lentTo: string;
  untilDay: string | null;
  version: number;
}
