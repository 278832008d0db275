import { and, eq } from 'drizzle-orm';
import type { Shop } from '../../../core/workshop/people/answers.js';
import type { PriceEdit, RatesEdit } from '../../../core/workshop/prices/schema.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { storeItem } from '../../base/database/tables/store.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import { changeWorkshop } from '../people/workshop.js';

/** What this workshop asks for its work. What was told to owners before stands. */
export const setRates = (ask: Ask, { version, ...rates }: RatesEdit): Promise<Shop> => changeWorkshop(ask, version, { rates });

/** A price of a coolant or of a counted thing; what was told to owners before stands. */
export async function setCoolantPrice({ scope, request }: Ask, { priceMinor, version }: PriceEdit): Promise<{ id: string }> {
  const id = idFrom(request, 'id', 'coolant');
  const [after] = await scope
    .update(coolantProduct)
    .set({ priceMinor, version: version + 1 })
    .where(and(eq(coolantProduct.id, id), eq(coolantProduct.version, version)))
    .returning({ id: coolantProduct.id });
  if (after) return after;
  const [now] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, id));
  if (!now) throw notFound('coolant');
  throw stale('coolant', { priceMinor }, now);
}

export async function setItemPrice({ scope, request }: Ask, { priceMinor, version }: PriceEdit): Promise<{ id: string }> {
  const id = idFrom(request, 'id', 'store item');
  const [after] = await scope
    .update(storeItem)
    .set({ priceMinor, version: version + 1 })
    .where(and(eq(storeItem.id, id), eq(storeItem.version, version)))
    .returning({ id: storeItem.id });
  if (after) return after;
  const [now] = await scope.select().from(storeItem).where(eq(storeItem.id, id));
  if (!now) throw notFound('store item');
  throw stale('store item', { priceMinor }, now);
}
