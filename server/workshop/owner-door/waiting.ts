import { and, eq, gt, inArray, isNull, lte, sql } from 'drizzle-orm';
import type { FromOwner, OwnersNow, WaitsForOwner } from '../../../core/workshop/owner-door/answers.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';
import { loop } from '../../base/database/tables/loops.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { doorEntry, doorFile, slotOffer } from '../../base/database/tables/owner-door.js';
import { slot } from '../../base/database/tables/planning.js';
import { isReal, run } from '../../base/database/tables/runs.js';
import type { Ask } from '../../base/http/context.js';

/** rows of one list: more is no list to work through */
const MOST_SHOWN = 100;

const WHOSE = { systemId: system.id, systemName: system.name, ownerName: owner.name, phone: owner.phone };

/** What owners sent and nobody answered, the oldest first. */
async function sentByOwners(scope: Scope): Promise<FromOwner[]> {
  const rows = await scope
    .select({
      ...WHOSE,
      id: doorEntry.id,
      at: doorEntry.createdAt,
      said: doorEntry.said,
      jobId: doorEntry.jobId,
      fileId: doorFile.id,
      mediaType: doorFile.mediaType,
    }) // prettier-ignore
    .from(doorEntry)
    .innerJoin(system, eq(system.id, doorEntry.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .leftJoin(doorFile, eq(doorFile.entryId, doorEntry.id))
    .where(isNull(doorEntry.answeredAt))
    .orderBy(doorEntry.createdAt)
    .limit(MOST_SHOWN);
  return rows.map(({ at, fileId, mediaType, ...row }) => ({
    ...row,
    at: at.toISOString(),
    file: fileId !== null && mediaType !== null ? { id: fileId, mediaType } : null,
  }));
}

/** Estimates that nobody agreed to as they are now. What was declined waits for the desk, not for the owner. */
async function openEstimates(scope: Scope): Promise<WaitsForOwner[]> {
  const agreed = sql<boolean>`exists (select 1 from ${consent} where ${consent.jobId} = ${serviceJob.jobId} and ${consent.estimateNumber} = ${serviceJob.estimateNumber})`;
  const declined = sql<boolean>`exists (select 1 from ${doorEntry} where ${doorEntry.jobId} = ${serviceJob.jobId} and ${doorEntry.said} ->> 'kind' = 'declined' and (${doorEntry.said} ->> 'estimateNumber')::int = ${serviceJob.estimateNumber})`;
  const rows = await scope
    .select({
      ...WHOSE,
      jobId: job.id,
      since: serviceJob.estimateAt,
      before: sql<boolean>`exists (select 1 from ${consent} where ${consent.jobId} = ${serviceJob.jobId})`,
    }) // prettier-ignore
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(inArray(job.state, ['booked', 'waiting', 'active']), sql`not ${agreed}`, sql`not ${declined}`))
    .orderBy(serviceJob.estimateAt)
    .limit(MOST_SHOWN);
  return rows.map(({ since, before, ...row }) => ({
    ...row,
    what: before ? 'larger-scope' : 'estimate',
    since: since.toISOString(),
  }));
}

/** Slots that were offered and not chosen from. */
async function openOffers(scope: Scope, now: Date): Promise<WaitsForOwner[]> {
  const rows = await scope
    .select({ ...WHOSE, jobId: job.id, since: sql<string>`min(${slotOffer.createdAt})` })
    .from(slotOffer)
    .innerJoin(job, eq(job.id, slotOffer.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .leftJoin(slot, and(eq(slot.jobId, job.id), eq(slot.confirmed, true)))
    .where(
      and(
        inArray(job.state, ['booked', 'waiting']),
        gt(slotOffer.startsAt, now),
        isNull(slot.id),
        sql`not exists (select 1 from ${doorEntry} where ${doorEntry.jobId} = ${job.id} and ${doorEntry.answeredAt} is null and ${doorEntry.said} ->> 'kind' in ('slot', 'days'))`,
      ),
    )
    .groupBy(system.id, system.name, owner.name, owner.phone, job.id)
    .limit(MOST_SHOWN);
  return rows.map((row) => ({ ...row, what: 'slots', since: new Date(row.since).toISOString() }));
}

/** Runs that wait off their bench for a word of the owner. */
async function openQuestions(scope: Scope): Promise<WaitsForOwner[]> {
  const rows = await scope
    .select({ ...WHOSE, jobId: run.jobId, waits: run.waits })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(isReal, eq(run.state, 'active'), eq(run.waitsFor, 'owner')))
    .limit(MOST_SHOWN);
  return rows.map(({ waits, ...row }) => ({ ...row, what: 'answer', since: waits?.since ?? '' }));
}

/** Levels that are to be looked at now, of machines that are with their owners. */
async function openLevels(scope: Scope, today: string): Promise<WaitsForOwner[]> {
  const rows = await scope
    .select({ ...WHOSE, from: dueItem.windowFrom, on: dueItem.dueOn })
    .from(dueItem)
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(
      and(
        eq(dueItem.state, 'open'),
        eq(dueItem.kind, 'settling-check'),
        eq(system.state, 'in-service'),
        lte(sql`coalesce(${dueItem.windowFrom}, ${dueItem.dueOn})`, today),
        sql`not exists (select 1 from ${doorEntry} where ${doorEntry.systemId} = ${system.id} and ${doorEntry.answeredAt} is null and ${doorEntry.said} ->> 'kind' = 'photo')`,
      ),
    )
    .orderBy(dueItem.dueOn)
    .limit(MOST_SHOWN);
  return rows.map(({ from, on, ...row }) => ({ ...row, jobId: null, what: 'level', since: from ?? on }));
}

/** What owners sent, and what waits for an owner and since when. */
export async function ownersNow({ scope, today, clock }: Ask): Promise<OwnersNow> {
  const sent = await sentByOwners(scope);
  const waiting = [
    ...(await openEstimates(scope)),
    ...(await openOffers(scope, clock.now())),
    ...(await openQuestions(scope)),
    ...(await openLevels(scope, today)),
  ];
  return { sent, waiting: waiting.sort((a, b) => (a.since < b.since ? -1 : 1)) };
}
