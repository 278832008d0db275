import { say } from '../../../core/base/words/say.js';
import { and, eq, sql } from 'drizzle-orm';
import { demandPast } from '../../../core/base/checking/input.js';
import type { CameFilledInput } from '../../../core/machine/loop-file/cameFilled.js';
import { cameFilledDue } from '../../../core/workshop/due-dates/cameFilled.js';
import { policyResolver } from '../../workshop/due-dates/policies.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { fill, run } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { lockLoop } from './lock.js';

/** The loop with its machine, locked; one that was filled or worked on here has a history of its own. */
async function untouchedLoop({ scope, request }: Ask) {
  const loopId = idFrom(request, 'id', 'loop');
  const own = await lockLoop(scope, loopId);
  const ofLoop = eq(loopRevision.loopId, loopId);
  const [filled] = await scope
    .select({ id: fill.id })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(ofLoop)
    .limit(1);
  const [worked] = await scope
    .select({ id: run.id })
    .from(run)
    .where(and(eq(run.loopId, loopId), sql`job_id is not null`))
    .limit(1);
  if (filled || worked) throw new DomainError('refused', say('This loop was filled or worked on here: what is inside is known from that.'));
  return own;
}

/**
 * A machine that somebody else filled is taken in: its loop counts as full, its coolant as said or as unknown, and a service is
 * due by its age; at once where nobody knows what it is.
 */
export async function cameFilled(ask: Ask, input: CameFilledInput): Promise<{ dueOn: string }> {
  const { scope, account, clock, today } = ask;
  const own = await untouchedLoop(ask);
  if (input.since !== null) demandPast('since', input.since, today);
  const [product] = input.productId === null ? [] : await scope.select().from(coolantProduct).where(eq(coolantProduct.id, input.productId));
  if (input.productId !== null && !product) throw notFound('coolant');
  const { policy } = (await policyResolver(scope))(own.system.id, own.system.ownerId);
  const { dueOn, reason } = cameFilledDue({ product: product ?? null, since: input.since, policy, today });
  await scope
    .update(loop)
    .set({ cameFilled: { ...input, notedOn: today }, coolantProductId: input.productId, version: sql`${loop.version} + 1` })
    .where(eq(loop.id, own.loop.id));
  await scope
    .update(system)
    .set({ state: 'in-service', version: sql`${system.version} + 1` })
    .where(and(eq(system.id, own.system.id), eq(system.state, 'planned')));
  await closeOpen(ask, own.loop.id);
  await scope.insert(dueItem).values({
    workshopId: account.workshopId,
    systemId: own.system.id,
    loopId: own.loop.id,
    kind: 'coolant-service',
    dueOn,
    reason,
    estimated: true,
    clocks: [],
    createdAt: clock.now(),
  });
  await pushNotice(scope, account.workshopId, { kind: 'dates' });
  return { dueOn };
}

/** It was a slip: the loop was never filled. */
export async function neverFilled(ask: Ask): Promise<object> {
  const { scope, account } = ask;
  const own = await untouchedLoop(ask);
  await scope
    .update(loop)
    .set({ cameFilled: null, version: sql`${loop.version} + 1` })
    .where(eq(loop.id, own.loop.id));
  await closeOpen(ask, own.loop.id);
  const [other] = await scope
    .select({ id: loop.id })
    .from(loop)
    .where(and(eq(loop.systemId, own.system.id), sql`came_filled is not null`))
    .limit(1);
  const [worked] = await scope
    .select({ id: run.id })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .where(eq(loop.systemId, own.system.id))
    .limit(1);
  if (!other && !worked)
    await scope
      .update(system)
      .set({ state: 'planned', version: sql`${system.version} + 1` })
      .where(eq(system.id, own.system.id));
  await pushNotice(scope, account.workshopId, { kind: 'dates' });
  return {};
}

/** One coolant service a loop is open at most. */
const closeOpen = ({ scope, account, clock }: Ask, loopId: string) =>
  scope
    .update(dueItem)
    .set({ state: 'closed', outcome: { why: 'said', text: '' }, closedAt: clock.now(), closedBy: account.personId })
    .where(and(eq(dueItem.loopId, loopId), eq(dueItem.state, 'open'), eq(dueItem.kind, 'coolant-service')));
