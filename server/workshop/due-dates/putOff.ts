import { and, eq } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/input.js';
import { daysBetween } from '../../../core/base/units/calendar.js';
import { say } from '../../../core/base/words/say.js';
import { escalationWords } from '../../../core/edge/words/dates.js';
import { escalationOf } from '../../../core/workshop/due-dates/escalation.js';
import { firstReason } from '../../../core/workshop/due-dates/facts.js';
import { dueItem, postponement } from '../../base/database/tables/due-dates.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { tellDates } from './writeDates.js';

export type DueRow = typeof dueItem.$inferSelect;

/** An owner puts a date off: it stays open, counts up, and from the third time on takes the lead. */
export async function putOff(ask: Ask, item: DueRow, input: { readonly until: string; readonly reason: string }): Promise<DueRow> {
  const { scope, account, today } = ask;
  const escalation = escalationOf({ ...item, firstDueOn: item.clocks[0]?.dueOn ?? null });
  if (escalation.level === 3 && account.role !== 'lead')
    throw new DomainError('refused', say('This was {escalationWords}. Ask the lead.', { escalationWords: escalationWords(escalation) }));
  if (daysBetween(item.dueOn, input.until) <= 0)
    refuse('until', say('must lie after the present date {dueOn} (got {until})', { dueOn: item.dueOn, until: input.until }));
  if (daysBetween(today, input.until) <= 0) refuse('until', say('must lie in the future (got {until})', { until: input.until }));
  await scope.insert(postponement).values({
    workshopId: account.workshopId,
    dueItemId: item.id,
    from: item.dueOn,
    until: input.until,
    reason: input.reason,
    personId: account.personId,
    createdAt: ask.clock.now(),
  });
  const [after] = await scope
    .update(dueItem)
    .set({
      dueOn: input.until,
      postponed: item.postponed + 1,
      version: item.version + 1,
      reason: { why: 'put-off', until: input.until, said: input.reason, first: firstReason(item.reason) },
    })
    .where(and(eq(dueItem.id, item.id), eq(dueItem.version, item.version)))
    .returning();
  if (!after) throw new DomainError('conflict', say('Somebody else changed this item at the same moment; look again.'));
  await tellDates(scope);
  return after;
}
