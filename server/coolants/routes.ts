import { asc, eq } from 'drizzle-orm';
import { coolantBatchSchema, coolantProductSchema, type CoolantBatchInput, type CoolantProductInput } from '../../core/coolants/schema.js';
import { bodyAs, type Ask } from '../http/context.js';
import { notFound } from '../http/errors.js';
import type { Routes } from '../http/routes.js';
import { coolantBatch, coolantProduct } from './tables.js';

export function coolantRoutes(routes: Routes): void {
  routes.get('/coolants', listCoolants);
  routes.post('/coolants', (ask) => addProduct(ask, bodyAs<CoolantProductInput>(ask.request, coolantProductSchema)));
  routes.post('/coolant-batches', (ask) => addBatch(ask, bodyAs<CoolantBatchInput>(ask.request, coolantBatchSchema)));
}

async function listCoolants({ scope }: Ask) {
  const products = await scope.select().from(coolantProduct).orderBy(asc(coolantProduct.name));
  const batches = await scope.select().from(coolantBatch).orderBy(asc(coolantBatch.lot));
  return { products: products.map((product) => ({ ...product, batches: batches.filter(({ productId }) => productId === product.id) })) };
}

async function addProduct({ scope, account }: Ask, input: CoolantProductInput) {
  const [made] = await scope
    .insert(coolantProduct)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return { ...(made as NonNullable<typeof made>), batches: [] };
}

async function addBatch({ scope, account }: Ask, input: CoolantBatchInput) {
  const [product] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).where(eq(coolantProduct.id, input.productId));
  if (!product) throw notFound('coolant');
  const [made] = await scope
    .insert(coolantBatch)
    .values({ workshopId: account.workshopId, ...input })
    .returning();
  return made as NonNullable<typeof made>;
}
