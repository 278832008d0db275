import { readList, readObject } from '../../../../core/base/checking/stored.js';
import type { BaselineReading } from '../../../../core/physics/diagnosis/reading.js';
import type { TaughtVerdict } from '../../../../core/physics/learning/answers.js';
import type { OwnerStage } from '../../../../core/workshop/owner-door/stands.js';
import type { WaitFor, WaitsSince } from '../../../../core/workshop/jobs/waitFor.js';
import type { Dye } from '../../../../core/machine/liquids/dye.js';
import type { LooseEnd } from '../../../../core/workshop/due-dates/facts.js';
import { readStoredEntry } from '../../../../core/bench/runs/log.js';
import type { ProcedureKind } from '../../../../core/bench/procedures/procedureKinds.js';
import { readContents } from '../../../../core/physics/live-book/stored.js';
import { readRecord } from '../../../../core/edge/records/record.js';
import { isNotNull, sql } from 'drizzle-orm';
import {
  boolean,
  check,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  pgTable,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { readProcedure } from '../../../../core/bench/runs/procedure.js';
import type { ProcedureTemplate } from '../../../../core/bench/runs/template.js';
import { bench, person } from './people.js';
import { coolantLot, coolantProduct } from './coolants.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { loop, loopRevision } from './loops.js';
import { job } from './machines.js';

/** The workshop's procedure, version by version. A trigger refuses every update and delete. */
export const procedureVersion = pgTable(
  'procedure_version',
  {
    ...owned,
    /** what it leads: the commissioning, or a kind of service */
    kind: text('kind').$type<ProcedureKind>().notNull().default('commissioning'),
    number: integer('number').notNull(),
    template: stored('template', readObject<ProcedureTemplate>('a version of the procedure')).notNull(),
    note: text('note').notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'procedure_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    unique('procedure_number_once').on(t.workshopId, t.kind, t.number),
    check('procedure_number_positive', sql`number > 0`),
    ...tenantWalls('procedure_version', t),
  ],
);

export const run = pgTable(
  'run',
  {
    ...owned,
    /** null: a practice run, which is no work on anybody's machine */
    jobId: uuid('job_id'),
    loopId: uuid('loop_id').notNull(),
    /** the loop as it is being built; everything in the run refers to this revision */
    revisionId: uuid('revision_id').notNull(),
    benchId: uuid('bench_id'),
    /** what it waits for, off its bench; null: it does not. The log holds it too: this is what lists ask for */
    waits: stored('waits', readObject<WaitsSince>('what a run waits for')),
    /** … and of it what an owner may know, by itself */
    waitsFor: text('waits_for')
      .$type<WaitFor>()
      .generatedAlwaysAs(sql`waits ->> 'for'`),
    waitsUntil: text('waits_until').generatedAlwaysAs(sql`waits ->> 'until'`),
    /** what is done at its present step, as its owner is told, and when that step's clock ends; null: it began before this was kept, none runs */
    stage: text('stage').$type<OwnerStage>(),
    stageEndsAt: instant('stage_ends_at'),
    procedure: stored('procedure', readProcedure).notNull(),
    state: text('state').$type<'active' | 'signed-off' | 'abandoned'>().notNull().default('active'),
    startedAt: instant('started_at').notNull(),
    signedOffAt: instant('signed_off_at'),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    foreignKey({ name: 'run_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'run_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    uniqueIndex('run_one_active_per_loop')
      .on(t.workshopId, t.loopId)
      .where(sql`state = 'active' and job_id is not null`),
    foreignKey({
      name: 'run_revision_fk',
      columns: [t.workshopId, t.revisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    foreignKey({ name: 'run_bench_fk', columns: [t.workshopId, t.benchId], foreignColumns: [bench.workshopId, bench.id] }),
    foreignKey({ name: 'run_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('run_waits_off_its_bench', sql`waits is null or (state = 'active' and bench_id is null and job_id is not null)`),
    check('run_state_known', sql`state in ('active', 'signed-off', 'abandoned')`),
    check('run_signed_off_has_instant', sql`(state = 'signed-off') = (signed_off_at is not null)`),
    index('run_active').on(t.workshopId, t.state),
    index('run_by_loop').on(t.workshopId, t.loopId),
    index('run_by_job').on(t.workshopId, t.jobId),
    ...tenantWalls('run', t),
  ],
);

/** Work on somebody's machine; a run without a job is practice and touches nothing. */
export const isReal = isNotNull(run.jobId);
/** it works on the loop itself, not on a unit of it out of its case */
export const isOfLoop = sql<boolean>`not (${run.procedure} ? 'unit')`;

/** The log. A trigger refuses every update and delete; the application role has neither right. */
/** What is inside each loop, as the last entry of its last run left it. One row a loop: the log can make it again. */
export const loopContents = pgTable(
  'loop_contents',
  {
    ...owned,
    loopId: uuid('loop_id').notNull(),
    /** the entry that left it so */
    runId: uuid('run_id').notNull(),
    seq: integer('seq').notNull(),
    contents: stored('contents', readContents).notNull(),
  },
  (t) => [
    foreignKey({ name: 'loop_contents_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }).onDelete(
      'cascade',
    ),
    foreignKey({ name: 'loop_contents_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    unique('loop_contents_once').on(t.workshopId, t.loopId),
    ...tenantWalls('loop_contents', t),
  ],
);

export const runEvent = pgTable(
  'run_event',
  {
    /** made on the device */
    ...owned,
    runId: uuid('run_id').notNull(),
    seq: integer('seq').notNull(),
    happenedAt: instant('happened_at').notNull(),
    personId: uuid('person_id').notNull(),
    /** who was signed in when it reached the server, where that was somebody else than made it */
    deliveredBy: uuid('delivered_by'),
    body: stored('body', readStoredEntry).notNull(),
  },
  (t) => [
    foreignKey({ name: 'run_event_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    foreignKey({ name: 'run_event_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    foreignKey({ name: 'run_event_deliverer_fk', columns: [t.workshopId, t.deliveredBy], foreignColumns: [person.workshopId, person.id] }),
    unique('run_event_seq_once').on(t.runId, t.seq),
    check('run_event_seq_positive', sql`seq > 0`),
    check('run_event_has_type', sql`body ? 'type'`),
    ...tenantWalls('run_event', t),
  ],
);

/** Measured values as rows, each with the revision it was measured on. Written at sign-off from the log. */
export const reading = pgTable(
  'reading',
  {
    ...owned,
    runId: uuid('run_id').notNull(),
    revisionId: uuid('revision_id').notNull(),
    eventId: uuid('event_id').notNull(),
    quantity: text('quantity').notNull(),
    value: doublePrecision('value').notNull(),
    unit: text('unit').notNull(),
    source: text('source').notNull().default('hand'),
    takenAt: instant('taken_at').notNull(),
  },
  (t) => [
    foreignKey({ name: 'reading_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    foreignKey({
      name: 'reading_revision_fk',
      columns: [t.workshopId, t.revisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    foreignKey({ name: 'reading_event_fk', columns: [t.workshopId, t.eventId], foreignColumns: [runEvent.workshopId, runEvent.id] }),
    check('reading_source_known', sql`source in ('hand', 'instrument', 'simulated', 'file')`),
    index('reading_by_revision').on(t.workshopId, t.revisionId, t.quantity),
    index('reading_by_run').on(t.workshopId, t.runId),
    ...tenantWalls('reading', t),
  ],
);

/** What went into a loop, from which lot, on which day. */
export const fill = pgTable(
  'fill',
  {
    ...owned,
    revisionId: uuid('revision_id').notNull(),
    jobId: uuid('job_id').notNull(),
    runId: uuid('run_id'),
    productId: uuid('product_id').notNull(),
    lotId: uuid('lot_id'),
    filledOn: date('filled_on').notNull(),
    /** null: it was done elsewhere and nobody wrote it down */
    pouredMl: doublePrecision('poured_ml'),
    /** day that was promised to the owner for the next change, by whoever filled it before this book; null: none was */
    promisedOn: date('promised_on'),
    /** what came out before anything else went in */
    drainedMl: doublePrecision('drained_ml'),
    /** rinses between, and mL of one on average; null: none, or a fill from before they were counted apart */
    rinses: integer('rinses'),
    rinseMl: doublePrecision('rinse_ml'),
    /** mL that the drain before it left inside, by the book, with standard deviation; null where none was led or nobody knew */
    leftMl: doublePrecision('left_ml'),
    leftSdMl: doublePrecision('left_sd_ml'),
    /** mL at the mark with standard deviation, by the book of a fill that began dry; null: it teaches no volume */
    taughtMl: doublePrecision('taught_ml'),
    taughtSdMl: doublePrecision('taught_sd_ml'),
    /** what the lead said of a fill that surprises; null: nothing */
    taughtVerdict: text('taught_verdict').$type<TaughtVerdict>(),
    /** dye that went into it: the sample of its lot is no reference then */
    dyes: stored<readonly Dye[]>('dyes', readList<Dye>('dye of a fill')).notNull().default([]),
    /** share of the usual interval that this fill may stay, because something was left inside; 1 where nothing was */
    intervalShare: doublePrecision('interval_share').notNull().default(1),
    intervalReason: stored<readonly LooseEnd[]>('interval_reason', readList<LooseEnd>('why an interval is short')).notNull().default([]),
  },
  (t) => [
    foreignKey({
      name: 'fill_revision_fk',
      columns: [t.workshopId, t.revisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    foreignKey({ name: 'fill_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'fill_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    foreignKey({
      name: 'fill_product_fk',
      columns: [t.workshopId, t.productId],
      foreignColumns: [coolantProduct.workshopId, coolantProduct.id],
    }),
    foreignKey({ name: 'fill_lot_fk', columns: [t.workshopId, t.lotId], foreignColumns: [coolantLot.workshopId, coolantLot.id] }),
    check('fill_rinses_sane', sql`(rinses is null) = (rinse_ml is null) and rinses > 0 and rinse_ml > 0`),
    check('fill_volume_sane', sql`poured_ml > 0 and drained_ml >= 0`),
    check('fill_taught_sane', sql`(taught_ml is null) = (taught_sd_ml is null) and taught_ml > 0 and taught_sd_ml > 0`),
    check('fill_left_sane', sql`(left_ml is null) = (left_sd_ml is null) and left_sd_ml >= 0`),
    check('fill_verdict_known', sql`taught_verdict in ('counts', 'left-out')`),
    check('fill_share_sane', sql`interval_share > 0 and interval_share <= 1`),
    index('fill_by_revision').on(t.workshopId, t.revisionId),
    index('fill_by_job').on(t.workshopId, t.jobId),
    index('fill_by_product').on(t.workshopId, t.productId),
    index('fill_by_lot').on(t.workshopId, t.lotId),
    ...tenantWalls('fill', t),
  ],
);

export const baseline = pgTable(
  'baseline',
  {
    ...owned,
    runId: uuid('run_id').notNull(),
    revisionId: uuid('revision_id').notNull(),
    reading: stored(
      'reading',
      readObject<BaselineReading>('a reading', { powerW: null, coolantC: null, flowLph: null, levelMm: null }),
    ).notNull(),
    takenAt: instant('taken_at').notNull(),
    /** read before anything was touched, not at the hand-over */
    before: boolean('before').notNull().default(false),
  },
  (t) => [
    foreignKey({ name: 'baseline_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    foreignKey({
      name: 'baseline_revision_fk',
      columns: [t.workshopId, t.revisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    index('baseline_by_revision').on(t.workshopId, t.revisionId),
    index('baseline_by_run').on(t.workshopId, t.runId),
    ...tenantWalls('baseline', t),
  ],
);

/** The signed record. A trigger refuses every update and delete. */
export const runRecord = pgTable(
  'run_record',
  {
    ...owned,
    runId: uuid('run_id').notNull(),
    record: stored('record', readRecord).notNull(),
  },
  (t) => [
    foreignKey({ name: 'run_record_run_fk', columns: [t.workshopId, t.runId], foreignColumns: [run.workshopId, run.id] }),
    unique('run_record_once').on(t.runId),
    ...tenantWalls('run_record', t),
  ],
);
