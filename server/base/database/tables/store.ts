import type { ItemKind, KeptKind, StoreUnit } from '../../../../core/workshop/store/schema.js';
import { sql } from 'drizzle-orm';
import { check, date, doublePrecision, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { person, workshop } from './people.js';
import { owned, tenantWalls } from '../columns.js';
import { job, system } from './machines.js';

/** A counted thing on the shelf: O-rings of one size, tube by the metre, plugs, screws. Coolants have lots of their own. */
export const storeItem = pgTable(
  'store_item',
  {
    ...owned,
    name: text('name').notNull(),
    kind: text('kind').$type<ItemKind>().notNull(),
    unit: text('unit').$type<StoreUnit>().notNull(),
    lot: text('lot').notNull().default(''),
    count: doublePrecision('count').notNull(),
    reorderAt: doublePrecision('reorder_at').notNull().default(0),
    /** minor units for a piece, a metre, a litre, 100 g; null: no price */
    priceMinor: integer('price_minor'),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'store_item_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    unique('store_item_once').on(t.workshopId, t.name, t.lot),
    check('store_item_kind_known', sql`kind in ('seal', 'tube', 'plug', 'screw', 'fitting', 'part', 'paste', 'cleaner', 'water', 'other')`),
    check('store_item_price_sane', sql`price_minor >= 0`),
    check('store_item_unit_known', sql`unit in ('pcs', 'm', 'mL', 'g')`),
    ...tenantWalls('store_item', t),
  ],
);

/** What came onto the shelf or left it, and for which job. Never edited. */
export const storeMove = pgTable(
  'store_move',
  {
    ...owned,
    itemId: uuid('item_id').notNull(),
    change: doublePrecision('change').notNull(),
    jobId: uuid('job_id'),
    reason: text('reason').notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'store_move_item_fk', columns: [t.workshopId, t.itemId], foreignColumns: [storeItem.workshopId, storeItem.id] }),
    foreignKey({ name: 'store_move_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'store_move_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('store_move_not_nothing', sql`change <> 0`),
    index('store_move_by_item').on(t.workshopId, t.itemId),
    index('store_move_by_job').on(t.workshopId, t.jobId),
    ...tenantWalls('store_move', t),
  ],
);

/** A part that lies in the workshop, is lent out, or is a loan machine: where, and until when. */
export const keptPart = pgTable(
  'kept_part',
  {
    ...owned,
    name: text('name').notNull(),
    kind: text('kind').$type<KeptKind>().notNull(),
    /** the machine it came out of */
    systemId: uuid('system_id'),
    jobId: uuid('job_id'),
    place: text('place').notNull().default(''),
    condition: text('condition').notNull().default(''),
    /** mL inside a part that was capped full */
    heldMl: doublePrecision('held_ml').notNull().default(0),
    /** day since which it is wet inside; null: dry, or nothing that liquid was in */
    wetOn: date('wet_on'),
    lentTo: text('lent_to').notNull().default(''),
    /** day to decide what becomes of it, or to have it back */
    untilDay: date('until_day'),
    goneOn: date('gone_on'),
    goneWhere: text('gone_where').notNull().default(''),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'kept_part_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    foreignKey({ name: 'kept_part_system_fk', columns: [t.workshopId, t.systemId], foreignColumns: [system.workshopId, system.id] }),
    foreignKey({ name: 'kept_part_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    check('kept_part_kind_known', sql`kind in ('removed', 'lent', 'loan-machine')`),
    check('kept_part_held_sane', sql`held_ml >= 0`),
    index('kept_part_by_system').on(t.workshopId, t.systemId),
    ...tenantWalls('kept_part', t),
  ],
);
