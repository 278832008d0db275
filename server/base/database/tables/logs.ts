import { sql } from 'drizzle-orm';
import { check, date, doublePrecision, foreignKey, index, pgTable, text, unique, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { readObject } from '../../../../core/base/checking/stored.js';
import type { LoadReading } from '../../../../core/physics/diagnosis/loadReading.js';
import { HEAT_CAUSES, type HeatCause } from '../../../../core/physics/diagnosis/causes.js';
import type { HandMark } from '../../../../core/workshop/marks/schema.js';
import type { LogColumns } from '../../../../core/workshop/logs/columns.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { loop } from './loops.js';
import { job, system } from './machines.js';
import { person } from './people.js';
import { usageReading } from './usage.js';

/** What a machine showed under load between two services: read by hand, or found in a log. A wrong one is struck out, never changed. */
export const loadReading = pgTable(
  'load_reading',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    /** the log that it was found in; null: somebody read it */
    logId: uuid('log_id'),
    readOn: date('read_on').notNull(),
    takenAt: instant('taken_at').notNull(),
    reading: stored('reading', readObject<LoadReading>('a reading under load')).notNull(),
    personId: uuid('person_id').notNull(),
    struckAt: instant('struck_at'),
  },
  (t) => [
    foreignKey({ name: 'load_reading_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({
      name: 'load_reading_log_fk',
      columns: [t.workshopId, t.logId],
      foreignColumns: [usageReading.workshopId, usageReading.id],
    }),
    foreignKey({ name: 'load_reading_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    // two logs of the same days bring each day once
    uniqueIndex('load_reading_day_once')
      .on(t.workshopId, t.systemId, t.readOn)
      .where(sql`log_id is not null and struck_at is null`),
    index('load_reading_by_system').on(t.workshopId, t.systemId, t.readOn),
    ...tenantWalls('load_reading', t),
  ],
);

/** How the columns of a machine's log were read last. */
export const logColumns = pgTable(
  'log_columns',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    columns: stored('columns', readObject<LogColumns>('columns of a log')).notNull(),
    name: text('name').notNull(),
  },
  (t) => [
    foreignKey({ name: 'log_columns_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    unique('log_columns_once').on(t.workshopId, t.systemId),
    check('log_columns_name_given', sql`length(trim(name)) > 0`),
    ...tenantWalls('log_columns', t),
  ],
);

/** Something that hands did to a part and that moves its readings: new paste, another part. A wrong one is struck out. */
export const machineMark = pgTable(
  'machine_mark',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    kind: text('kind').$type<HandMark>().notNull(),
    /** component of the drawing; null: all blocks */
    part: text('part'),
    doneOn: date('done_on').notNull(),
    personId: uuid('person_id').notNull(),
    /** the service that did it; null: somebody wrote it down */
    jobId: uuid('job_id'),
    struckAt: instant('struck_at'),
  },
  (t) => [
    foreignKey({ name: 'machine_mark_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'machine_mark_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    foreignKey({ name: 'machine_mark_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    check('machine_mark_kind_known', sql`kind in ('paste', 'part')`),
    index('machine_mark_by_system').on(t.workshopId, t.systemId),
    ...tenantWalls('machine_mark', t),
  ],
);

/** What was found to be the matter with a machine that ran worse. It moves what is thought likely of the next. */
export const confirmedCause = pgTable(
  'confirmed_cause',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    cause: text('cause').$type<HeatCause>().notNull(),
    part: text('part'),
    foundOn: date('found_on').notNull(),
    personId: uuid('person_id').notNull(),
    struckAt: instant('struck_at'),
  },
  (t) => [
    foreignKey({ name: 'confirmed_cause_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'confirmed_cause_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('confirmed_cause_known', sql`cause in (${sql.raw(HEAT_CAUSES.map((cause) => `'${cause}'`).join(', '))})`),
    index('confirmed_cause_by_system').on(t.workshopId, t.systemId),
    ...tenantWalls('confirmed_cause', t),
  ],
);

/** A level against its mark between two fills, read by hand. A wrong one is struck out. */
export const levelReading = pgTable(
  'level_reading',
  {
    ...owned,
    loopId: uuid('loop_id').notNull(),
    readOn: date('read_on').notNull(),
    /** mm above the mark; negative below */
    levelMm: doublePrecision('level_mm').notNull(),
    personId: uuid('person_id').notNull(),
    struckAt: instant('struck_at'),
  },
  (t) => [
    foreignKey({ name: 'level_reading_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    foreignKey({ name: 'level_reading_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('level_reading_sane', sql`level_mm between -500 and 500`),
    index('level_reading_by_loop').on(t.workshopId, t.loopId),
    ...tenantWalls('level_reading', t),
  ],
);
