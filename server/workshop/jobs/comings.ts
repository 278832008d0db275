import { and, asc, eq, inArray, isNull, lte, or } from 'drizzle-orm';
import type { Coming, Ready } from '../../../core/workshop/jobs/answers.js';
import { asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { addDays, dayIn, instantIn } from '../../../core/base/units/calendar.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { bench } from '../../base/database/tables/people.js';
import { slot } from '../../base/database/tables/planning.js';
import type { Ask } from '../../base/http/context.js';

/** Whose machine a job is about, as the door's lists say it. */
const AT_THE_DOOR = {
  jobId: job.id,
  kind: job.kind,
  systemId: system.id,
  systemName: system.name,
  ownerName: owner.name,
  phone: owner.phone,
  version: serviceJob.version,
};

/** Machines whose appointment is today, or was and nobody wrote down what became of it. */
export async function comingIn({ scope, account, today }: Ask): Promise<Coming[]> {
  const endOfToday = new Date(instantIn(account.timeZone, addDays(today, 1), 0));
  const rows = await scope
    .select({ ...AT_THE_DOOR, startsAt: slot.startsAt, bench: bench.name, broughtOn: serviceJob.broughtOn })
    .from(slot)
    .innerJoin(job, eq(job.id, slot.jobId))
    .innerJoin(serviceJob, eq(serviceJob.jobId, job.id))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(bench, eq(bench.id, slot.benchId))
    .where(and(eq(job.state, 'booked'), lte(slot.startsAt, endOfToday), or(isNull(serviceJob.broughtOn), eq(serviceJob.broughtOn, today))))
    .orderBy(asc(slot.startsAt));
  return rows.map(({ startsAt, kind, ...row }) => ({
    ...row,
    kind: asBookedKind(kind),
    at: startsAt.toISOString(),
    awaitedOn: dayIn(account.timeZone, startsAt),
  }));
}

/** Machines that are done and still here, the longest first. @param systemIds only these; missing: all */
export async function readyToFetch({ scope }: Pick<Ask, 'scope'>, systemIds?: readonly string[]): Promise<Ready[]> {
  const rows = await scope
    .select({ ...AT_THE_DOOR, since: job.doneOn })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(eq(job.state, 'done'), isNull(serviceJob.fetchedOn), systemIds ? inArray(system.id, [...systemIds]) : undefined))
    .orderBy(asc(job.doneOn), asc(system.name));
  return rows.flatMap(({ since, kind, ...row }) => (since === null ? [] : [{ ...row, kind: asBookedKind(kind), since }]));
}
