import { refreshCondition } from '../../machine/condition/condition.js';
import { clockInputs } from './clockInputs.js';
import { and, eq, inArray } from 'drizzle-orm';
import type { DateReason, LooseEnd } from '../../../core/workshop/due-dates/facts.js';
import { nextService, settlingCheck } from '../../../core/workshop/due-dates/due.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import type { Scope } from '../../base/database/client.js';
import { notFound } from '../../base/http/errors.js';
import { system } from '../../base/database/tables/machines.js';
import { redateStirring } from './stirring.js';
import { beginDust } from './cleaned.js';
import { dueItem } from '../../base/database/tables/due-dates.js';

export interface FillFacts {
  readonly workshopId: string;
  readonly systemId: string;
  readonly loopId: string;
  readonly fillId: string;
  readonly productId: string;
  readonly filledOn: string;
  readonly personId: string;
  readonly at: Date;
  /** share of the usual interval, because something stayed inside */
  readonly intervalShare?: number;
  readonly intervalReason?: readonly LooseEnd[];
  /** called bled by eye alone: its level is looked at earlier */
  readonly seenBled?: boolean;
}

/**
 * A loop was filled: its earlier clocks stop, a settling check opens, and the next coolant service gets its date.
 * Before: the fill's row exists. After: exactly one open item of each kind for this loop.
 */
export async function openAfterFill(scope: Scope, facts: FillFacts): Promise<{ serviceDueOn: string; settlingDueOn: string }> {
  // what was read before this fill says nothing of it
  await refreshCondition(scope, facts.systemId);
  const [holder] = await scope
    .select({
      id: system.id,
      ownerId: system.ownerId,
      hoursPerDay: system.hoursPerDay,
      coolantC: system.coolantC,
      condition: system.condition,
    })
    .from(system)
    .where(eq(system.id, facts.systemId));
  const [product] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, facts.productId));
  if (!holder) throw notFound('system');
  if (!product) throw notFound('coolant');
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome: { why: 'filled-anew' }, closedAt: facts.at, closedBy: facts.personId })
    .where(and(eq(dueItem.loopId, facts.loopId), eq(dueItem.state, 'open'), inArray(dueItem.kind, ['coolant-service', 'settling-check'])));
  const inputOf = await clockInputs(scope, { loopIds: [facts.loopId], systemIds: [facts.systemId] });
  const own = {
    filledOn: facts.filledOn,
    intervalShare: facts.intervalShare ?? 1,
    intervalReason: facts.intervalReason ?? [],
    promisedOn: null,
  };
  const input = inputOf({ loopId: facts.loopId, fill: own, product, machine: holder });
  const service = nextService(input);
  const settling = settlingCheck(facts.filledOn, facts.seenBled);
  const item = { workshopId: facts.workshopId, systemId: facts.systemId, loopId: facts.loopId, fillId: facts.fillId, createdAt: facts.at };
  await scope.insert(dueItem).values([
    { ...item, kind: 'settling-check', windowFrom: settling.windowFrom, dueOn: settling.dueOn, reason: settling.reason, clocks: [] },
    {
      ...item,
      kind: 'coolant-service',
      dueOn: service.dueOn,
      reason: service.reason,
      estimated: service.estimated,
      clocks: [...service.clocks],
    },
  ]);
  const { workshopId, systemId, loopId, filledOn } = facts;
  const { coolantClass, hoursPerDay } = input;
  await redateStirring(scope, [{ workshopId, systemId, loopId, filledOn, coolantClass, hoursPerDay }]);
  await beginDust(scope, { ...facts, on: facts.filledOn });
  return { serviceDueOn: service.dueOn, settlingDueOn: settling.dueOn };
}

/** A settling check alone: the loop was topped up or partly refilled, its coolant's clocks run on. */
export async function openSettling(scope: Scope, facts: Omit<FillFacts, 'fillId' | 'productId'>): Promise<string> {
  const settling = settlingCheck(facts.filledOn);
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome: { why: 'topped-up' }, closedAt: facts.at, closedBy: facts.personId })
    .where(and(eq(dueItem.loopId, facts.loopId), eq(dueItem.state, 'open'), eq(dueItem.kind, 'settling-check')));
  await scope.insert(dueItem).values({
    workshopId: facts.workshopId,
    systemId: facts.systemId,
    loopId: facts.loopId,
    createdAt: facts.at,
    kind: 'settling-check',
    windowFrom: settling.windowFrom,
    dueOn: settling.dueOn,
    reason: settling.reason,
    clocks: [],
  });
  return settling.dueOn;
}

/** Something that must be looked at on a day of its own: a temporary fix, an early look, a machine of the same lot. */
export async function openFollowUp(
  scope: Scope,
  facts: { workshopId: string; systemId: string; loopId: string; dueOn: string; reason: DateReason; at: Date },
): Promise<void> {
  const { workshopId, systemId, loopId, dueOn, reason, at } = facts;
  await scope.insert(dueItem).values({ workshopId, systemId, loopId, dueOn, reason, createdAt: at, kind: 'follow-up', clocks: [] });
}
