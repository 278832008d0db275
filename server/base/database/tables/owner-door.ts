import { readList, readObject } from '../../../../core/base/checking/stored.js';
import type { ReportFacts } from '../../../../core/edge/papers/reportPaper.js';
import type { Said } from '../../../../core/workshop/owner-door/said.js';
import { sql } from 'drizzle-orm';
import { boolean, check, foreignKey, index, integer, pgPolicy, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { bytes, doorRole, instant, owned, stored, tenantWalls } from '../columns.js';
import { job, owner, system } from './machines.js';
import { person } from './people.js';
import type { SlotStep } from './planning.js';
import { run } from './runs.js';

/** The hash of the secret that a visitor at the owner’s door holds; the door's role sees what hangs on it, and nothing else. */
const shownHash = sql`(select nullif(current_setting('lavacrum.door', true), ''))`;
/** the one link that a visitor can see, in the policies of other tables */
export const ofLink = {
  system: sql`(select system_id from owner_link)`,
  workshop: sql`(select workshop_id from owner_link)`,
} as const;

/** A secret address of an owner's page. Only the hash of its secret is kept. */
export const ownerLink = pgTable(
  'owner_link',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    /** null: whatever is done to the machine */
    jobId: uuid('job_id'),
    secretHash: text('secret_hash').notNull(),
    expiresAt: instant('expires_at').notNull(),
    endedAt: instant('ended_at'),
    /** opened last */
    seenAt: instant('seen_at'),
    /** null: a letter carried it */
    personId: uuid('person_id'),
  },
  (t) => [
    foreignKey({ name: 'owner_link_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'owner_link_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'owner_link_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('owner_link_secret_once').on(t.secretHash),
    index('owner_link_by_system').on(t.workshopId, t.systemId),
    pgPolicy('owner_link_door', { for: 'all', to: doorRole, using: sql`secret_hash = ${shownHash}` }),
    ...tenantWalls('owner_link', t),
  ],
);

/** What an owner said at the door. The desk answers it once. */
export const doorEntry = pgTable(
  'door_entry',
  {
    /** made on the owner's device */
    ...owned,
    linkId: uuid('link_id').notNull(),
    systemId: uuid('system_id').notNull(),
    jobId: uuid('job_id'),
    said: stored('said', readObject<Said>('what an owner said')).notNull(),
    answeredAt: instant('answered_at'),
    answeredBy: uuid('answered_by'),
    taken: boolean('taken'),
    /** to the owner */
    answer: text('answer').notNull().default(''),
  },
  (t) => [
    foreignKey({ name: 'door_entry_link_fk', columns: [t.workshopId, t.linkId], foreignColumns: [ownerLink.workshopId, ownerLink.id] }),
    foreignKey({ name: 'door_entry_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'door_entry_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'door_entry_person_fk', columns: [t.workshopId, t.answeredBy], foreignColumns: [person.workshopId, person.id] }),
    check('door_entry_answered_whole', sql`(answered_at is null) = (answered_by is null) and (answered_at is null) = (taken is null)`),
    index('door_entry_by_system').on(t.workshopId, t.systemId),
    index('door_entry_unread')
      .on(t.workshopId, t.createdAt)
      .where(sql`answered_at is null`),
    pgPolicy('door_entry_door', {
      for: 'all',
      to: doorRole,
      using: sql`link_id = (select id from owner_link)`,
      withCheck: sql`link_id = (select id from owner_link) and system_id = ${ofLink.system} and workshop_id = ${ofLink.workshop} and answered_at is null`,
    }),
    ...tenantWalls('door_entry', t),
  ],
);

/** A picture or table that came with it. A visitor can leave one, and read none. */
export const doorFile = pgTable(
  'door_file',
  {
    ...owned,
    entryId: uuid('entry_id').notNull(),
    mediaType: text('media_type').notNull(),
    content: bytes('content').notNull(),
  },
  (t) => [
    foreignKey({ name: 'door_file_entry_fk', columns: [t.workshopId, t.entryId], foreignColumns: [doorEntry.workshopId, doorEntry.id] }),
    unique('door_file_once').on(t.entryId),
    check('door_file_type_known', sql`media_type in ('image/jpeg', 'text/csv')`),
    pgPolicy('door_file_door', {
      for: 'insert',
      to: doorRole,
      withCheck: sql`workshop_id = ${ofLink.workshop} and entry_id in (select id from door_entry)`,
    }),
    ...tenantWalls('door_file', t),
  ],
);

/** A slot that was offered to an owner, until one is agreed or another is offered. */
export const slotOffer = pgTable(
  'slot_offer',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    jobId: uuid('job_id').notNull(),
    benchId: uuid('bench_id').notNull(),
    startsAt: instant('starts_at').notNull(),
    endsAt: instant('ends_at').notNull(),
    steps: stored('steps', readList<SlotStep>('the steps of an offered slot')).notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'slot_offer_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'slot_offer_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'slot_offer_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('slot_offer_once').on(t.jobId, t.startsAt),
    check('slot_offer_in_order', sql`starts_at < ends_at`),
    pgPolicy('slot_offer_door', { for: 'select', to: doorRole, using: sql`job_id in (select id from job)` }),
    ...tenantWalls('slot_offer', t),
  ],
);

/** The report of a run as its owner keeps it: made when the run is signed off, from what was then. */
export const ownerReport = pgTable(
  'owner_report',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    /** whose the machine was then: who has it later reads what is done from then on */
    ownerId: uuid('owner_id').notNull(),
    runId: uuid('run_id').notNull(),
    /** counts up for each machine: what an address of the door names it by */
    number: integer('number').notNull(),
    facts: stored('facts', readObject<ReportFacts>('the facts of a report')).notNull(),
    /** pictures that stand in it: a visitor sees these, and no others */
    photoIds: uuid('photo_ids').array().notNull().default([]),
  },
  (t) => [
    foreignKey({ name: 'owner_report_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'owner_report_owner_fk', columns: [t.workshopId, t.ownerId], foreignColumns: [owner.workshopId, owner.id] }),
    foreignKey({ name: 'owner_report_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    unique('owner_report_run_once').on(t.runId),
    unique('owner_report_number_once').on(t.systemId, t.number),
    pgPolicy('owner_report_door', {
      for: 'select',
      to: doorRole,
      using: sql`system_id = ${ofLink.system} and owner_id = (select owner_id from system)`,
    }),
    ...tenantWalls('owner_report', t),
  ],
);
