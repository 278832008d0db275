import { and, eq } from 'drizzle-orm';
import { demandPast } from '../../../core/base/checking/input.js';
import { whereIs, type ArrivalInput } from '../../../core/workshop/jobs/arrival.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { slot } from '../../base/database/tables/planning.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, stale } from '../../base/http/errors.js';
import { loadJob, readJob } from './jobs.js';

/** Writes down that a machine was brought, did not come, or was fetched; null takes it back. */
export async function setArrival(ask: Ask, { what, on, version }: ArrivalInput) {
  const { scope } = ask;
  const jobId = idFrom(ask.request, 'id', 'job');
  const row = await loadJob(scope, jobId);
  if (on !== null) demandPast('on', on, ask.today);
  const where = whereIs(row.job.state, row.service);
  const refused = (words: string): never => {
    throw new DomainError('refused', words);
  };
  if (row.job.state === 'cancelled') refused('This booking was cancelled; nothing comes in for it.');
  if (what === 'fetched' && row.job.state !== 'done') refused('It is not done yet; only what is done is fetched.');
  if (what !== 'fetched' && row.job.state !== 'booked' && row.job.state !== 'waiting')
    refused('It stands on a bench, or is done: it did come.');
  if (what === 'not-come' && on !== null && where === 'here') refused('It was brought already; take that back first.');
  const to = {
    brought: { broughtOn: on, notComeOn: on === null ? row.service.notComeOn : null },
    'not-come': { notComeOn: on },
    fetched: { fetchedOn: on },
  }[what];
  const changed = await scope
    .update(serviceJob)
    .set({ ...to, version: version + 1 })
    .where(and(eq(serviceJob.jobId, jobId), eq(serviceJob.version, version)))
    .returning({ id: serviceJob.id });
  if (changed.length === 0) throw stale('job', { what, on }, row.service);
  // its place is for somebody else, whatever was confirmed
  if (what === 'not-come' && on !== null) await scope.delete(slot).where(eq(slot.jobId, jobId));
  return readJob(ask, jobId);
}
