import { and, eq, inArray } from 'drizzle-orm';
import { nextService, settlingCheck } from '../../core/due-dates/due.js';
import type { CoolantClass } from '../../core/coolants/classes.js';
import { coolantProduct } from '../coolants/tables.js';
import type { Scope } from '../database/client.js';
import { notFound } from '../http/errors.js';
import { system } from '../systems/tables.js';
import { policyFor } from './policies.js';
import { dueItem } from './tables.js';

export interface FillFacts {
  readonly workshopId: string;
  readonly systemId: string;
  readonly loopId: string;
  readonly fillId: string;
  readonly productId: string;
  readonly filledOn: string;
  readonly meanCoolantC: number | null;
  readonly personId: string;
  readonly at: Date;
}

/**
 * A loop was filled: its earlier clocks stop, a settling check opens, and the next coolant service gets its date.
 * Before: the fill's row exists. After: exactly one open item of each kind for this loop.
 */
export async function openAfterFill(scope: Scope, facts: FillFacts): Promise<{ serviceDueOn: string; settlingDueOn: string }> {
  const [holder] = await scope
    .select({ customerId: system.customerId, hoursPerDay: system.hoursPerDay })
    .from(system)
    .where(eq(system.id, facts.systemId));
  const [product] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, facts.productId));
  if (!holder) throw notFound('system');
  if (!product) throw notFound('coolant');
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome: 'the loop was filled anew', closedAt: facts.at, closedBy: facts.personId })
    .where(and(eq(dueItem.loopId, facts.loopId), eq(dueItem.state, 'open'), inArray(dueItem.kind, ['coolant-service', 'settling-check'])));
  const service = nextService({
    filledOn: facts.filledOn,
    coolantClass: product.coolantClass as CoolantClass,
    productName: product.name,
    sheetLifeMonths: product.sheetLifeMonths,
    ...(await policyFor(scope, facts.systemId, holder.customerId)),
    meanCoolantC: facts.meanCoolantC,
    hoursPerDay: holder.hoursPerDay,
  });
  const settling = settlingCheck(facts.filledOn);
  const own = { workshopId: facts.workshopId, systemId: facts.systemId, loopId: facts.loopId, fillId: facts.fillId, createdAt: facts.at };
  await scope.insert(dueItem).values([
    { ...own, kind: 'settling-check', windowFrom: settling.windowFrom, dueOn: settling.dueOn, reason: settling.reason, clocks: [] },
    {
      ...own,
      kind: 'coolant-service',
      dueOn: service.dueOn,
      reason: service.reason,
      estimated: service.estimated,
      clocks: [...service.clocks],
    },
  ]);
  return { serviceDueOn: service.dueOn, settlingDueOn: settling.dueOn };
}
