import type { CoolantClass } from '../../../../core/machine/liquids/classes.js';
import { sql } from 'drizzle-orm';
import { check, date, doublePrecision, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { importBatch } from './importing.js';
import { person, workshop } from './people.js';
import type { Metal } from '../../../../core/machine/materials/metals.js';
import type { Glycol } from '../../../../core/machine/liquids/fluids.js';
import type { Moved, SheetLife } from '../../../../core/workshop/coolants/answers.js';
import { readList, readObject } from '../../../../core/base/checking/stored.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';

export const coolantProduct = pgTable(
  'coolant_product',
  {
    ...owned,
    name: text('name').notNull(),
    coolantClass: text('coolant_class').$type<CoolantClass>().notNull(),
    /** the liquid's own colour, #rrggbb */
    colour: text('colour').notNull(),
    form: text('form').$type<'ready-mix' | 'concentrate'>().notNull(),
    targetFraction: doublePrecision('target_fraction'),
    bottleMl: doublePrecision('bottle_ml').notNull(),
    /** minor units for a litre of the bottle; null: no price */
    priceMinor: integer('price_minor'),
    sheetLifeMonths: doublePrecision('sheet_life_months'),
    /** running hours that its sheet states; null: none */
    sheetLifeHours: doublePrecision('sheet_life_hours'),
    version: integer('version').notNull().default(1),
    importId: uuid('import_id'),
    /** metals that its sheet suits; null: it names none, or nobody looked */
    metals: text('metals').array().$type<Metal[]>(),
    /** inhibitor package as its sheet names it; empty: not known */
    inhibitor: text('inhibitor').notNull().default(''),
    /** volume fraction of base that the sheet asks for at least; null where it states none */
    leastFraction: doublePrecision('least_fraction'),
    /** bottles at which more is ordered */
    reorderBottles: doublePrecision('reorder_bottles').notNull().default(0),
    /** 'ethylene' or 'propylene'; null for water with additives */
    glycol: text('glycol').$type<Glycol>(),
    /** mass fraction in the finished coolant */
    glycolFraction: doublePrecision('glycol_fraction'),
  },
  (t) => [
    foreignKey({ name: 'coolant_product_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    foreignKey({
      name: 'coolant_product_import_fk',
      columns: [t.workshopId, t.importId],
      foreignColumns: [importBatch.workshopId, importBatch.id],
    }),
    unique('coolant_product_name_once').on(t.workshopId, t.name),
    check('coolant_class_known', sql`coolant_class in ('show', 'opaque', 'clear', 'biocide')`),
    check('coolant_form_known', sql`form in ('ready-mix', 'concentrate')`),
    check('coolant_fraction_sane', sql`target_fraction > 0 and target_fraction <= 1`),
    check('coolant_concentrate_has_target', sql`form <> 'concentrate' or target_fraction is not null`),
    check('coolant_price_sane', sql`price_minor >= 0`),
    check('coolant_bottle_positive', sql`bottle_ml > 0`),
    check('coolant_life_positive', sql`sheet_life_months > 0 and sheet_life_hours > 0`),
    check('coolant_glycol_whole', sql`(glycol is null) = (glycol_fraction is null)`),
    check('coolant_glycol_known', sql`glycol in ('ethylene', 'propylene') and glycol_fraction > 0 and glycol_fraction <= 0.6`),
    ...tenantWalls('coolant_product', t),
  ],
);

export const coolantLot = pgTable(
  'coolant_lot',
  {
    ...owned,
    productId: uuid('product_id').notNull(),
    lot: text('lot').notNull(),
    openedOn: date('opened_on'),
    /** day to which the opened bottle keeps; null where nobody wrote it down */
    keepsUntil: date('keeps_until'),
    /** mL on the shelf; null where nobody counts this lot */
    stockMl: doublePrecision('stock_ml'),
    /** where the labelled sample of this lot stands; empty: none kept */
    samplePlace: text('sample_place').notNull().default(''),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({
      name: 'coolant_lot_product_fk',
      columns: [t.workshopId, t.productId],
      foreignColumns: [coolantProduct.workshopId, coolantProduct.id],
    }),
    check('coolant_lot_stock_sane', sql`stock_ml >= 0`),
    unique('coolant_lot_once').on(t.workshopId, t.productId, t.lot),
    ...tenantWalls('coolant_lot', t),
  ],
);

/** What a run's entry took from a counted lot, and what came back when it was taken back. Never edited. */
export const coolantMove = pgTable(
  'coolant_move',
  {
    ...owned,
    lotId: uuid('lot_id').notNull(),
    /** the pour that moved it */
    eventId: uuid('event_id').notNull(),
    /** mL; negative off the shelf, at most what was counted there */
    changeMl: doublePrecision('change_ml').notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({
      name: 'coolant_move_lot_fk',
      columns: [t.workshopId, t.lotId],
      foreignColumns: [coolantLot.workshopId, coolantLot.id],
    }),
    foreignKey({ name: 'coolant_move_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    index('coolant_move_by_event').on(t.workshopId, t.eventId),
    index('coolant_move_by_lot').on(t.workshopId, t.lotId),
    ...tenantWalls('coolant_move', t),
  ],
);

/** A limit that was changed after loops were filled: what it was, what it is, whose dates moved and who heard of it. */
export const limitChange = pgTable(
  'limit_change',
  {
    ...owned,
    productId: uuid('product_id').notNull(),
    personId: uuid('person_id').notNull(),
    /** version of the product that was changed: tells the newest change, however close two of them lie in time */
    productVersion: integer('product_version').notNull(),
    before: stored('before', readObject<SheetLife>('a coolant’s limit')).notNull(),
    after: stored('after', readObject<SheetLife>('a coolant’s limit')).notNull(),
    moved: stored('moved', readList<Moved>('dates that moved')).notNull(),
    /** ids of the dates whose owners were told */
    told: stored('told', readList<string>('owners who were told')).notNull().default([]),
    undoneAt: instant('undone_at'),
  },
  (t) => [
    foreignKey({
      name: 'limit_change_product_fk',
      columns: [t.workshopId, t.productId],
      foreignColumns: [coolantProduct.workshopId, coolantProduct.id],
    }),
    foreignKey({ name: 'limit_change_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('limit_change_version_once').on(t.workshopId, t.productId, t.productVersion),
    ...tenantWalls('limit_change', t),
  ],
);
