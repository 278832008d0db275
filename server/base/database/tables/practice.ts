import { sql } from 'drizzle-orm';
import { bigint, check, foreignKey, integer, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Debrief } from '../../../../core/bench/practice/debrief.js';
import type { BenchReport } from '../../../../core/bench/simulated-bench/report.js';
import { run } from './runs.js';
import { owned, tenantWalls } from '../columns.js';

/** What belongs to a practice run alone: which fault was hidden, how far its clock was set ahead, and the debrief. */
export const practice = pgTable(
  'practice',
  {
    ...owned,
    runId: uuid('run_id').notNull(),
    scenario: text('scenario').notNull(),
    seed: integer('seed').notNull(),
    aheadMs: bigint('ahead_ms', { mode: 'number' }).notNull().default(0),
    report: jsonb('report').$type<BenchReport>(),
    debrief: jsonb('debrief').$type<Debrief>(),
  },
  (t) => [
    foreignKey({ name: 'practice_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    unique('practice_once').on(t.runId),
    check('practice_ahead_sane', sql`ahead_ms >= 0`),
    ...tenantWalls('practice', t),
  ],
);
