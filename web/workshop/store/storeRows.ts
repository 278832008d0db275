import type { KeptRow, LotRow, StoreRow } from '@core/workshop/store/answers.js';
import { ITEM_KINDS, KEPT_KINDS } from '@core/workshop/store/schema.js';

/** A lot of coolant as a row of the shelf's table. */
export const lotRow = ({ productName, lot, stockMl, openedOn, keepsUntil, samplePlace }: LotRow): Record<string, string> => ({
  what: productName,
  kind: 'coolant',
  lot,
  count: stockMl === null ? '' : String(Math.round(stockMl)),
  unit: 'mL',
  reorder_at: '',
  opened_on: openedOn ?? '',
  keeps_until: keepsUntil ?? '',
  sample: samplePlace,
});

export const itemRow = ({ name, kind, lot, count, unit, reorderAt }: StoreRow): Record<string, string> => ({
  what: name,
  kind: ITEM_KINDS[kind],
  lot,
  count: String(count),
  unit,
  reorder_at: String(reorderAt),
  opened_on: '',
  keeps_until: '',
  sample: '',
});

export const keptRow = ({ name, kind, systemName, place, condition, heldMl, lentTo, untilDay }: KeptRow): Record<string, string> => ({
  what: name,
  kind: KEPT_KINDS[kind],
  from: systemName ?? '',
  place,
  condition,
  held_ml: String(Math.round(heldMl)),
  lent_to: lentTo,
  until: untilDay ?? '',
});
