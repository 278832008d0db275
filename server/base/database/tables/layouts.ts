import { sql } from 'drizzle-orm';
import { check, foreignKey, pgTable, text, uniqueIndex } from 'drizzle-orm/pg-core';
import { readStoredLoop } from '../../../../core/machine/loop-file/loopFile.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { workshop } from './people.js';

/** Loops that a workshop begins others with. */
export const loopLayout = pgTable(
  'loop_layout',
  {
    ...owned,
    name: text('name').notNull(),
    note: text('note').notNull().default(''),
    file: stored('file', readStoredLoop).notNull(),
    /** no longer offered; undo brings it back */
    goneAt: instant('gone_at'),
  },
  (t) => [
    foreignKey({ name: 'loop_layout_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    uniqueIndex('loop_layout_name_once')
      .on(t.workshopId, t.name)
      .where(sql`gone_at is null`),
    check('loop_layout_named', sql`length(trim(name)) > 0`),
    ...tenantWalls('loop_layout', t),
  ],
);
