import type { LimitChangeRow, Lot, Moved, Product } from '../../../core/workshop/coolants/answers.js';
import { and, asc, eq } from 'drizzle-orm';
import {
  coolantLotSchema,
  coolantLimitSchema,
  coolantMetalsSchema,
  limitToldSchema,
  coolantProductSchema,
  type CoolantLotInput,
  type CoolantLimitInput,
  type CoolantMetalsInput,
  type LimitTold,
  type CoolantProductInput,
} from '../../../core/workshop/coolants/schema.js';
import { changeLimit, limitChanges, setTold, tryLimit, undoLimit, writeLimitLetters } from './limits.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';

export function coolantRoutes(routes: Routes): void {
  routes.get<{ products: Product[] }>('/coolants', listCoolants);
  routes.post<Product>('/coolants', (ask) => addProduct(ask, bodyAs<CoolantProductInput>(ask.request, coolantProductSchema)));
  routes.put<{ metals: readonly string[] | null }>('/coolants/:id/metals', (ask) =>
    setMetals(ask, bodyAs<CoolantMetalsInput>(ask.request, coolantMetalsSchema)),
  );
  routes.put<{ moved: Moved[] }>('/coolants/:id/limit', (ask) =>
    changeLimit(ask, bodyAs<CoolantLimitInput>(ask.request, coolantLimitSchema)),
  );
  routes.post<{ moved: Moved[] }>('/coolants/:id/limit/trial', (ask) =>
    tryLimit(ask, bodyAs<CoolantLimitInput>(ask.request, coolantLimitSchema)),
  );
  routes.get<{ changes: LimitChangeRow[] }>('/coolants/:id/limit-changes', limitChanges);
  routes.post<{ changes: LimitChangeRow[]; moved: Moved[] }>('/limit-changes/:id/undo', undoLimit);
  routes.put<{ changes: LimitChangeRow[] }>('/limit-changes/:id/told', (ask) =>
    setTold(ask, bodyAs<LimitTold>(ask.request, limitToldSchema)),
  );
  routes.post<{ changes: LimitChangeRow[]; written: number }>('/limit-changes/:id/letters', writeLimitLetters);
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

/** What its sheet says of metals: against the parts of a loop that it is chosen for. */
async function setMetals({ scope, request }: Ask, { metals, version }: CoolantMetalsInput) {
  const id = idFrom(request, 'id', 'coolant');
  const [after] = await scope
    .update(coolantProduct)
    .set({ metals: metals && [...metals], version: version + 1 })
    .where(and(eq(coolantProduct.id, id), eq(coolantProduct.version, version)))
    .returning();
  if (after) return after;
  const [now] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, id));
  if (!now) throw notFound('coolant');
  throw stale('coolant', { metals }, now);
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
