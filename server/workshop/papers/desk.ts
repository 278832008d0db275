import { and, desc, eq } from 'drizzle-orm';
import {
  estimatePaper,
  dropOffPaper,
  pickUpPaper,
  wastePaper,
  type DeskFacts,
  type JobOnPaper,
} from '../../../core/edge/papers/deskPapers.js';
import type { Paper } from '../../../core/edge/papers/paper.js';
import { say } from '../../../core/base/words/say.js';
import { asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { consent } from '../../base/database/tables/jobs.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { loop } from '../../base/database/tables/loops.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import type { Ask } from '../../base/http/context.js';
import { appointmentsOf } from '../planning/appointments.js';
import { billOf } from '../prices/bills.js';
import { loanOf } from '../store/loans.js';
import { readWaste } from '../waste/routes.js';
import { whereOf } from './where.js';

/** Papers of one machine that the desk prints or sends. */
export const DESK_PAPERS = ['estimate', 'drop-off', 'pick-up'] as const;
export type DeskPaper = (typeof DESK_PAPERS)[number];

const shopOf = ({ account }: Ask): DeskFacts['workshop'] => ({
  name: account.workshopName,
  where: whereOf(account.contact),
  phone: account.contact.phone,
  timeZone: account.timeZone,
});

/** Its newest job that is still to be done, else the one that was done last and not fetched. */
async function jobOnPaper({ scope }: Ask, systemId: string): Promise<(JobOnPaper & { id: string }) | null> {
  const [row] = await scope
    .select({ job, service: serviceJob })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(eq(job.systemId, systemId))
    .orderBy(desc(job.createdAt))
    .limit(1);
  if (!row || row.job.state === 'cancelled' || row.service.fetchedOn !== null) return null;
  const [agreed] = await scope
    .select({ at: consent.createdAt })
    .from(consent)
    .where(and(eq(consent.jobId, row.job.id), eq(consent.estimateNumber, row.service.estimateNumber)));
  return {
    id: row.job.id,
    kind: asBookedKind(row.job.kind),
    estimate: row.service.estimate,
    slot: (await appointmentsOf(scope, [row.job.id])).get(row.job.id) ?? null,
    neededBy: row.service.neededBy,
    agreedAt: agreed?.at.toISOString() ?? null,
  };
}

/** A paper of a machine, written the way its owner reads. */
export async function deskPaper(ask: Ask, systemId: string, which: DeskPaper): Promise<Paper> {
  const { scope, account, today, ownOrigin } = ask;
  const [own] = await scope
    .select({ machine: system.name, owner: owner.name })
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(eq(system.id, systemId));
  if (!own) throw notFound('system');
  const facts: DeskFacts = {
    ...own,
    workshop: shopOf(ask),
    today,
    address: `${account.contact.publicAddress || ownOrigin}/systems/${systemId}`,
  };
  const work = await jobOnPaper(ask, systemId);
  if (which === 'estimate') {
    if (!work) throw new DomainError('refused', say('No job is booked for this machine; there is nothing to estimate.'));
    return estimatePaper(facts, work);
  }
  const loan = await loanOf(scope, systemId);
  if (which === 'drop-off') return dropOffPaper(facts, work, loan && { name: loan.name, until: loan.untilDay });
  return pickUpPaper(facts, {
    ...(await insideAndDates(ask, systemId)),
    bill: work ? (await billOf(ask, work.id)).used : null,
    loan: loan?.name ?? null,
  });
}

async function insideAndDates({ scope, today }: Ask, systemId: string) {
  const [inside] = await scope
    .select({ name: coolantProduct.name })
    .from(loop)
    .innerJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
    .where(eq(loop.systemId, systemId))
    .limit(1);
  const dues = await scope
    .select({ kind: dueItem.kind, on: dueItem.dueOn, reason: dueItem.reason })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.state, 'open')))
    .orderBy(dueItem.dueOn);
  const next = dues.find(({ kind, on }) => kind === 'coolant-service' && on > today);
  return {
    coolant: inside?.name ?? say('coolant not known'),
    nextOn: next?.on ?? null,
    fixes: dues.flatMap(({ on, reason }) => (reason.why === 'temporary' ? [{ ...reason, until: on }] : [])),
  };
}

/** The paper that goes with a container of waste. */
export async function wasteContainerPaper(ask: Ask): Promise<Paper> {
  const { container, entries } = await readWaste(ask);
  return wastePaper(
    { workshop: shopOf(ask), today: ask.today },
    {
      container,
      entries: entries.map(({ at, volumeMl, systemName, note }) => ({ at: at.toISOString(), volumeMl, from: systemName ?? note })),
    },
  );
}
