import { and, desc, eq, inArray, like } from 'drizzle-orm';
import { longTime } from '../../../core/base/units/dates.js';
import type { MessageTemplate } from '../../../core/workshop/messages/templates.js';
import type { Scope } from '../../base/database/client.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { message } from '../../base/database/tables/messages.js';
import { workshop } from '../../base/database/tables/people.js';
import { appointmentFile } from '../calendar/event.js';
import { inWorkshopsWay } from '../people/inWorkshopsWay.js';
import { isWrittenTo } from '../../../core/workshop/messages/wayTo.js';
import { write, type Writing } from './messages.js';

/** The slot of a job as its owner is told of it. */
export interface ToldSlot {
  readonly systemId: string;
  readonly jobId: string;
  readonly startsAt: Date;
  readonly endsAt: Date;
  readonly version: number;
  readonly timeZone: string;
}

/** The letter about its slot that went last; null: its owner was told nothing, or that it is cancelled. */
async function lastTold(scope: Scope, jobId: string): Promise<{ template: string; about: string } | null> {
  const [last] = await scope
    .select({ template: message.template, about: message.about })
    .from(message)
    .where(and(inArray(message.template, ['slot', 'moved', 'cancelled']), like(message.about, `${jobId} %`)))
    .orderBy(desc(message.createdAt))
    .limit(1);
  return last && last.template !== 'cancelled' ? last : null;
}

/**
 * The slot that was agreed goes to an owner who likes e-mail, with an entry for a calendar; where another time was told before, that it
 * moved. The same time is told once.
 * @returns false where nobody is written to: the desk calls
 */
export async function tellSlot(scope: Scope, writing: Writing, slot: ToldSlot): Promise<boolean> {
  const before = await lastTold(scope, slot.jobId);
  if (before?.about.startsWith(`${slot.jobId} ${slot.startsAt.toISOString()}`)) return false;
  return inWorkshopsWay(scope, () => tell(scope, writing, slot, before ? 'moved' : 'slot', ''));
}

/** A slot that was told and is given up: its owner hears it, and the calendar forgets it. @returns false where nobody was told of it */
export async function tellCancelled(scope: Scope, writing: Writing, slot: ToldSlot, why: string): Promise<boolean> {
  if ((await lastTold(scope, slot.jobId)) === null) return false;
  return inWorkshopsWay(scope, () => tell(scope, writing, slot, 'cancelled', why));
}

async function tell(scope: Scope, writing: Writing, slot: ToldSlot, template: MessageTemplate, text: string): Promise<boolean> {
  const { systemId, jobId, startsAt, endsAt, version, timeZone } = slot;
  const [own] = await scope
    .select({
      channel: owner.channel,
      email: owner.email,
      phone: owner.phone,
      machine: system.name,
      workshop: workshop.name,
      contact: workshop.contact,
    }) // prettier-ignore
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(workshop, eq(workshop.id, system.workshopId))
    .where(eq(system.id, systemId));
  if (!own || !isWrittenTo(own)) return false;
  const when = (): string => longTime(startsAt.toISOString(), timeZone);
  const ready = (): string => longTime(endsAt.toISOString(), timeZone);
  const calendar = appointmentFile({
    jobId,
    version,
    at: writing.at,
    from: startsAt,
    machine: own.machine,
    workshop: own.workshop,
    address: own.contact.address,
    description: [`Ready by plan: ${ready()}`, own.contact.phone].filter(Boolean).join('\n'),
    cancelled: template === 'cancelled',
  });
  return write(scope, writing, {
    systemId,
    template,
    about: `${jobId} ${startsAt.toISOString()} ${version}`,
    when,
    ready: template === 'cancelled' ? '' : ready,
    text,
    calendar,
    jobId,
  });
}
