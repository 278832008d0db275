import { say } from '../../../core/base/words/say.js';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/input.js';
import type { LoanInput } from '../../../core/workshop/store/schema.js';
import type { Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
import { keptPart } from '../../base/database/tables/store.js';

const columns = {
  id: keptPart.id,
  name: keptPart.name,
  jobId: keptPart.jobId,
  lentTo: keptPart.lentTo,
  untilDay: keptPart.untilDay,
  condition: keptPart.condition,
};
const isLoanMachine = and(eq(keptPart.kind, 'loan-machine'), isNull(keptPart.goneOn));

/** The loan machine that an owner has while a job is done, and those that stand free. */
export async function loansFor(scope: Scope, jobId: string) {
  const rows = await scope.select(columns).from(keptPart).where(isLoanMachine).orderBy(asc(keptPart.name));
  return {
    lent: rows.find((row) => row.jobId === jobId) ?? null,
    free: rows.filter(({ jobId: held, lentTo }) => held === null && lentTo === ''),
  };
}

/** The loan machine that the owner of a machine has, whichever job it was lent for. */
export async function loanOf(scope: Scope, systemId: string) {
  const [lent] = await scope
    .select({ ...columns, jobId: job.id })
    .from(keptPart)
    .innerJoin(job, eq(job.id, keptPart.jobId))
    .where(and(eq(job.systemId, systemId), isLoanMachine))
    .limit(1);
  return lent ?? null;
}

/** A loan machine goes home with the owner whose machine stays: one a job, and never to two owners at once. */
export async function lend({ scope, request, today }: Ask, { keptPartId, untilDay }: LoanInput) {
  const jobId = idFrom(request, 'id', 'job');
  const [own] = await scope
    .select({ owner: owner.name, state: job.state })
    .from(job)
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(eq(job.id, jobId));
  if (!own) throw notFound('job');
  if (own.state === 'cancelled') throw new DomainError('refused', say('This booking was taken back.'));
  if (untilDay < today) refuse('untilDay', say('cannot lie in the past; today is {today} (got {untilDay})', { today, untilDay }));
  const { lent, free } = await loansFor(scope, jobId);
  if (lent) throw new DomainError('refused', say('{owner} has {name} already.', { owner: own.owner, name: lent.name }));
  if (!free.some(({ id }) => id === keptPartId)) refuse('keptPartId', say('is no loan machine that stands free'));
  const [taken] = await scope
    .update(keptPart)
    .set({ jobId, lentTo: own.owner, untilDay })
    // two desks at once: the first has it
    .where(and(eq(keptPart.id, keptPartId), eq(keptPart.lentTo, ''), isLoanMachine))
    .returning({ id: keptPart.id });
  if (!taken) throw new DomainError('conflict', say('Somebody else lent it at the same moment; look again.'));
  return loansFor(scope, jobId);
}

/** It came back. */
export async function giveBack({ scope, request }: Ask) {
  const jobId = idFrom(request, 'id', 'job');
  const back = await scope
    .update(keptPart)
    .set({ jobId: null, lentTo: '', untilDay: null })
    .where(and(eq(keptPart.jobId, jobId), isLoanMachine))
    .returning({ id: keptPart.id });
  if (back.length === 0) throw notFound('loan machine of this job');
  return loansFor(scope, jobId);
}
