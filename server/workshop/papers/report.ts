import { and, asc, eq, max, sql } from 'drizzle-orm';
import { firstReason } from '../../../core/workshop/due-dates/facts.js';
import type { ReportFacts, ReportPhoto } from '../../../core/edge/papers/reportPaper.js';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { loop } from '../../base/database/tables/loops.js';
import { job, system } from '../../base/database/tables/machines.js';
import { ownerReport } from '../../base/database/tables/owner-door.js';
import { photo } from '../../base/database/tables/photos.js';
import { run, runRecord } from '../../base/database/tables/runs.js';
import { wasteEntry } from '../../base/database/tables/waste.js';
import type { Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { billOf } from '../prices/bills.js';
import { whereOf } from './where.js';

/** pictures of each side: more tell an owner no more */
const MOST_PHOTOS = 4;

type Facts = Pick<Ask, 'scope' | 'account'>;

/** A signed run as its report is made of it. */
async function signedRun(scope: Scope, runId: string) {
  const [row] = await scope
    .select({
      jobId: run.jobId,
      startedAt: run.startedAt,
      record: runRecord.record,
      systemId: loop.systemId,
      ownerId: system.ownerId,
      kind: job.kind,
      productId: loop.coolantProductId,
      colour: coolantProduct.colour,
    }) // prettier-ignore
    .from(runRecord)
    .innerJoin(run, eq(run.id, runRecord.runId))
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .leftJoin(job, eq(job.id, run.jobId))
    .leftJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
    .where(eq(runRecord.runId, runId));
  if (!row) throw notFound('signed record');
  return row;
}

/** Pictures that were taken before the run began, and those of the run itself. */
async function sides(scope: Scope, jobId: string | null, began: Date): Promise<Pick<ReportFacts, 'before' | 'after'>> {
  if (jobId === null) return { before: [], after: [] };
  const rows = await scope
    .select({ photoId: photo.id, caption: photo.caption, at: photo.createdAt })
    .from(photo)
    .where(eq(photo.jobId, jobId))
    .orderBy(asc(photo.createdAt));
  const of = (isBefore: boolean): ReportPhoto[] =>
    rows.filter(({ at }) => at < began === isBefore).map(({ photoId, caption }) => ({ photoId, caption }));
  return { before: of(true).slice(0, MOST_PHOTOS), after: of(false).slice(-MOST_PHOTOS) };
}

/** Dates of the machine as they stand now, without what was said when one was put off. */
async function datesOf(scope: Scope, systemId: string): Promise<ReportFacts['dates']> {
  const rows = await scope
    .select({ kind: dueItem.kind, from: dueItem.windowFrom, on: dueItem.dueOn, reason: dueItem.reason, estimated: dueItem.estimated })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.state, 'open')))
    .orderBy(asc(dueItem.dueOn));
  return rows.map((row) => ({ ...row, reason: firstReason(row.reason) }));
}

async function wasteOf(scope: Scope, jobId: string | null): Promise<number> {
  if (jobId === null) return 0;
  const [row] = await scope
    .select({ ml: sql<number>`coalesce(sum(${wasteEntry.volumeMl}), 0)`.mapWith(Number) })
    .from(wasteEntry)
    .where(eq(wasteEntry.jobId, jobId));
  return row?.ml ?? 0;
}

/** What the report of a signed run says, as it is now. */
async function reportFacts(ask: Facts, runId: string): Promise<{ facts: ReportFacts; systemId: string; ownerId: string }> {
  const { scope, account } = ask;
  const row = await signedRun(scope, runId);
  const { log: _log, remark: _remark, notNeeded: _notNeeded, ...record } = row.record;
  const { jobId } = row;
  return {
    systemId: row.systemId,
    ownerId: row.ownerId,
    facts: {
      reportVersion: 1,
      workshop: { name: account.workshopName, where: whereOf(account.contact), timeZone: account.timeZone },
      kind: row.kind ?? 'commissioning',
      record,
      colour: row.colour,
      ...(await sides(scope, jobId, row.startedAt)),
      dates: await datesOf(scope, row.systemId),
      bill: jobId === null ? null : (await billOf(ask, jobId)).used,
      wasteMl: await wasteOf(scope, jobId),
    },
  };
}

/** Keeps the report of a run that was just signed off: from here on it says what was then. */
export async function keepReport(ask: Facts & Pick<Ask, 'clock'>, runId: string): Promise<void> {
  const { scope, account, clock } = ask;
  const { facts, systemId, ownerId } = await reportFacts(ask, runId);
  const [last] = await scope
    .select({ number: max(ownerReport.number) })
    .from(ownerReport)
    .where(eq(ownerReport.systemId, systemId));
  await scope
    .insert(ownerReport)
    .values({
      workshopId: account.workshopId,
      systemId,
      ownerId,
      runId,
      number: (last?.number ?? 0) + 1,
      facts,
      photoIds: [...facts.before, ...facts.after].map(({ photoId }) => photoId),
      createdAt: clock.now(),
    })
    .onConflictDoNothing();
}

/** The report of a run: as it was kept, or, of one that was signed off before reports were, as it can be said today. */
export async function readReport(ask: Facts, runId: string): Promise<ReportFacts> {
  const [kept] = await ask.scope.select({ facts: ownerReport.facts }).from(ownerReport).where(eq(ownerReport.runId, runId));
  return kept?.facts ?? (await reportFacts(ask, runId)).facts;
}
