import { INSTRUMENT_KEYS, type InstrumentKind } from '../../../../core/bench/instruments/kinds.js';
import { sql } from 'drizzle-orm';
import { bigserial, boolean, check, doublePrecision, foreignKey, index, pgPolicy, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { bench, person } from './people.js';
import { appRole, instant, owned, ownWorkshop, tenantWalls } from '../columns.js';

/** Secrets a bench's devices sign in with: one for real devices, one for its simulated stand-in. Hashes only. */
export const benchAccess = pgTable(
  'bench_access',
  {
    ...owned,
    benchId: uuid('bench_id').notNull(),
    simulated: boolean('simulated').notNull(),
    secretHash: text('secret_hash').notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'bench_access_bench_fk', columns: [t.workshopId, t.benchId], foreignColumns: [bench.workshopId, bench.id] }),
    foreignKey({ name: 'bench_access_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('bench_access_once').on(t.benchId, t.simulated),
    ...tenantWalls('bench_access', t),
  ],
);

/** An instrument as it last described itself. */
export const instrument = pgTable(
  'instrument',
  {
    ...owned,
    benchId: uuid('bench_id').notNull(),
    kind: text('kind').$type<InstrumentKind>().notNull(),
    online: boolean('online').notNull(),
    resolution: doublePrecision('resolution'),
    simulated: boolean('simulated').notNull(),
    /** the last message that was not understood, in words; null when all were */
    problem: text('problem'),
    changedAt: instant('changed_at').notNull(),
  },
  (t) => [
    foreignKey({ name: 'instrument_bench_fk', columns: [t.workshopId, t.benchId], foreignColumns: [bench.workshopId, bench.id] }),
    check('instrument_kind_known', sql`kind in (${sql.raw(INSTRUMENT_KEYS.map((key) => `'${key}'`).join(', '))})`),
    unique('instrument_once').on(t.benchId, t.kind),
    ...tenantWalls('instrument', t),
  ],
);

/**
 * What instruments sent. Numbered in the order in which they were kept, by one writer at a time: who asks for all after
 * a number misses none. What counts for a record is an entry of the run; these rows are thinned out after a while.
 */
export const instrumentReading = pgTable(
  'instrument_reading',
  {
    id: bigserial('id', { mode: 'number' }).primaryKey(),
    workshopId: uuid('workshop_id').notNull(),
    benchId: uuid('bench_id').notNull(),
    kind: text('kind').$type<InstrumentKind>().notNull(),
    value: doublePrecision('value').notNull(),
    at: instant('at').notNull(),
  },
  (t) => [
    foreignKey({ name: 'instrument_reading_bench_fk', columns: [t.workshopId, t.benchId], foreignColumns: [bench.workshopId, bench.id] }),
    index('instrument_reading_by_bench').on(t.workshopId, t.benchId, t.id),
    index('instrument_reading_by_time').on(t.at),
    pgPolicy('instrument_reading_own_workshop', {
      for: 'all',
      to: appRole,
      using: sql`workshop_id = ${ownWorkshop}`,
      withCheck: sql`workshop_id = ${ownWorkshop}`,
    }),
  ],
);
