import { and, desc, eq, gt, sql } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/check.js';
import { type ServiceInput } from '../../../core/workshop/machines/schema.js';
import { CLEANS_FINS, REFILLING } from '../../../core/workshop/jobs/kinds.js';
import { fill } from '../../base/database/tables/runs.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { restartDust } from '../due-dates/dust.js';
import { openAfterFill } from '../due-dates/open.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { finding, job, system } from '../../base/database/tables/machines.js';

/** Enters a service that was done; where the loop was refilled its clocks start again from that day. */
export async function recordService(ask: Ask, input: ServiceInput) {
  const { scope, account, clock, today, request } = ask;
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope.select({ state: system.state }).from(system).where(eq(system.id, systemId)).for('update');
  if (!own) throw notFound('system');
  const [ownLoop] = await scope
    .select({ id: loop.id })
    .from(loop)
    .where(and(eq(loop.id, input.loopId), eq(loop.systemId, systemId)));
  if (!ownLoop) throw notFound('loop');
  if (own.state === 'on-bench') throw new DomainError('refused', 'The machine stands on a bench; finish its run first.');
  if (own.state === 'planned') throw new DomainError('refused', 'This loop was never filled; commission it first.');
  if (input.doneOn > today) refuse('doneOn', `cannot lie in the future; today is ${today} (got ${input.doneOn})`);
  const [revision] = await scope
    .select({ id: loopRevision.id })
    .from(loopRevision)
    .where(eq(loopRevision.loopId, input.loopId))
    .orderBy(desc(loopRevision.number))
    .limit(1);
  if (!revision) throw notFound('loop revision');

  const at = clock.now();
  const [made] = await scope
    .insert(job)
    .values({
      workshopId: account.workshopId,
      systemId,
      kind: input.kind,
      state: 'done',
      doneOn: input.doneOn,
      note: input.note,
      personId: account.personId,
      createdAt: at,
    })
    .returning();
  const jobRow = made as NonNullable<typeof made>;
  if (input.finding.trim() !== '') {
    await scope.insert(finding).values({
      workshopId: account.workshopId,
      systemId,
      jobId: jobRow.id,
      fact: { why: 'said', text: input.finding.trim() },
      text: input.finding.trim(),
      severity: 'watch',
      foundAt: at,
    });
  }
  if (REFILLING.includes(input.kind) && input.productId !== null && input.pouredMl !== null) {
    const [product] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).where(eq(coolantProduct.id, input.productId));
    if (!product) throw notFound('coolant');
    const [later] = await scope
      .select({ on: fill.filledOn })
      .from(fill)
      .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
      .where(and(eq(loopRevision.loopId, input.loopId), gt(fill.filledOn, input.doneOn)))
      .limit(1);
    if (later)
      refuse('doneOn', `this loop has a later fill, on ${later.on}; a refill is entered in the order it happened (got ${input.doneOn})`);
    const [filled] = await scope
      .insert(fill)
      .values({
        workshopId: account.workshopId,
        revisionId: revision.id,
        jobId: jobRow.id,
        productId: input.productId,
        filledOn: input.doneOn,
        pouredMl: input.pouredMl,
        drainedMl: input.drainedMl,
        createdAt: at,
      })
      .returning({ id: fill.id });
    await scope
      .update(loop)
      .set({ coolantProductId: input.productId, version: sql`${loop.version} + 1` })
      .where(eq(loop.id, input.loopId));
    await openAfterFill(scope, {
      workshopId: account.workshopId,
      systemId,
      loopId: input.loopId,
      fillId: (filled as { id: string }).id,
      productId: input.productId,
      filledOn: input.doneOn,
      personId: account.personId,
      at,
    });
  }
  if (CLEANS_FINS.includes(input.kind))
    await restartDust(scope, {
      workshopId: account.workshopId,
      systemId,
      loopId: input.loopId,
      on: input.doneOn,
      personId: account.personId,
      at,
    });
  return jobRow;
}
