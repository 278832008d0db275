import { say } from '../../../core/base/words/say.js';
import { isInRun } from '../../../core/workshop/due-dates/attention.js';
import { and, desc, eq, gt } from 'drizzle-orm';
import { findingWords } from '../../../core/edge/words/dates.js';
import type { Finding } from '../../../core/workshop/due-dates/facts.js';
import { demandPast, refuse } from '../../../core/base/checking/input.js';
import { type ServiceInput } from '../../../core/workshop/machines/schema.js';
import { CLEANS_FINS, JOB_KINDS, REFILLING } from '../../../core/workshop/job-kinds/kinds.js';
import { fill, loopContents } from '../../base/database/tables/runs.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import { restartDust } from '../due-dates/cleaned.js';
import { fillLoop } from '../due-dates/fillLoop.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { isInside, loop, loopRevision } from '../../base/database/tables/loops.js';
import { finding, job, system } from '../../base/database/tables/machines.js';

/** The newest revision of a loop that may have been serviced that day; refuses what cannot have been. */
async function revisionServiced({ scope, today, request }: Ask, input: ServiceInput): Promise<{ systemId: string; revisionId: string }> {
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope.select({ state: system.state }).from(system).where(eq(system.id, systemId)).for('update');
  if (!own) throw notFound('system');
  const [ownLoop] = await scope
    .select({ id: loop.id })
    .from(loop)
    .where(and(eq(loop.id, input.loopId), eq(loop.systemId, systemId)));
  if (!ownLoop) throw notFound('loop');
  if (isInRun(own.state)) throw new DomainError('refused', say('A run is in progress on this machine; finish it first.'));
  if (own.state === 'planned') throw new DomainError('refused', say('This loop was never filled; commission it first.'));
  demandPast('doneOn', input.doneOn, today);
  const [revision] = await scope
    .select({ id: loopRevision.id })
    .from(loopRevision)
    .where(and(eq(loopRevision.loopId, input.loopId), isInside))
    .orderBy(desc(loopRevision.number))
    .limit(1);
  if (!revision) throw notFound('loop revision');
  return { systemId, revisionId: revision.id };
}

interface Refill {
  readonly systemId: string;
  readonly revisionId: string;
  readonly jobId: string;
  readonly productId: string;
  readonly pouredMl: number;
}

/** The fill of a service that was entered afterwards, and its dates. */
async function refill({ scope, account, clock }: Ask, input: ServiceInput, { systemId, ...made }: Refill): Promise<void> {
  const at = clock.now();
  const { workshopId, personId } = account;
  const { lotId = null } = input;
  if (lotId !== null) {
    const [lot] = await scope
      .select({ id: coolantLot.id })
      .from(coolantLot)
      .where(and(eq(coolantLot.id, lotId), eq(coolantLot.productId, made.productId)));
    if (!lot) throw notFound('lot of this coolant');
  }
  const [product] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).where(eq(coolantProduct.id, made.productId));
  if (!product) throw notFound('coolant');
  const [later] = await scope
    .select({ on: fill.filledOn })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .where(and(eq(loopRevision.loopId, input.loopId), gt(fill.filledOn, input.doneOn)))
    .limit(1);
  if (later)
    refuse(
      'doneOn',
      say('this loop has a later fill, on {on}; a refill is entered in the order it happened (got {doneOn})', {
        on: later.on,
        doneOn: input.doneOn,
      }),
    );
  const { doneOn: filledOn, drainedMl, loopId } = input;
  await fillLoop(scope, { workshopId, systemId, loopId, personId, at, ...made, lotId, filledOn, drainedMl });
}

/** Enters a service that was done; where the loop was refilled its clocks start again from that day. */
export async function recordService(ask: Ask, input: ServiceInput) {
  const { scope, account, clock } = ask;
  const { workshopId, personId } = account;
  const { systemId, revisionId } = await revisionServiced(ask, input);
  const at = clock.now();
  const [made] = await scope
    .insert(job)
    .values({ workshopId, systemId, kind: input.kind, state: 'done', doneOn: input.doneOn, note: input.note, personId, createdAt: at })
    .returning();
  const jobRow = made as NonNullable<typeof made>;
  const text = input.finding.trim();
  const { ended = null } = input;
  if (text !== '' || ended !== null) {
    const fact: Finding = ended === null ? { why: 'said', text } : { why: 'cause', cause: ended, name: null, text };
    await scope
      .insert(finding)
      .values({ workshopId, systemId, jobId: jobRow.id, fact, text: findingWords(fact), severity: 'watch', foundAt: at });
  }
  const { productId, pouredMl } = input;
  if (REFILLING.includes(input.kind) && productId !== null && pouredMl !== null)
    await refill(ask, input, { systemId, revisionId, jobId: jobRow.id, productId, pouredMl });
  // nobody led it: what the last run left inside is no longer so
  if (JOB_KINDS[input.kind].opens !== 'not') await scope.delete(loopContents).where(eq(loopContents.loopId, input.loopId));
  if (CLEANS_FINS.includes(input.kind))
    await restartDust(scope, { workshopId, systemId, loopId: input.loopId, on: input.doneOn, personId, at });
  return jobRow;
}
