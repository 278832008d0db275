import type { Scenario } from '../../../../core/bench/simulated-bench/truth.js';
import { readObject } from '../../../../core/base/checking/stored.js';
import { sql } from 'drizzle-orm';
import { bigint, check, foreignKey, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Debrief } from '../../../../core/bench/practice/debrief.js';
import type { BenchReport } from '../../../../core/bench/simulated-bench/report.js';
import { run } from './runs.js';
import { owned, stored, tenantWalls } from '../columns.js';

/** What belongs to a practice run alone: which fault was hidden, how far its clock was set ahead, and the debrief. */
export const practice = pgTable(
  'practice',
  {
    ...owned,
    runId: uuid('run_id').notNull(),
    scenario: text('scenario').$type<Scenario>().notNull(),
    seed: integer('seed').notNull(),
    aheadMs: bigint('ahead_ms', { mode: 'number' }).notNull().default(0),
    report: stored('report', readObject<BenchReport>('what a simulated bench kept')),
    debrief: stored('debrief', readObject<Debrief>('the debrief of a practice')),
  },
  (t) => [
    foreignKey({ name: 'practice_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    unique('practice_once').on(t.runId),
    check('practice_ahead_sane', sql`ahead_ms >= 0`),
    ...tenantWalls('practice', t),
  ],
);
