import { sql } from 'drizzle-orm';
import { check, date, foreignKey, pgTable, text, uniqueIndex } from 'drizzle-orm/pg-core';
import type { ProcedureKind } from '../../../../core/bench/procedures/procedureKinds.js';
import { instant, owned, tenantWalls } from '../columns.js';
import { workshop } from './people.js';

/** What was missing once in the middle of a job: the kit of its kind asks for it from then on. */
export const kitLearned = pgTable(
  'kit_learned',
  {
    ...owned,
    kind: text('kind').$type<ProcedureKind>().notNull(),
    name: text('name').notNull(),
    /** the name as it is told apart: capitals do not count */
    key: text('key').notNull(),
    missedOn: date('missed_on').notNull(),
    /** no longer asked for; undo brings it back */
    goneAt: instant('gone_at'),
  },
  (t) => [
    foreignKey({ name: 'kit_learned_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
    uniqueIndex('kit_learned_once').on(t.workshopId, t.kind, t.key),
    check('kit_learned_named', sql`length(trim(name)) > 0`),
    ...tenantWalls('kit_learned', t),
  ],
);
