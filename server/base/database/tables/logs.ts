import { sql } from 'drizzle-orm';
import { check, date, foreignKey, index, pgTable, text, unique, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { readObject } from '../../../../core/base/checking/stored.js';
import type { LoadReading } from '../../../../core/physics/diagnosis/loadReading.js';
import type { LogColumns } from '../../../../core/workshop/logs/columns.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { system } from './machines.js';
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
