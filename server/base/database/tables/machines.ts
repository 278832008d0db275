import type { Reading } from '../../../../core/base/units/reading.js';
import type { BookedKind } from '../../../../core/workshop/job-kinds/kinds.js';
import type { SystemState } from '../../../../core/workshop/due-dates/attention.js';
import { readObject } from '../../../../core/base/checking/stored.js';
import { readFinding } from '../../../../core/workshop/due-dates/facts.js';
import { sql } from 'drizzle-orm';
import { boolean, check, date, doublePrecision, foreignKey, index, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import type { ElectricalSheet } from '../../../../core/machine/electrical/sheet.js';
import type { KeptSetting } from '../../../../core/workshop/marks/schema.js';
import type { ConditionClock, DustPlace } from '../../../../core/workshop/due-dates/facts.js';
import { importBatch } from './importing.js';
import { person, workshop } from './people.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';

export const owner = pgTable(
  'owner',
  {
    ...owned,
    name: text('name').notNull(),
    email: text('email'),
    phone: text('phone'),
    channel: text('channel').$type<'phone' | 'email' | 'text'>().notNull(),
    /** nobody: who the machine of the course belongs to; no list of owners shows it */
    forCourse: boolean('for_course').notNull().default(false),
    importId: uuid('import_id'),
    note: text('note').notNull().default(''),
    /** how letters and the owner's page are read, where it is not the workshop's way */
    reading: stored('reading', readObject<Partial<Reading>>('how an owner reads')).notNull().default({}),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'owner_import_fk', columns: [t.workshopId, t.importId], foreignColumns: [importBatch.workshopId, importBatch.id] }),
    foreignKey({ name: 'owner_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    check('owner_name_given', sql`length(trim(name)) > 0`),
    check('owner_channel_known', sql`channel in ('phone', 'email', 'text')`),
    ...tenantWalls('owner', t),
  ],
);

export const system = pgTable(
  'system',
  {
    ...owned,
    ownerId: uuid('owner_id').notNull(),
    name: text('name').notNull(),
    /** serial number or label; empty: none */
    tag: text('tag').notNull().default(''),
    /** the import that brought it; null: typed here */
    importId: uuid('import_id'),
    caseText: text('case_text').notNull().default(''),
    builtBy: text('built_by').notNull().default(''),
    state: text('state').$type<SystemState>().notNull().default('planned'),
    /** to try things with; taken back like an import */
    isSample: boolean('is_sample').notNull().default(false),
    /** no machine: what lessons of the course are led on; no list of machines shows it */
    forCourse: boolean('for_course').notNull().default(false),
    hoursPerDay: doublePrecision('hours_per_day'),
    /** mean coolant temperature by its owner, °C */
    coolantC: doublePrecision('coolant_c'),
    /** where it stands, which decides how fast it takes dust */
    dustPlace: text('dust_place').$type<DustPlace>().notNull().default('usual'),
    /** when its readings say that it must come in, worked out anew with every reading; null: they do not say */
    condition: stored('condition', readObject<ConditionClock>('what readings say of a machine')),
    note: text('note').notNull().default(''),
    /** pump and fans as they were left after two settings were held against each other; null: nobody chose */
    keptSetting: stored('kept_setting', readObject<KeptSetting>('a setting that is kept')),
    /** what hangs on what, by name; null: nobody wrote it down */
    electrical: stored('electrical', readObject<ElectricalSheet>('what hangs on what in a machine')),
    /** how often that was written down */
    electricalVersion: integer('electrical_version').notNull().default(0),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'system_owner_fk', columns: [t.workshopId, t.ownerId], foreignColumns: [owner.workshopId, owner.id] }),
    check('system_name_given', sql`length(trim(name)) > 0`),
    check('system_state_known', sql`state in ('planned', 'on-bench', 'waiting', 'in-service', 'retired')`),
    check('system_hours_sane', sql`hours_per_day >= 0 and hours_per_day <= 24`),
    check('system_coolant_sane', sql`coolant_c >= 0 and coolant_c <= 90`),
    check('system_dust_place_known', sql`dust_place in ('clean', 'usual', 'dusty')`),
    foreignKey({ name: 'system_import_fk', columns: [t.workshopId, t.importId], foreignColumns: [importBatch.workshopId, importBatch.id] }),
    index('system_by_owner').on(t.workshopId, t.ownerId),
    ...tenantWalls('system', t),
  ],
);

/** A piece of work on a system: a commissioning or service that is led by a run, or a service recorded afterwards. */
export const job = pgTable(
  'job',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    kind: text('kind').$type<BookedKind | 'settling-check' | 'unit-test'>().notNull(),
    state: text('state').$type<'booked' | 'active' | 'waiting' | 'done' | 'cancelled'>().notNull(),
    doneOn: date('done_on'),
    note: text('note').notNull().default(''),
    personId: uuid('person_id').notNull(),
    /** who did it where that was nobody of this workshop's people; empty: the person */
    doneBy: text('done_by').notNull().default(''),
    importId: uuid('import_id'),
  },
  (t) => [
    foreignKey({ name: 'job_import_fk', columns: [t.workshopId, t.importId], foreignColumns: [importBatch.workshopId, importBatch.id] }),
    foreignKey({ name: 'job_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'job_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check(
      'job_kind_known',
      sql`kind in ('commissioning', 'drain-refill', 'flush-refill', 'strip-clean', 'leak-repair', 'top-up', 'closed-loop', 'partial-drain', 'part-replacement', 'loop-change', 'part-conversion', 'into-loop', 'conversion', 'retirement', 'settling-check', 'unit-test')`,
    ),
    check('job_state_known', sql`state in ('booked', 'active', 'waiting', 'done', 'cancelled')`),
    check('job_done_has_day', sql`state <> 'done' or done_on is not null`),
    index('job_by_system').on(t.workshopId, t.systemId),
    index('job_open')
      .on(t.workshopId, t.state)
      .where(sql`state in ('booked', 'waiting', 'active')`),
    ...tenantWalls('job', t),
  ],
);

export const finding = pgTable(
  'finding',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    jobId: uuid('job_id'),
    fact: stored('fact', readFinding).notNull(),
    /** the fact in words as they were when it was found: for searching alone */
    text: text('text').notNull(),
    severity: text('severity').$type<'note' | 'watch' | 'failure'>().notNull().default('note'),
    foundAt: instant('found_at').notNull().defaultNow(),
  },
  (t) => [
    foreignKey({ name: 'finding_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'finding_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    check('finding_severity_known', sql`severity in ('note', 'watch', 'failure')`),
    check('finding_text_given', sql`length(trim(text)) > 0`),
    index('finding_by_system').on(t.workshopId, t.systemId),
    ...tenantWalls('finding', t),
  ],
);
