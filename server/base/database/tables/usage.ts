import { sql } from 'drizzle-orm';
import { check, date, doublePrecision, foreignKey, index, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { importBatch } from './importing.js';
import { person } from './people.js';
import { instant, owned, tenantWalls } from '../columns.js';
import { system } from './machines.js';

/** What an hour meter showed, or what a log of the machine comes to. A wrong one is struck out, never changed. */
export const usageReading = pgTable(
  'usage_reading',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    source: text('source').$type<'meter' | 'log'>().notNull(),
    /** first day of a log; null for a meter */
    fromOn: date('from_on'),
    readOn: date('read_on').notNull(),
    hours: doublePrecision('hours').notNull(),
    meanCoolantC: doublePrecision('mean_coolant_c'),
    note: text('note').notNull().default(''),
    personId: uuid('person_id').notNull(),
    struckAt: instant('struck_at'),
    importId: uuid('import_id'),
  },
  (t) => [
    foreignKey({ name: 'usage_reading_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({
      name: 'usage_reading_import_fk',
      columns: [t.workshopId, t.importId],
      foreignColumns: [importBatch.workshopId, importBatch.id],
    }),
    foreignKey({ name: 'usage_reading_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('usage_reading_source_known', sql`source in ('meter', 'log')`),
    check('usage_reading_log_has_days', sql`(source = 'log') = (from_on is not null) and (from_on is null or from_on <= read_on)`),
    check('usage_reading_hours_sane', sql`hours >= 0 and hours <= 200000`),
    index('usage_reading_by_system').on(t.workshopId, t.systemId),
    ...tenantWalls('usage_reading', t),
  ],
);
