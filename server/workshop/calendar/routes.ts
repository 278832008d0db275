import { say, sayWord } from '../../../core/base/words/say.js';
import { reasonWords } from '../../../core/edge/words/dates.js';
import { createHash, randomBytes } from 'node:crypto';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Router } from 'express';
import ical, { ICalCalendarMethod } from 'ical-generator';
import Joi from 'joi';
import { BOOKED_KINDS, asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { id } from '../../../core/base/checking/fields.js';
import { addDays, dayIn } from '../../../core/base/units/calendar.js';
import { formatWeekdayTime } from '../../../core/base/units/dates.js';
import { bench, person, workshop } from '../../base/database/tables/people.js';
import { inWorkshop, type Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { bodyAs, idFrom, type App, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { slot } from '../../base/database/tables/planning.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
import { inWorkshopsWay } from '../people/inWorkshopsWay.js';
import { PRODUCT, withoutRemarks } from './event.js';
import { calendarFeed } from '../../base/database/tables/calendar.js';

const feedSchema = Joi.object({ personId: id().allow(null).required() });
const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('base64url');

/** Addresses are made anew with each press: an old one that leaked stops working. */
export function calendarRoutes(routes: Routes): void {
  routes.get<{ feeds: { personId: string | null }[] }>('/calendars', async ({ scope }) => ({
    feeds: await scope
      .select({ personId: calendarFeed.personId, name: person.name, at: calendarFeed.createdAt })
      .from(calendarFeed)
      .leftJoin(person, eq(person.id, calendarFeed.personId)),
  }));
  routes.post<{ path: string }>(
    '/calendars',
    (ask) => makeFeed(ask, bodyAs<{ personId: string | null }>(ask.request, feedSchema).personId),
    { secret: true },
  );
  routes.delete<{ ended: number }>('/calendars/:whose', endFeed);
}

/** One's own calendar is one's own; the workshop's and everybody else's are the lead's. */
function demandFeed({ account }: Ask, personId: string | null): void {
  if (personId === account.personId || account.role === 'lead') return;
  throw new DomainError('forbidden', say('One makes one’s own calendar address; the workshop’s and those of others are the lead’s.'));
}

/** From now on nobody reads it. */
async function endFeed(ask: Ask): Promise<{ ended: number }> {
  const whose = String(ask.request.params.whose);
  const personId = whose === 'workshop' ? null : idFrom(ask.request, 'whose', 'calendar');
  demandFeed(ask, personId);
  const gone = await ask.scope
    .delete(calendarFeed)
    .where(personId === null ? isNull(calendarFeed.personId) : eq(calendarFeed.personId, personId))
    .returning({ id: calendarFeed.id });
  return { ended: gone.length };
}

async function makeFeed(ask: Ask, personId: string | null) {
  const { scope, account, clock } = ask;
  demandFeed(ask, personId);
  if (personId !== null) {
    const [own] = await scope.select({ id: person.id }).from(person).where(eq(person.id, personId));
    if (!own) throw notFound('person');
  }
  const secret = randomBytes(24).toString('base64url');
  await scope.delete(calendarFeed).where(personId === null ? isNull(calendarFeed.personId) : eq(calendarFeed.personId, personId));
  await scope.insert(calendarFeed).values({ workshopId: account.workshopId, personId, secretHash: hashOf(secret), createdAt: clock.now() });
  // shown once: only its hash is kept
  return { path: `/api/calendar/${secret}.ics` };
}

/** The feed itself: no session, only the secret. A calendar program asks for it from time to time. */
export function openCalendar(router: Router, app: App): void {
  router.get('/calendar/:secret.ics', async (request, response) => {
    const { secret } = request.params as { secret?: string };
    const [feed] = await app.database
      .select({ workshopId: calendarFeed.workshopId, personId: calendarFeed.personId })
      .from(calendarFeed)
      .where(eq(calendarFeed.secretHash, hashOf(secret ?? '')));
    if (!feed) throw notFound('calendar');
    response.type('text/calendar; charset=utf-8').send(await calendarOf(app, feed));
  });
}

/** days of due dates that the workshop's calendar shows ahead */
const DUE_DAYS = 120;

type Feed = Pick<typeof calendarFeed.$inferSelect, 'workshopId' | 'personId'>;
const calendarOf = (app: App, feed: Feed): Promise<string> =>
  inWorkshop(app.database, feed.workshopId, (scope) => inWorkshopsWay(scope, () => writeCalendar(app, scope, feed)));

async function writeCalendar(app: App, scope: Scope, feed: Feed): Promise<string> {
  const [shop] = await scope
    .select({ name: workshop.name, timeZone: workshop.timeZone })
    .from(workshop)
    .where(eq(workshop.id, feed.workshopId));
  const [own] = feed.personId === null ? [] : await scope.select({ name: person.name }).from(person).where(eq(person.id, feed.personId));
  const calendar = ical({
    name: own ? `${own.name}, ${shop?.name}` : (shop?.name ?? say('Workshop')),
    method: ICalCalendarMethod.PUBLISH,
    prodId: PRODUCT,
  });
  const slots = await scope
    .select({ slot, kind: job.kind, systemName: system.name, ownerName: owner.name, benchName: bench.name })
    .from(slot)
    .innerJoin(job, eq(job.id, slot.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(bench, eq(bench.id, slot.benchId))
    .orderBy(asc(slot.startsAt));
  for (const { slot: own, kind, systemName, ownerName, benchName } of slots) {
    const mine = own.steps.filter(({ personId }) => feed.personId === null || personId === feed.personId);
    const [first, last] = [mine[0], mine.at(-1)];
    if (!first || !last) continue;
    // one event a job, however many pieces it has: its parts stand in the text
    calendar.createEvent({
      id: `${own.jobId}@lavacrum`,
      sequence: own.version,
      stamp: app.clock.now(),
      start: new Date(first.from),
      end: new Date(last.to),
      summary: `${systemName}: ${say(BOOKED_KINDS[asBookedKind(kind)].short)}${own.confirmed ? '' : say(' (not confirmed)')}`,
      location: benchName,
      description: [
        `${sayWord(BOOKED_KINDS[asBookedKind(kind)].label)}, ${ownerName}`,
        ...(mine.length > 1 ? mine.map((step) => `${formatWeekdayTime(step.from, shop?.timeZone ?? 'UTC')} ${step.what}`) : []),
      ].join('\n'),
    });
  }
  if (feed.personId === null) {
    const today = dayIn(shop?.timeZone ?? 'UTC', app.clock.now());
    const dues = await scope
      .select({ item: dueItem, systemName: system.name })
      .from(dueItem)
      .innerJoin(system, eq(system.id, dueItem.systemId))
      .where(and(eq(dueItem.state, 'open')));
    for (const { item, systemName } of dues.filter(({ item: each }) => each.dueOn <= addDays(today, DUE_DAYS)))
      calendar.createEvent({
        id: `due-${item.id}@lavacrum`,
        sequence: item.version,
        start: new Date(`${item.dueOn}T00:00:00Z`),
        allDay: true,
        stamp: app.clock.now(),
        summary: `${systemName}: ${item.kind.replace('-', ' ')}`,
        // why it is due, never why it was put off: an address is read by whoever has it
        description: reasonWords(item.reason),
      });
  }
  return withoutRemarks(calendar.toString());
}
