import { sql } from 'drizzle-orm';
import type { MessageWay } from '../../../../core/workshop/messages/templates.js';
import { boolean, check, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { person, workshop } from './people.js';
import { instant, owned, tenantWalls } from '../columns.js';
import { job, owner, system } from './machines.js';

/** A message to an owner, made from a template: written here first, sent by the mail work. */
export const message = pgTable(
  'message',
  {
    ...owned,
    ownerId: uuid('owner_id').notNull(),
    systemId: uuid('system_id').notNull(),
    template: text('template').notNull(),
    /** what it is about, so that the same thing is told once: a due item with its date, a job */
    about: text('about').notNull(),
    /** by e-mail, or as a short text to a telephone */
    way: text('way').$type<MessageWay>().notNull().default('email'),
    /** an e-mail address or a number */
    address: text('address').notNull(),
    subject: text('subject').notNull(),
    body: text('body').notNull(),
    /** an appointment for the owner's calendar (iCalendar); null: none goes with it */
    calendar: text('calendar'),
    /** a link to the owner's page goes with it; its secret is made as the letter leaves */
    hasLink: boolean('has_link').notNull().default(false),
    /** of that link; null: of the machine */
    jobId: uuid('job_id'),
    state: text('state').$type<'waiting' | 'sent' | 'failed'>().notNull().default('waiting'),
    attempts: integer('attempts').notNull().default(0),
    problem: text('problem').notNull().default(''),
    sentAt: instant('sent_at'),
    /** null: the nightly work wrote it */
    personId: uuid('person_id'),
  },
  (t) => [
    foreignKey({ name: 'message_owner_fk', columns: [t.workshopId, t.ownerId], foreignColumns: [owner.workshopId, owner.id] }),
    foreignKey({ name: 'message_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'message_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'message_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('message_once').on(t.workshopId, t.template, t.about),
    check(
      'message_template_known',
      sql`template in ('due-soon', 'ready', 'parts-late', 'slot', 'moved', 'cancelled', 'missed', 'limit', 'risk', 'lot', 'estimate', 'larger', 'offers', 'level')`,
    ),
    check('message_way_known', sql`way in ('email', 'text')`),
    check('message_state_known', sql`state in ('waiting', 'sent', 'failed')`),
    check('message_sent_has_instant', sql`(state = 'sent') = (sent_at is not null)`),
    index('message_waiting').on(t.workshopId, t.state),
    index('message_by_system').on(t.workshopId, t.systemId),
    index('message_by_owner').on(t.workshopId, t.ownerId),
    ...tenantWalls('message', t),
  ],
);

/** What the mail stand-in took: a mailbox of its own, so that nothing leaves the machine. */
export const standInMail = pgTable(
  'stand_in_mail',
  {
    ...owned,
    sender: text('sender').notNull(),
    recipient: text('recipient').notNull(),
    subject: text('subject').notNull(),
    text: text('text').notNull(),
    way: text('way').$type<MessageWay>().notNull().default('email'),
    /** for its reader alone: a link for a new password */
    isPrivate: boolean('is_private').notNull().default(false),
    /** names of what was attached */
    attached: text('attached').notNull().default(''),
  },
  (t) => [
    foreignKey({ name: 'stand_in_mail_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    ...tenantWalls('stand_in_mail', t),
  ],
);
