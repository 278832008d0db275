import { say } from '../../../core/base/words/say.js';
import { howOftenWords, reasonWords } from '../../../core/edge/words/dates.js';
import { and, desc, eq, gt, gte, inArray, lte, sql } from 'drizzle-orm';
import type { MessageInput } from '../../../core/workshop/messages/schema.js';
import { DOOR_PATH } from '../../../core/workshop/owner-door/address.js';
import { may } from '../../../core/workshop/people/rights.js';
import { longDay } from '../../../core/base/units/dates.js';
import { LINK_MARK, writeMessage, writeText, type MessageTemplate } from '../../../core/workshop/messages/templates.js';
import { wayTo } from '../../../core/workshop/messages/wayTo.js';
import { escalationOf } from '../../../core/workshop/due-dates/escalation.js';
import { addDays } from '../../../core/base/units/calendar.js';
import { inWorkshopsWay } from '../people/inWorkshopsWay.js';
import { writtenFor } from '../../base/http/readers.js';
import { person, workshop } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { message, standInMail } from '../../base/database/tables/messages.js';

/** days before its date on which an owner hears that a service is due */
export const TELL_DAYS = 21;

export interface Writing {
  readonly workshopId: string;
  readonly personId: string | null;
  readonly at: Date;
}

/** Words of a letter: as somebody typed them, or made in its reader's way as it is written. */
type Worded = string | (() => string);
const inWords = (words: Worded): string => (typeof words === 'string' ? words : words());

export interface Letter {
  readonly systemId: string;
  readonly template: MessageTemplate;
  /** the same thing is told once */
  readonly about: string;
  readonly when: Worded;
  readonly ready?: Worded;
  readonly text: Worded;
  readonly calendar?: string;
  /** the link that goes with it is of this job; left out: of the machine */
  readonly jobId?: string;
}

/** Writes a message, the way its owner reads; the same thing is told once. @returns false where it was told before */
export async function write(scope: Scope, { workshopId, personId, at }: Writing, given: Letter): Promise<boolean> {
  const [row] = await scope
    .select({
      ownerId: owner.id,
      owner: owner.name,
      email: owner.email,
      phone: owner.phone,
      channel: owner.channel,
      ownerReading: owner.reading,
      machine: system.name,
      workshop: workshop.name,
      contact: workshop.contact,
      reading: workshop.reading,
      door: workshop.door,
    })
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(workshop, eq(workshop.id, system.workshopId))
    .where(eq(system.id, given.systemId));
  if (!row) throw notFound('system');
  const to = wayTo(row);
  if (!to) throw new DomainError('refused', say('{owner} has no e-mail address on record; call instead.', { owner: row.owner }));
  const hasLink = row.door.open;
  const text = writtenFor({ ...row.reading, ...row.ownerReading }, () =>
    (to.way === 'text' ? writeText : writeMessage)(given.template, {
      owner: row.owner,
      machine: row.machine,
      workshop: row.workshop,
      contact: row.contact,
      when: inWords(given.when),
      ready: inWords(given.ready ?? ''),
      text: inWords(given.text),
      link: hasLink ? LINK_MARK : '',
    }),
  );
  const made = await scope
    .insert(message)
    .values({
      workshopId,
      ownerId: row.ownerId,
      systemId: given.systemId,
      template: given.template,
      about: given.about,
      ...to,
      ...text,
      hasLink,
      jobId: given.jobId ?? null,
      calendar: given.calendar ?? null,
      personId,
      createdAt: at,
    })
    .onConflictDoNothing()
    .returning({ id: message.id });
  return made.length > 0;
}

/** A message that somebody asks for. */
export async function askMessage(ask: Ask, input: MessageInput) {
  const { scope, account, clock } = ask;
  const at = clock.now();
  await write(
    scope,
    { workshopId: account.workshopId, personId: account.personId, at },
    { ...input, about: `by hand ${at.toISOString()}` },
  );
  return listMessages(ask);
}

/** has an address for what must be in writing; and likes to be written to at all */
const IS_REACHED = sql`(${owner.email} is not null or (${owner.channel} = 'text' and ${owner.phone} is not null))`;
export const IS_WRITTEN_TO = sql`(${owner.channel} <> 'phone' and ${IS_REACHED})`;

/** An item that was put off too long goes to its owner in writing, once each time it is put off. */
async function tellRisks(scope: Scope, workshopId: string, at: Date): Promise<number> {
  const rows = await scope
    .select({ item: dueItem })
    .from(dueItem)
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(eq(dueItem.state, 'open'), gt(dueItem.postponed, 0), IS_REACHED, eq(system.state, 'in-service')));
  let written = 0;
  for (const { item } of rows) {
    const escalation = escalationOf({ ...item, firstDueOn: item.clocks[0]?.dueOn ?? null });
    if (escalation.level < 2) continue;
    const about = `${item.id} put off ${item.postponed}`;
    if (
      await write(
        scope,
        { workshopId, personId: null, at },
        { systemId: item.systemId, template: 'risk', about, when: () => longDay(item.dueOn), text: () => howOftenWords(escalation) },
      )
    )
      written += 1;
  }
  return written;
}

/** Tells owners of services that come due, in writing to those who like it. Once for each date. @returns how many were written */
export const tellDue = (scope: Scope, workshopId: string, today: string, at: Date): Promise<number> =>
  inWorkshopsWay(scope, () => tellAllDue(scope, workshopId, today, at));

async function tellAllDue(scope: Scope, workshopId: string, today: string, at: Date): Promise<number> {
  const rows = await scope
    .select({ item: dueItem })
    .from(dueItem)
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(
      and(
        eq(dueItem.state, 'open'),
        eq(dueItem.kind, 'coolant-service'),
        gte(dueItem.dueOn, today),
        lte(dueItem.dueOn, addDays(today, TELL_DAYS)),
        IS_WRITTEN_TO,
        inArray(system.state, ['in-service']),
      ),
    );
  let written = await tellRisks(scope, workshopId, at);
  for (const { item } of rows) {
    const told = await write(
      scope,
      { workshopId, personId: null, at },
      {
        systemId: item.systemId,
        template: 'due-soon',
        about: `${item.id} ${item.dueOn}`,
        when: () => say('on {longDay}', { longDay: longDay(item.dueOn) }),
        text: () => reasonWords(item.reason),
      },
    ).catch((error: unknown) => {
      // an owner who likes e-mail and has no address is for the desk, not for the night
      if (error instanceof DomainError) return false;
      throw error;
    });
    if (told) written += 1;
  }
  return written;
}

const MOST_SHOWN = 200;

export async function listMessages({ scope, account }: Pick<Ask, 'scope' | 'account'>) {
  const messages = await scope
    .select({
      id: message.id,
      at: message.createdAt,
      sentAt: message.sentAt,
      template: message.template,
      way: message.way,
      address: message.address,
      subject: message.subject,
      body: message.body,
      state: message.state,
      problem: message.problem,
      systemId: message.systemId,
      systemName: system.name,
      by: person.name,
    })
    .from(message)
    .innerJoin(system, eq(system.id, message.systemId))
    .leftJoin(person, eq(person.id, message.personId))
    .orderBy(desc(message.createdAt))
    .limit(MOST_SHOWN);
  const kept = await scope
    .select()
    .from(standInMail)
    // whoever may give a password anyway sees the link to one
    .where(account.role === 'lead' ? undefined : eq(standInMail.isPrivate, false))
    .orderBy(desc(standInMail.createdAt))
    .limit(MOST_SHOWN);
  return {
    messages,
    // a letter with a link is read by those who may hand one out
    standIn: kept.map(({ id, createdAt, sender, recipient, subject, text, isPrivate, way }) => ({
      id,
      at: createdAt,
      sender,
      recipient,
      subject,
      way,
      text: isPrivate || (text.includes(DOOR_PATH) && may(account.role, 'desk')) ? text : null,
    })),
  };
}
