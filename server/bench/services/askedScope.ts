import { and, desc, eq } from 'drizzle-orm';
import { say, sayWord } from '../../../core/base/words/say.js';
import { changesLoop, JOB_KINDS, type JobKind } from '../../../core/workshop/job-kinds/kinds.js';
import type { AskScopeInput } from '../../../core/workshop/jobs/schema.js';
import type { Scope } from '../../base/database/client.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';
import { run } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { loadJob, readJob } from '../../workshop/jobs/jobs.js';
import { tellOfEstimate } from '../../workshop/owner-door/letters.js';
import { pricedEstimate } from '../../workshop/prices/estimate.js';

/** The service in progress that a request is about, its row locked. */
async function serviceInProgress({ scope, request }: Ask) {
  const [row] = await scope
    .select()
    .from(run)
    .where(eq(run.id, idFrom(request, 'id', 'run')))
    .for('update');
  if (!row) throw notFound('run');
  if (row.state !== 'active' || !row.procedure.service || row.jobId === null)
    throw new DomainError('refused', say('Only a service in progress changes its scope.'));
  return { loopId: row.loopId, jobId: row.jobId, kind: row.procedure.service.kind };
}

/**
 * Findings make the job another one, and the owner is asked first: the estimate becomes the one that is asked about, the run stays as it
 * is until somebody agreed. What was agreed before is kept, and comes back if this is taken back.
 */
export async function askScope(ask: Ask, { kind, reason, schools, estimate }: AskScopeInput) {
  const { scope, account, clock } = ask;
  const own = await serviceInProgress(ask);
  if (own.kind === kind) throw new DomainError('refused', say('This job is {label} already.', { label: sayWord(JOB_KINDS[kind].label) }));
  if (changesLoop(kind))
    throw new DomainError('refused', say('What the loop shall become is drawn first: end this run, draw it as wanted, and book its job.'));
  const { service } = await loadJob(scope, own.jobId);
  const at = clock.now();
  await scope
    .update(serviceJob)
    .set({
      asked: { kind, found: reason, ...(schools ? { schools } : {}), at: at.toISOString() },
      estimate: await pricedEstimate(ask, kind, own.loopId, estimate, service.productId),
      estimateNumber: service.estimateNumber + 1,
      estimateAt: at,
      version: service.version + 1,
    })
    .where(eq(serviceJob.jobId, own.jobId));
  await tellOfEstimate(ask, own.jobId);
  await pushNotice(scope, account.workshopId, { kind: 'owners' });
  return readJob(ask, own.jobId);
}

/** The owner is asked no longer: what was agreed to last holds again. */
export async function takeScopeBack(ask: Ask) {
  const { scope, account } = ask;
  const own = await serviceInProgress(ask);
  const { service } = await loadJob(scope, own.jobId);
  if (!service.asked) throw new DomainError('refused', say('The owner is asked about nothing.'));
  const [last] = await scope.select().from(consent).where(eq(consent.jobId, own.jobId)).orderBy(desc(consent.estimateNumber)).limit(1);
  if (last?.estimateNumber === service.estimateNumber)
    throw new DomainError('refused', say('The owner agreed to it already: change the steps, or ask about something else.'));
  // a number is never given twice: what holds again is the earlier estimate under a new one, agreed to as it was
  const estimateNumber = service.estimateNumber + 1;
  await scope
    .update(serviceJob)
    .set({ asked: null, estimate: last?.estimate ?? service.estimate, estimateNumber, version: service.version + 1 })
    .where(eq(serviceJob.jobId, own.jobId));
  if (last) {
    const { id: _, ...agreed } = last;
    await scope.insert(consent).values({ ...agreed, estimateNumber });
  }
  await pushNotice(scope, account.workshopId, { kind: 'owners' });
  return readJob(ask, own.jobId);
}

/** @throws DomainError where the owner did not agree on the page to what the job shall become now */
export async function demandAgreed(
  scope: Scope,
  jobId: string,
  { asked, estimateNumber }: typeof serviceJob.$inferSelect,
  kind: JobKind,
): Promise<void> {
  const agreed = await scope
    .select({ id: consent.id })
    .from(consent)
    .where(and(eq(consent.jobId, jobId), eq(consent.estimateNumber, estimateNumber)));
  if (!asked || asked.kind !== kind || agreed.length === 0)
    throw new DomainError('refused', say('The owner did not agree to this on the page yet; ask, or write down how it was agreed.'));
}
