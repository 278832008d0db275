import { say } from '../../../core/base/words/say.js';
import type { StoreAnswer } from '../../../core/workshop/store/answers.js';
import { and, asc, desc, eq, gte, inArray, isNull, or, sql } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/input.js';
import { purchaseList, PURCHASE_DAYS, type CoolantStock } from '../../../core/workshop/store/purchase.js';
import {
  lotEditSchema,
  drySchema,
  goneSchema,
  keptPartEditSchema,
  keptPartSchema,
  loanSchema,
  storeItemSchema,
  storeCountSchema,
  storeMoveSchema,
  type LotEdit,
  type DryInput,
  type GoneInput,
  type KeptPartInput,
  type LoanInput,
  type StoreCount,
  type StoreItemInput,
  type StoreMoveInput,
} from '../../../core/workshop/store/schema.js';
import { addDays } from '../../../core/base/units/calendar.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { loop } from '../../base/database/tables/loops.js';
import { job, system } from '../../base/database/tables/machines.js';
import { giveBack, lend } from './loans.js';
import { keptPart, storeItem, storeMove } from '../../base/database/tables/store.js';

export function storeRoutes(routes: Routes): void {
  routes.get<StoreAnswer>('/store', readStore);
  routes.post('/store/items', (ask) => addItem(ask, bodyAs<StoreItemInput>(ask.request, storeItemSchema)));
  routes.post('/store/items/:id/moves', (ask) => moveItem(ask, bodyAs<StoreMoveInput>(ask.request, storeMoveSchema)));
  routes.put('/store/items/:id/count', (ask) => countItem(ask, bodyAs<StoreCount>(ask.request, storeCountSchema)));
  routes.put('/coolant-lots/:id', (ask) => editLot(ask, bodyAs<LotEdit>(ask.request, lotEditSchema)));
  routes.post('/kept-parts', (ask) => addKept(ask, bodyAs<KeptPartInput>(ask.request, keptPartSchema)));
  routes.put('/kept-parts/:id', (ask) => editKept(ask, bodyAs<KeptPartInput & { version: number }>(ask.request, keptPartEditSchema)));
  routes.put('/jobs/:id/loan', (ask) => lend(ask, bodyAs<LoanInput>(ask.request, loanSchema)));
  routes.delete('/jobs/:id/loan', giveBack);
  routes.put('/kept-parts/:id/dry', (ask) => dryKept(ask, bodyAs<DryInput>(ask.request, drySchema)));
  routes.put('/kept-parts/:id/gone', (ask) => goneKept(ask, bodyAs<GoneInput>(ask.request, goneSchema)));
}

async function readStore(ask: Ask) {
  const { scope, today } = ask;
  const items = await scope.select().from(storeItem).orderBy(asc(storeItem.kind), asc(storeItem.name), asc(storeItem.lot));
  const lots = await scope
    .select({ lot: coolantLot, product: coolantProduct })
    .from(coolantLot)
    .innerJoin(coolantProduct, eq(coolantProduct.id, coolantLot.productId))
    .orderBy(asc(coolantProduct.name), desc(coolantLot.openedOn));
  const kept = await scope
    .select({ part: keptPart, systemName: system.name })
    .from(keptPart)
    .leftJoin(system, eq(system.id, keptPart.systemId))
    .where(isNull(keptPart.goneOn))
    .orderBy(asc(keptPart.untilDay), asc(keptPart.name));
  return {
    today,
    items,
    lots: lots.map(({ lot, product }) => ({
      ...lot,
      productName: product.name,
      colour: product.colour,
      bottleMl: product.bottleMl,
      expired: lot.keepsUntil !== null && lot.keepsUntil < today,
    })),
    kept: kept.map(({ part, systemName }) => ({ ...part, systemName })),
    purchase: await purchases(ask),
  };
}

async function purchases({ scope, today }: Ask) {
  const products = await scope.select().from(coolantProduct).orderBy(asc(coolantProduct.name));
  const lots = await scope
    .select({ productId: coolantLot.productId, stockMl: coolantLot.stockMl })
    .from(coolantLot)
    .where(or(isNull(coolantLot.keepsUntil), gte(coolantLot.keepsUntil, today)));
  const stockOf = (productId: string): number | null => {
    const counted = lots.flatMap((lot) => (lot.productId === productId && lot.stockMl !== null ? [lot.stockMl] : []));
    return counted.length === 0 ? null : counted.reduce((sum, ml) => sum + ml, 0);
  };
  const horizon = addDays(today, PURCHASE_DAYS);
  const coming = await scope
    .select({
      job,
      service: serviceJob,
      systemName: system.name,
      productId: sql<string | null>`coalesce(${serviceJob.productId}, ${loop.coolantProductId})`,
    })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(loop, eq(loop.id, serviceJob.loopId))
    .where(and(inArray(job.state, ['booked', 'waiting']), or(isNull(serviceJob.neededBy), sql`${serviceJob.neededBy} <= ${horizon}`)));
  return purchaseList(
    products.map((product): CoolantStock => ({
      productId: product.id,
      name: product.name,
      bottleMl: product.bottleMl,
      stockMl: stockOf(product.id),
      targetFraction: product.form === 'concentrate' ? product.targetFraction : null,
      reorderBottles: product.reorderBottles,
    })),
    await scope.select().from(storeItem).orderBy(asc(storeItem.name)),
    coming.map((row) => ({
      id: row.job.id,
      systemName: row.systemName,
      productId: row.productId,
      coolantMl: row.service.estimate.coolantMl,
      partsText: row.service.estimate.partsText,
      parts: row.service.estimate.parts,
    })),
  );
}

async function addItem({ scope, account, clock }: Ask, input: StoreItemInput) {
  const [made] = await scope
    .insert(storeItem)
    .values({ ...input, workshopId: account.workshopId, createdAt: clock.now() })
    .returning();
  const item = made as typeof storeItem.$inferSelect;
  if (input.count > 0)
    await scope.insert(storeMove).values({
      workshopId: account.workshopId,
      itemId: item.id,
      change: input.count,
      reason: 'first count',
      personId: account.personId,
      createdAt: clock.now(),
    });
  return item;
}

/** More than lies there cannot leave: then the shelf was counted wrongly, and is counted again. */
async function moveItem({ scope, account, clock, request }: Ask, { change, reason }: StoreMoveInput) {
  const itemId = idFrom(request, 'id', 'store item');
  const [before] = await scope.select().from(storeItem).where(eq(storeItem.id, itemId)).for('update');
  if (!before) throw notFound('store item');
  if (before.count + change < 0)
    refuse(
      'change',
      say('takes more than the {count} {unit} that are counted there: count the shelf again', { count: before.count, unit: before.unit }),
    );
  const [after] = await scope
    .update(storeItem)
    .set({ count: before.count + change, version: before.version + 1 })
    .where(eq(storeItem.id, itemId))
    .returning();
  await scope
    .insert(storeMove)
    .values({ workshopId: account.workshopId, itemId, change, reason, personId: account.personId, createdAt: clock.now() });
  return after as typeof storeItem.$inferSelect;
}

/** Counts the shelf again: what it differs by stands among its moves. */
async function countItem({ scope, account, clock, request }: Ask, { count, version }: StoreCount) {
  const itemId = idFrom(request, 'id', 'store item');
  const [before] = await scope.select().from(storeItem).where(eq(storeItem.id, itemId)).for('update');
  if (!before) throw notFound('store item');
  if (before.version !== version) throw stale('store item', { count }, before);
  const [after] = await scope
    .update(storeItem)
    .set({ count, version: version + 1 })
    .where(eq(storeItem.id, itemId))
    .returning();
  if (count !== before.count)
    await scope.insert(storeMove).values({
      workshopId: account.workshopId,
      itemId,
      change: count - before.count,
      reason: 'counted again',
      personId: account.personId,
      createdAt: clock.now(),
    });
  return after as typeof storeItem.$inferSelect;
}

async function editLot({ scope, request }: Ask, { version, ...input }: LotEdit) {
  if (input.openedOn !== null && input.keepsUntil !== null && input.keepsUntil < input.openedOn)
    refuse(
      'keepsUntil',
      say('must not lie before the day it was opened, {openedOn} (got {keepsUntil})', {
        openedOn: input.openedOn,
        keepsUntil: input.keepsUntil,
      }),
    );
  const lotId = idFrom(request, 'id', 'lot');
  const [after] = await scope
    .update(coolantLot)
    .set({ ...input, version: version + 1 })
    .where(and(eq(coolantLot.id, lotId), eq(coolantLot.version, version)))
    .returning();
  if (after) return after;
  const [now] = await scope.select().from(coolantLot).where(eq(coolantLot.id, lotId));
  if (!now) throw notFound('lot');
  throw stale('lot', input, now);
}

async function addKept({ scope, account, clock }: Ask, input: KeptPartInput) {
  const [made] = await scope
    .insert(keptPart)
    .values({ ...input, workshopId: account.workshopId, createdAt: clock.now() })
    .returning();
  return made as typeof keptPart.$inferSelect;
}

async function changeKept({ scope, request }: Ask, version: number, to: Partial<typeof keptPart.$inferInsert>, yours: object) {
  const [before] = await scope
    .select()
    .from(keptPart)
    .where(eq(keptPart.id, idFrom(request, 'id', 'part')));
  if (!before) throw notFound('part');
  if (before.version !== version) throw stale('part', yours, before);
  const [after] = await scope
    .update(keptPart)
    .set({ ...to, version: version + 1 })
    .where(and(eq(keptPart.id, before.id), eq(keptPart.version, version)))
    .returning();
  if (!after) throw stale('part', yours, before);
  return after;
}

const editKept = (ask: Ask, { version, ...input }: KeptPartInput & { version: number }) => changeKept(ask, version, input, input);
/** Somebody looked: nothing wet is inside any more. */
const dryKept = (ask: Ask, { version }: DryInput) => changeKept(ask, version, { wetOn: null, heldMl: 0 }, {});
const goneKept = (ask: Ask, { version, where }: GoneInput) => changeKept(ask, version, { goneOn: ask.today, goneWhere: where }, { where });
