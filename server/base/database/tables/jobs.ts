import { readList, readObject } from '../../../../core/base/checking/stored.js';
import { sql } from 'drizzle-orm';
import { check, date, foreignKey, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Estimate } from '../../../../core/workshop/prices/estimate.js';
import type { BesideWork } from '../../../../core/workshop/jobs/beside.js';
import type { AskedScope, ConsentWay, Intake, OwnerWindow } from '../../../../core/workshop/jobs/schema.js';
import { person } from './people.js';
import { instant, owned, stored, tenantWalls } from '../columns.js';
import { coolantProduct } from './coolants.js';
import { dueItem } from './due-dates.js';
import { loop, loopRevision } from './loops.js';
import { job } from './machines.js';

const readEstimate = readObject<Estimate>('an estimate', { partsText: '', priceText: '', parts: [], priced: null });

/** What a booked service adds to its job: how it came in, what the owner was told, what it is about. */
export const serviceJob = pgTable(
  'service_job',
  {
    ...owned,
    jobId: uuid('job_id').notNull(),
    loopId: uuid('loop_id').notNull(),
    /** component to be changed */
    partId: text('part_id'),
    /** the revision that the loop shall become; null: it stays as it is */
    wantedRevisionId: uuid('wanted_revision_id'),
    /** what will be poured; null: what its loop is filled with */
    productId: uuid('product_id'),
    /** small works that go along with it */
    beside: stored('beside', readList<BesideWork>('works beside a job')).notNull().default([]),
    intake: stored('intake', readObject<Intake>('what the owner said', { signs: [], flowLph: null })).notNull(),
    estimate: stored('estimate', readEstimate).notNull(),
    /** counts up when kind or estimate change: a consent is to one of them */
    estimateNumber: integer('estimate_number').notNull().default(1),
    /** since when it is so */
    estimateAt: instant('estimate_at').notNull().defaultNow(),
    /** a larger or smaller scope that its owner is asked about, while its run goes on as it is; null: none is */
    asked: stored('asked', readObject<AskedScope>('a scope that an owner is asked about')),
    neededBy: date('needed_by'),
    /** day on which the parts that it waits for are expected; null: nothing is awaited */
    partsOn: date('parts_on'),
    /** day from which its owner can do without it; null: at once */
    dropOffOn: date('drop_off_on'),
    /** days in which its owner can do without it; empty: any */
    windows: stored('windows', readList<OwnerWindow>('the days of an owner')).notNull().default([]),
    /** day on which it was brought, on which it was not although it was awaited, on which it was fetched; null: not yet */
    broughtOn: date('brought_on'),
    notComeOn: date('not_come_on'),
    fetchedOn: date('fetched_on'),
    /** the due item that it answers */
    dueItemId: uuid('due_item_id'),
    version: integer('version').notNull().default(1),
  },
  (t) => [
    foreignKey({ name: 'service_job_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'service_job_loop_fk', columns: [t.workshopId, t.loopId], foreignColumns: [loop.workshopId, loop.id] }),
    foreignKey({
      name: 'service_job_wanted_fk',
      columns: [t.workshopId, t.wantedRevisionId],
      foreignColumns: [loopRevision.workshopId, loopRevision.id],
    }),
    foreignKey({ name: 'service_job_due_fk', columns: [t.workshopId, t.dueItemId], foreignColumns: [dueItem.workshopId, dueItem.id] }),
    foreignKey({
      name: 'service_job_product_fk',
      columns: [t.workshopId, t.productId],
      foreignColumns: [coolantProduct.workshopId, coolantProduct.id],
    }),
    unique('service_job_once').on(t.jobId),
    index('service_job_by_loop').on(t.workshopId, t.loopId),
    index('service_job_by_due').on(t.workshopId, t.dueItemId),
    ...tenantWalls('service_job', t),
  ],
);

/** What the owner agreed to, each time. A trigger refuses every update and delete. */
export const consent = pgTable(
  'consent',
  {
    ...owned,
    jobId: uuid('job_id').notNull(),
    kind: text('kind').notNull(),
    estimate: stored('estimate', readEstimate).notNull(),
    estimateNumber: integer('estimate_number').notNull(),
    how: text('how').$type<ConsentWay | 'page'>().notNull(),
    words: text('words').notNull().default(''),
    /** null: the owner, at the door */
    personId: uuid('person_id'),
    /** as the owner wrote it there; empty: somebody of the workshop wrote it down */
    name: text('name').notNull().default(''),
  },
  (t) => [
    foreignKey({ name: 'consent_job_fk', columns: [t.workshopId, t.jobId], foreignColumns: [job.workshopId, job.id] }),
    foreignKey({ name: 'consent_person_fk', columns: [t.workshopId, t.personId], foreignColumns: [person.workshopId, person.id] }),
    check('consent_how_known', sql`how in ('phone', 'email', 'text', 'in-person', 'page')`),
    check('consent_page_named', sql`(how = 'page') = (person_id is null) and (how <> 'page' or length(trim(name)) > 0)`),
    index('consent_by_job').on(t.workshopId, t.jobId),
    ...tenantWalls('consent', t),
  ],
);
