import { and, eq, isNotNull, lte, sql } from 'drizzle-orm';
import { addDays } from '../../../core/base/units/calendar.js';
import { longDay, longTime } from '../../../core/base/units/dates.js';
import { say } from '../../../core/base/words/say.js';
import { estimateWords } from '../../../core/edge/words/prices.js';
import type { JobLetterInput } from '../../../core/workshop/messages/schema.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { slotOffer } from '../../base/database/tables/owner-door.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { consentsOf, loadJob } from '../jobs/jobs.js';
import { isWrittenTo, wayTo } from '../../../core/workshop/messages/wayTo.js';
import { IS_WRITTEN_TO, write, type Writing } from '../messages/messages.js';

/** A letter about a job, written from what is known of it; the same estimate, the same slots are told once. */
export async function writeJobLetter(ask: Ask, { letter }: JobLetterInput): Promise<{ told: boolean }> {
  const { scope, account, clock, request } = ask;
  const jobId = idFrom(request, 'id', 'job');
  const row = await loadJob(scope, jobId);
  if (wayTo(row.owner) === null)
    throw new DomainError('refused', say('{owner} has no e-mail address on record; call instead.', { owner: row.owner.name }));
  const writing = { workshopId: account.workshopId, personId: account.personId, at: clock.now() };
  return { told: await (letter === 'offers' ? tellOffers(ask, writing, row) : tellEstimate(scope, writing, row)) };
}

/** An estimate that is to be agreed to goes to its owner, where one is written to without asking. @returns false: call */
export async function tellOfEstimate({ scope, account, clock }: Ask, jobId: string): Promise<boolean> {
  const row = await loadJob(scope, jobId);
  if (!isWrittenTo(row.owner)) return false;
  return tellEstimate(scope, { workshopId: account.workshopId, personId: account.personId, at: clock.now() }, row);
}

type JobRow = Awaited<ReturnType<typeof loadJob>>;

async function tellEstimate(scope: Scope, writing: Writing, { system: own, service }: JobRow): Promise<boolean> {
  const { estimate, estimateNumber, asked, jobId } = service;
  const before = await consentsOf(scope, jobId);
  if (before.some((each) => each.estimateNumber === estimateNumber))
    throw new DomainError('refused', say('The owner agreed to this estimate already.'));
  return write(scope, writing, {
    systemId: own.id,
    jobId,
    template: before.length > 0 ? 'larger' : 'estimate',
    about: `${jobId} estimate ${estimateNumber}`,
    when: '',
    text: () => [asked?.found ?? '', estimateWords(estimate)].filter(Boolean).join('; '),
  });
}

async function tellOffers({ scope, account }: Ask, writing: Writing, { system: own, service }: JobRow): Promise<boolean> {
  const offers = await scope
    .select({ from: slotOffer.startsAt, at: slotOffer.createdAt })
    .from(slotOffer)
    .where(eq(slotOffer.jobId, service.jobId))
    .orderBy(slotOffer.startsAt);
  if (offers.length === 0) throw new DomainError('refused', say('No slots are offered for this job; offer some first.'));
  return write(scope, writing, {
    systemId: own.id,
    jobId: service.jobId,
    template: 'offers',
    about: `${service.jobId} offers ${offers[0]?.at.toISOString()}`,
    when: '',
    text: () => offers.map(({ from }) => longTime(from.toISOString(), account.timeZone)).join('; '),
  });
}

/** days before the last day of a settling check on which its owner is still asked for a picture */
const LATE_DAYS = 14;

/** Owners who like to be written to are asked for the level, once for each check, as its days begin. @returns how many were written */
export async function tellLevels(scope: Scope, workshopId: string, today: string, at: Date): Promise<number> {
  const rows = await scope
    .select({ id: dueItem.id, systemId: dueItem.systemId, on: dueItem.dueOn })
    .from(dueItem)
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(
      and(
        eq(dueItem.state, 'open'),
        eq(dueItem.kind, 'settling-check'),
        isNotNull(dueItem.windowFrom),
        lte(dueItem.windowFrom, today),
        sql`${dueItem.dueOn} >= ${addDays(today, -LATE_DAYS)}`,
        eq(system.state, 'in-service'),
        IS_WRITTEN_TO,
      ),
    );
  let written = 0;
  for (const { id, systemId, on } of rows)
    if (
      await write(
        scope,
        { workshopId, personId: null, at },
        { systemId, template: 'level', about: `${id} level`, when: () => say('until {longDay}', { longDay: longDay(on) }), text: '' },
      )
    )
      written += 1;
  return written;
}
