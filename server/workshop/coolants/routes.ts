import type { Lot, Moved, Product } from '../../../core/workshop/coolants/answers.js';
import { and, asc, eq } from 'drizzle-orm';
import {
  coolantLotSchema,
  coolantLimitSchema,
  coolantProductSchema,
  type CoolantLotInput,
  type CoolantLimitInput,
  type CoolantProductInput,
} from '../../../core/workshop/coolants/schema.js';
import { redate } from '../due-dates/redate.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';

export function coolantRoutes(routes: Routes): void {
  routes.get<{ products: Product[] }>('/coolants', listCoolants);
  routes.post<Product>('/coolants', (ask) => addProduct(ask, bodyAs<CoolantProductInput>(ask.request, coolantProductSchema)));
  routes.put<{ moved: Moved[] }>('/coolants/:id/limit', (ask) =>
    changeLimit(ask, bodyAs<CoolantLimitInput>(ask.request, coolantLimitSchema)),
  );
  routes.post<Lot>('/coolant-lots', (ask) => addLot(ask, bodyAs<CoolantLotInput>(ask.request, coolantLotSchema)));
}

async function listCoolants({ scope }: Ask) {
  const products = await scope.select().from(coolantProduct).orderBy(asc(coolantProduct.name));
  const lots = await scope.select().from(coolantLot).orderBy(asc(coolantLot.lot));
  return { products: products.map((product) => ({ ...product, lots: lots.filter(({ productId }) => productId === product.id) })) };
}

async function addProduct({ scope, account }: Ask, input: CoolantProductInput) {
  const [made] = await scope
    .insert(coolantProduct)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return { ...(made as NonNullable<typeof made>), lots: [] };
}

/** A changed limit dates every machine anew that holds the product, and says whom to call. */
async function changeLimit({ scope, request }: Ask, input: CoolantLimitInput) {
  const productId = idFrom(request, 'id', 'coolant');
  const [after] = await scope
    .update(coolantProduct)
    .set({ sheetLifeMonths: input.sheetLifeMonths, sheetLifeHours: input.sheetLifeHours, version: input.version + 1 })
    .where(and(eq(coolantProduct.id, productId), eq(coolantProduct.version, input.version)))
    .returning();
  if (!after) {
    const [now] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, productId));
    if (!now) throw notFound('coolant');
    throw stale('coolant', input, now);
  }
  return { product: after, moved: await redate(scope, { productId }) };
}

async function addLot({ scope, account }: Ask, input: CoolantLotInput) {
  const [product] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).where(eq(coolantProduct.id, input.productId));
  if (!product) throw notFound('coolant');
  const [made] = await scope
    .insert(coolantLot)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return made as NonNullable<typeof made>;
}
