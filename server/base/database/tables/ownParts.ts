import { sql } from 'drizzle-orm';
import { check, doublePrecision, foreignKey, integer, pgTable, text, uniqueIndex } from 'drizzle-orm/pg-core';
import { readObject } from '../../../../core/base/checking/stored.js';
import type { OwnGeometry, SheetFacts } from '../../../../core/machine/catalogue/ownParts.js';
import { workshop } from './people.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';

/** Parts that a workshop keeps beside the general ones. */
export const ownPart = pgTable(
  'own_part',
  {
    ...owned,
    label: text('label').notNull(),
    /** key of the general part it is like */
    like: text('like_key').notNull(),
    volumeMl: doublePrecision('volume_ml').notNull(),
    volumeSdMl: doublePrecision('volume_sd_ml'),
    facts: stored('facts', readObject<SheetFacts>('what a part’s sheet says')).notNull(),
    geometry: stored('geometry', readObject<OwnGeometry>('the shape of a part')),
    version: integer('version').notNull().default(1),
    /** no longer offered: its papers and the loops that hold it stay */
    goneAt: instant('gone_at'),
  },
  (t) => [
    foreignKey({ name: 'own_part_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    uniqueIndex('own_part_label_once')
      .on(t.workshopId, t.label)
      .where(sql`gone_at is null`),
    check('own_part_volume', sql`volume_ml >= 0 and (volume_sd_ml is null or volume_sd_ml >= 0)`),
    ...tenantWalls('own_part', t),
  ],
);
