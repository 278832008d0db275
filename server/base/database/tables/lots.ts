import { sql } from 'drizzle-orm';
import { check, date, foreignKey, index, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { owned, tenantWalls } from '../columns.js';
import { loop } from './loops.js';
import { job, system } from './machines.js';

/** A part of a known make and lot that was fitted to a machine: what is looked for when one of its lot fails. */
export const fittedPart = pgTable(
  'fitted_part',
  {
    ...owned,
    systemId: uuid('system_id').notNull(),
    loopId: uuid('loop_id').notNull(),
    /** component, plug or run of the loop; null where it is no part of the drawing */
    itemId: text('item_id'),
    /** what it is, as its bag or box says */
    make: text('make').notNull(),
    lot: text('lot').notNull(),
    fittedOn: date('fitted_on').notNull(),
    jobId: uuid('job_id'),
    goneOn: date('gone_on'),
  },
  (t) => [
    foreignKey({ name: 'fitted_part_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'fitted_part_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    foreignKey({ name: 'fitted_part_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    check('fitted_part_named', sql`length(trim(make)) > 0 and length(trim(lot)) > 0`),
    check('fitted_part_days_in_order', sql`gone_on is null or gone_on >= fitted_on`),
    index('fitted_part_by_lot').on(t.workshopId, t.make, t.lot),
    index('fitted_part_by_system').on(t.workshopId, t.systemId),
    index('fitted_part_by_loop').on(t.workshopId, t.loopId),
    ...tenantWalls('fitted_part', t),
  ],
);
