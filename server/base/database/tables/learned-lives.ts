import { sql } from 'drizzle-orm';
import { check, date, doublePrecision, foreignKey, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { readList, readObject } from '../../../../core/base/checking/stored.js';
import type { LifeGroup, LifeGroupBy } from '../../../../core/workshop/learned-lives/lifeGroups.js';
import { owned, stored, tenantWalls } from '../columns.js';
import { coolantLot } from './coolants.js';
import { workshop } from './people.js';

/** How long fills lasted here, a row a class, product, lot, tube and set of metals. Worked out anew as a whole; nothing refers to it. */
export const learnedLife = pgTable(
  'learned_life',
  {
    ...owned,
    by: text('by').$type<LifeGroupBy>().notNull(),
    key: text('key').notNull(),
    fills: integer('fills').notNull(),
    failed: integer('failed').notNull(),
    /** months at the workshop's risk, with the lower end of their interval; null: too few failed to tell */
    months: doublePrecision('months'),
    lowMonths: doublePrecision('low_months'),
    life: stored('life', readObject<LifeGroup>('how long fills lasted')).notNull(),
  },
  (t) => [
    foreignKey({ name: 'learned_life_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    check('learned_life_by_known', sql`by in ('class', 'product', 'lot', 'tube', 'metals')`),
    check('learned_life_months_whole', sql`(months is null) = (low_months is null)`),
    ...tenantWalls('learned_life', t),
  ],
);

/** A lot that fails earlier than all others of its kind: found by counting, kept once it was seen, with who was told. */
export const earlyLot = pgTable(
  'early_lot',
  {
    ...owned,
    /** of a coolant; null: it is of a part */
    lotId: uuid('lot_id'),
    /** what stands on the part's bag; empty for a coolant */
    make: text('make').notNull().default(''),
    lot: text('lot').notNull().default(''),
    seenOn: date('seen_on').notNull(),
    /** it does so no more, with what was found since; null: it does */
    overOn: date('over_on'),
    machines: integer('machines').notNull(),
    observed: integer('observed').notNull(),
    expected: doublePrecision('expected').notNull(),
    p: doublePrecision('p').notNull(),
    /** machines whose owners were told */
    told: stored('told', readList<string>('machines whose owners were told')).notNull().default([]),
  },
  (t) => [
    foreignKey({ name: 'early_lot_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    foreignKey({ name: 'early_lot_lot_fk', columns: [t.workshopId, t.lotId], foreignColumns: [coolantLot.workshopId, coolantLot.id] }),
    check('early_lot_is_one', sql`(lot_id is null) = (make <> '' and lot <> '')`),
    unique('early_lot_once').on(t.workshopId, t.lotId, t.make, t.lot).nullsNotDistinct(),
    ...tenantWalls('early_lot', t),
  ],
);
