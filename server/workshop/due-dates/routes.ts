import { say } from '../../../core/base/words/say.js';
import { and, eq } from 'drizzle-orm';
import { addDays } from '../../../core/base/units/calendar.js';
import { closeDueSchema, postponeSchema, type CloseDueInput, type PostponeInput } from '../../../core/workshop/machines/schema.js';
import { refuse } from '../../../core/base/checking/input.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { putOff, type DueRow } from './putOff.js';
import { restartDust } from './cleaned.js';
import { pasteDone } from './paste.js';
import { stirred } from './stirring.js';
import { tellDates } from './writeDates.js';
import { dueItem } from '../../base/database/tables/due-dates.js';

export function dueRoutes(routes: Routes): void {
  routes.put('/due-items/:id/close', (ask) => closeDue(ask, bodyAs<CloseDueInput>(ask.request, closeDueSchema)));
  routes.put('/due-items/:id/postpone', (ask) => postponeDue(ask, bodyAs<PostponeInput>(ask.request, postponeSchema)));
}

async function openItem({ scope, request }: Ask, version: number, yours: object): Promise<DueRow> {
  const [item] = await scope
    .select()
    .from(dueItem)
    .where(eq(dueItem.id, idFrom(request, 'id', 'due item')));
  if (!item) throw notFound('due item');
  if (item.version !== version) throw stale('date', yours, item);
  if (item.state !== 'open') throw new DomainError('refused', say('This item is already closed.'));
  return item;
}

/** Days until a level that did not settle is looked at again. */
const LOOK_AGAIN_DAYS = 3;

/** A settling check is closed only when the level settled; otherwise it stays open, is dated on, and says why. */
async function closeDue(ask: Ask, input: CloseDueInput): Promise<object> {
  const { scope, account, clock, today } = ask;
  const item = await openItem(ask, input.version, input);
  const settling = item.kind === 'settling-check';
  if (settling === (input.outcome === 'done')) {
    refuse(
      'outcome',
      settling
        ? say('a settling check ends with settled or not-settled')
        : say('only a settling check ends with settled or not-settled; use done'),
    );
  }
  if (item.kind === 'coolant-service')
    refuse('outcome', say('a coolant service is closed by recording the service, which starts the next clock'));
  if (item.kind === 'dust-clean') {
    const own = { workshopId: account.workshopId, systemId: item.systemId, loopId: item.loopId, personId: account.personId };
    await restartDust(scope, { ...own, on: today, at: clock.now(), outcome: { why: 'done', note: input.note } });
    return {};
  }
  if (item.kind === 'paste-renewal') {
    const own = { workshopId: account.workshopId, systemId: item.systemId, loopId: item.loopId, personId: account.personId };
    await pasteDone(scope, { ...own, on: today, at: clock.now(), outcome: { why: 'done', note: input.note } });
    return {};
  }
  if (item.kind === 'stirring') {
    await stirred(scope, item, { on: today, at: clock.now(), personId: account.personId, outcome: { why: 'done', note: input.note } });
    await tellDates(scope);
    return {};
  }
  const { levelChangeMm, toppedUpMl, note } = input;
  const found = { levelChangeMm, ...(typeof toppedUpMl === 'number' ? { toppedUpMl } : {}), note };
  const open = input.outcome === 'not-settled';
  const [after] = await scope
    .update(dueItem)
    .set({
      version: item.version + 1,
      ...(open
        ? {
            dueOn: addDays(today, LOOK_AGAIN_DAYS),
            reason: { why: 'not-settled' as const, on: today, ...found },
          }
        : {
            state: 'closed',
            outcome: settling ? { why: 'settled' as const, ...found } : { why: 'done' as const, note },
            closedAt: clock.now(),
            closedBy: account.personId,
          }),
    })
    .where(and(eq(dueItem.id, item.id), eq(dueItem.version, item.version)))
    .returning();
  if (!after) throw new DomainError('conflict', say('Somebody else changed this item at the same moment; look again.'));
  await tellDates(scope);
  return after;
}

async function postponeDue(ask: Ask, input: PostponeInput): Promise<object> {
  return putOff(ask, await openItem(ask, input.version, input), input);
}
