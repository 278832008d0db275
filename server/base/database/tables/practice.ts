import type { Scenario } from '../../../../core/bench/simulated-bench/truth.js';
import { readObject } from '../../../../core/base/checking/stored.js';
import { sql } from 'drizzle-orm';
import { bigint, check, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Debrief } from '../../../../core/bench/practice/debrief.js';
import type { BenchReport } from '../../../../core/bench/simulated-bench/report.js';
import type { LessonKey } from '../../../../core/bench/course/course.js';
import { person } from './people.js';
import { run } from './runs.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';

/** What belongs to a practice run alone: which fault was hidden, how far its clock was set ahead, and the debrief. */
export const practice = pgTable(
  'practice',
  {
    ...owned,
    runId: uuid('run_id').notNull(),
    scenario: text('scenario').$type<Scenario>().notNull(),
    seed: integer('seed').notNull(),
    /** of the course, taken by whom; null: a practice of one's own */
    lesson: text('lesson').$type<LessonKey>(),
    personId: uuid('person_id'),
    endedAt: instant('ended_at'),
    aheadMs: bigint('ahead_ms', { mode: 'number' }).notNull().default(0),
    report: stored('report', readObject<BenchReport>('what a simulated bench kept')),
    debrief: stored('debrief', readObject<Debrief>('the debrief of a practice')),
  },
  (t) => [
    foreignKey({ name: 'practice_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    unique('practice_once').on(t.runId),
    foreignKey({ name: 'practice_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('practice_lesson_of_somebody', sql`lesson is null or person_id is not null`),
    index('practice_by_person').on(t.workshopId, t.personId),
    check('practice_ahead_sane', sql`ahead_ms >= 0`),
    ...tenantWalls('practice', t),
  ],
);
