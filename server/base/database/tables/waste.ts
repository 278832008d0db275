import type { WasteKind } from '../../../../core/workshop/store/schema.js';
import { sql } from 'drizzle-orm';
import { check, date, doublePrecision, foreignKey, index, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { person, workshop } from './people.js';
import { owned, tenantWalls } from '../columns.js';
import { job } from './machines.js';

/** A labelled container for what came out of loops. Its level is the sum of what was poured in. */
export const wasteContainer = pgTable(
  'waste_container',
  {
    ...owned,
    label: text('label').notNull(),
    kind: text('kind').$type<WasteKind>().notNull(),
    capacityMl: doublePrecision('capacity_ml').notNull(),
    state: text('state').$type<'open' | 'handed-over'>().notNull().default('open'),
    handedOn: date('handed_on'),
    handedTo: text('handed_to').notNull().default(''),
    /** who drove it there; empty: the workshop itself */
    carrier: text('carrier').notNull().default(''),
    /** of the waste list that holds where the workshop is, as its paper names it */
    wasteCode: text('waste_code').notNull().default(''),
    documentNumber: text('document_number').notNull().default(''),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'waste_container_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    check('waste_kind_known', sql`kind in ('used-coolant', 'rinse-water', 'cleaner', 'mixed')`),
    check('waste_state_known', sql`state in ('open', 'handed-over')`),
    check('waste_capacity_positive', sql`capacity_ml > 0`),
    check('waste_handed_has_day', sql`(state = 'handed-over') = (handed_on is not null)`),
    ...tenantWalls('waste_container', t),
  ],
);

/** What went into a container, from which job; an entry that was taken back is a row with a minus. Never edited. */
export const wasteEntry = pgTable(
  'waste_entry',
  {
    ...owned,
    containerId: uuid('container_id').notNull(),
    jobId: uuid('job_id'),
    volumeMl: doublePrecision('volume_ml').notNull(),
    note: text('note').notNull().default(''),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({
      name: 'waste_entry_container_fk',
      columns: [t.workshopId, t.containerId],
      foreignColumns: [wasteContainer.workshopId, wasteContainer.id],
    }),
    foreignKey({ name: 'waste_entry_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'waste_entry_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('waste_entry_not_nothing', sql`volume_ml <> 0`),
    index('waste_entry_by_container').on(t.workshopId, t.containerId),
    index('waste_entry_by_job').on(t.workshopId, t.jobId),
    ...tenantWalls('waste_entry', t),
  ],
);
