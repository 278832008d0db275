import { reasonWords } from '../../../core/edge/words/dates.js';
import { createHash, randomBytes } from 'node:crypto';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Router } from 'express';
import ical, { ICalCalendarMethod } from 'ical-generator';
import Joi from 'joi';
import { JOB_KINDS, asJobKind } from '../../../core/workshop/jobs/kinds.js';
import { id } from '../../../core/base/checking/fields.js';
import { addDays } from '../../../core/base/units/calendar.js';
import { bench, person, workshop } from '../../base/database/tables/people.js';
import { inWorkshop } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { bodyAs, type App, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { slot } from '../../base/database/tables/planning.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
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
}

async function makeFeed({ scope, account, clock }: Ask, personId: string | null) {
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

async function calendarOf(app: App, feed: Pick<typeof calendarFeed.$inferSelect, 'workshopId' | 'personId'>): Promise<string> {
  return inWorkshop(app.database, feed.workshopId, async (scope) => {
    const [shop] = await scope.select({ name: workshop.name }).from(workshop).where(eq(workshop.id, feed.workshopId));
    const [own] = feed.personId === null ? [] : await scope.select({ name: person.name }).from(person).where(eq(person.id, feed.personId));
    const calendar = ical({
      name: own ? `${own.name}, ${shop?.name}` : (shop?.name ?? 'Workshop'),
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
    for (const row of slots)
      row.slot.steps.forEach((step, index) => {
        if (feed.personId !== null && step.personId !== feed.personId) return;
        calendar.createEvent({
          id: `${row.slot.jobId}-${index}`,
          start: new Date(step.from),
          end: new Date(step.to),
          stamp: row.slot.startsAt,
          summary: `${row.systemName}: ${step.what === 'work' ? JOB_KINDS[asJobKind(row.kind)].short : step.what}${row.slot.confirmed ? '' : ' (not confirmed)'}`,
          location: row.benchName,
          description: `${JOB_KINDS[asJobKind(row.kind)].label}, ${row.ownerName}`,
        });
      });
    if (feed.personId === null) {
      const today = app.clock.now().toISOString().slice(0, 10);
      const dues = await scope
        .select({ item: dueItem, systemName: system.name })
        .from(dueItem)
        .innerJoin(system, eq(system.id, dueItem.systemId))
        .where(and(eq(dueItem.state, 'open')));
      for (const { item, systemName } of dues.filter(({ item: each }) => each.dueOn <= addDays(today, DUE_DAYS)))
        calendar.createEvent({
          id: `due-${item.id}`,
          start: new Date(`${item.dueOn}T00:00:00Z`),
          allDay: true,
          stamp: item.createdAt,
          summary: `${systemName}: ${item.kind.replace('-', ' ')}`,
          description: reasonWords(item.reason),
        });
    }
    return withoutRemarks(calendar.toString());
  });
}
