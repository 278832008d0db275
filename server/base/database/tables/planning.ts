import type { AbsenceWhy, DayPart } from '../../../../core/workshop/planning/shifts.js';
import { readList } from '../../../../core/base/checking/stored.js';
import { sql } from 'drizzle-orm';
import { boolean, check, date, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { KitKind } from '../../../../core/workshop/planning/capacities.js';
import { bench, person, workshop } from './people.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { job } from './machines.js';

/** A technician's usual hours on a weekday, in minutes of the day on the workshop's clock. */
export const shift = pgTable(
  'shift',
  {
    ...owned,
    personId: uuid('person_id').notNull(),
    weekday: integer('weekday').notNull(),
    fromMinute: integer('from_minute').notNull(),
    toMinute: integer('to_minute').notNull(),
  },
  (t) => [
    foreignKey({ name: 'shift_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('shift_weekday_known', sql`weekday between 1 and 7`),
    check('shift_hours_sane', sql`from_minute >= 0 and to_minute <= 1440 and from_minute < to_minute`),
    ...tenantWalls('shift', t),
  ],
);

export const absence = pgTable(
  'absence',
  {
    ...owned,
    personId: uuid('person_id').notNull(),
    fromDay: date('from_day').notNull(),
    toDay: date('to_day').notNull(),
    /** of each of these days */
    part: text('part').$type<DayPart>().notNull().default('whole'),
    why: text('why').$type<AbsenceWhy>().notNull().default('other'),
    reason: text('reason').notNull().default(''),
  },
  (t) => [
    check('absence_part_known', sql`part in ('whole', 'morning', 'afternoon')`),
    check('absence_why_known', sql`why in ('holiday', 'ill', 'course', 'elsewhere', 'other')`),
    foreignKey({ name: 'absence_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('absence_days_in_order', sql`from_day <= to_day`),
    ...tenantWalls('absence', t),
  ],
);

/** How many of a kind of kit the workshop has: what stands on one bench is missing on the next. */
export const kit = pgTable('kit', { ...owned, kind: text('kind').$type<KitKind>().notNull(), count: integer('count').notNull() }, (t) => [
  foreignKey({ name: 'kit_workshop_fk', columns: [t.workshopId], foreignColumns: [workshop.id] }),
  unique('kit_once').on(t.workshopId, t.kind),
  check('kit_kind_known', sql`kind in ('pump-supply', 'pressure-tester', 'flush-rig')`),
  check('kit_count_sane', sql`count between 0 and 100`),
  ...tenantWalls('kit', t),
]);

/** One step of a job on the board. */
export interface SlotStep {
  readonly what: string;
  readonly from: string;
  readonly to: string;
  readonly personId: string | null;
}

/** Where a booked job stands on the board. Confirmed: told to the owner, moved by nobody but a hand. */
export const slot = pgTable(
  'slot',
  {
    ...owned,
    jobId: uuid('job_id').notNull(),
    benchId: uuid('bench_id').notNull(),
    startsAt: instant('starts_at').notNull(),
    endsAt: instant('ends_at').notNull(),
    steps: stored('steps', readList<SlotStep>('the steps of a slot')).notNull(),
    confirmed: boolean('confirmed').notNull().default(false),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'slot_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'slot_bench_fk', columns: [t.workshopId, t.benchId], foreignColumns: [bench.workshopId, bench.id] }),
    unique('slot_job_once').on(t.workshopId, t.jobId),
    check('slot_in_order', sql`starts_at < ends_at`),
    index('slot_by_bench').on(t.workshopId, t.benchId, t.startsAt),
    ...tenantWalls('slot', t),
  ],
);
