import { sql } from 'drizzle-orm';
import { check, date, foreignKey, index, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import type { FalloutStage } from '../../../../core/workshop/due-dates/facts.js';
import { instant, owned, tenantWalls } from '../columns.js';
import { loop } from './loops.js';
import { person } from './people.js';

/** What somebody saw of a suspension: how far its particles fell out, on a day. A wrong one is struck out. */
export const falloutLook = pgTable(
  'fallout_look',
  {
    ...owned,
    loopId: uuid('loop_id').notNull(),
    stage: text('stage').$type<FalloutStage>().notNull(),
    on: date('on_day').notNull(),
    note: text('note').notNull().default(''),
    personId: uuid('person_id').notNull(),
    struckAt: instant('struck_at'),
  },
  (t) => [
    foreignKey({ name: 'fallout_look_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    foreignKey({ name: 'fallout_look_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('fallout_look_stage_known', sql`stage in ('comes-back', 'stays', 'bits')`),
    index('fallout_look_by_loop').on(t.workshopId, t.loopId),
    ...tenantWalls('fallout_look', t),
  ],
);
