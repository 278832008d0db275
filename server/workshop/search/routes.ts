import { findingWords } from '../../../core/edge/words/dates.js';
import { desc, eq, ilike, or, sql, type SQL } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import Joi from 'joi';
import { check } from '../../../core/base/checking/check.js';
import { JOB_WORDS } from '../../../core/workshop/jobs/kinds.js';
import { fill, run, runEvent } from '../../base/database/tables/runs.js';
import { coolantBatch, coolantProduct } from '../../base/database/tables/coolants.js';
import type { Ask } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { component, loop, loopRevision } from '../../base/database/tables/loops.js';
import { fittedPart } from '../../base/database/tables/lots.js';
import { photo } from '../../base/database/tables/photos.js';
import { keptPart, storeItem } from '../../base/database/tables/store.js';
import { customer, finding, job, system } from '../../base/database/tables/machines.js';

/** One thing that was found, and where it leads. */
export interface Hit {
  readonly kind: 'system' | 'owner' | 'job' | 'finding' | 'note' | 'lot' | 'part' | 'photograph' | 'shelf';
  readonly title: string;
  readonly text: string;
  readonly at: string | null;
  readonly to: string;
}

const searchSchema = Joi.object({ q: Joi.string().trim().min(2).max(80).required() });
/** hits of one kind; more are found by a longer word */
const MOST = 25;

/** A word of the reader's, with the pattern language's own signs taken literally. */
const patternOf = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;
const matches = (pattern: string, ...columns: (AnyPgColumn | SQL<string>)[]): SQL | undefined =>
  or(...columns.map((column) => ilike(column as AnyPgColumn, pattern)));

export function searchRoutes(routes: Routes): void {
  routes.get('/search', async (ask) => {
    const { q } = check<{ q: string }>(searchSchema, ask.request.query);
    return { hits: await searchAll(ask, patternOf(q)) };
  });
}

async function searchAll({ scope }: Pick<Ask, 'scope'>, pattern: string): Promise<Hit[]> {
  const systems = await scope
    .select({ id: system.id, name: system.name, text: system.note, caseText: system.caseText, owner: customer.name })
    .from(system)
    .innerJoin(customer, eq(customer.id, system.customerId))
    .where(
      matches(
        pattern,
        system.name,
        system.note,
        system.caseText,
        system.builtBy,
        customer.name,
        customer.email,
        customer.phone,
        customer.note,
      ),
    )
    .limit(MOST);
  const jobs = await scope
    .select({
      id: job.id,
      kind: job.kind,
      note: job.note,
      at: job.createdAt,
      name: system.name,
      systemId: system.id,
      booked: serviceJob.id,
      intake: serviceJob.intake,
    })
    .from(job)
    .innerJoin(system, eq(system.id, job.systemId))
    .leftJoin(serviceJob, eq(serviceJob.jobId, job.id))
    .where(matches(pattern, job.note, sql<string>`${serviceJob.intake}->>'symptom'`, sql<string>`${serviceJob.intake}->>'condition'`))
    .orderBy(desc(job.createdAt))
    .limit(MOST);
  const findings = await scope
    .select({ id: finding.id, fact: finding.fact, at: finding.foundAt, name: system.name, systemId: system.id })
    .from(finding)
    .innerJoin(system, eq(system.id, finding.systemId))
    .where(matches(pattern, finding.text))
    .orderBy(desc(finding.foundAt))
    .limit(MOST);
  const notes = await scope
    .select({
      id: runEvent.id,
      text: sql<string>`coalesce(${runEvent.body}->>'text', ${runEvent.body}->>'reason', ${runEvent.body}->>'fix', ${runEvent.body}->'findings'->>'text')`,
      at: runEvent.happenedAt,
      name: system.name,
      runId: run.id,
    })
    .from(runEvent)
    .innerJoin(run, eq(run.id, runEvent.runId))
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(
      matches(
        pattern,
        sql<string>`${runEvent.body}->>'text'`,
        sql<string>`${runEvent.body}->>'reason'`,
        sql<string>`${runEvent.body}->>'fix'`,
        sql<string>`${runEvent.body}->'findings'->>'text'`,
      ),
    )
    .orderBy(desc(runEvent.happenedAt))
    .limit(MOST);
  const lots = await scope
    .selectDistinct({ lot: coolantBatch.lot, product: coolantProduct.name, name: system.name, systemId: system.id, on: fill.filledOn })
    .from(fill)
    .innerJoin(coolantBatch, eq(coolantBatch.id, fill.batchId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(matches(pattern, coolantBatch.lot, coolantProduct.name))
    .orderBy(desc(fill.filledOn))
    .limit(MOST);
  const bags = await scope
    .selectDistinct({ make: fittedPart.make, lot: fittedPart.lot, name: system.name, systemId: system.id, on: fittedPart.fittedOn })
    .from(fittedPart)
    .innerJoin(system, eq(system.id, fittedPart.systemId))
    .where(matches(pattern, fittedPart.make, fittedPart.lot))
    .orderBy(desc(fittedPart.fittedOn))
    .limit(MOST);
  const parts = await scope
    .selectDistinct({ label: component.label, name: system.name, systemId: system.id })
    .from(component)
    .innerJoin(loopRevision, eq(loopRevision.id, component.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(matches(pattern, component.label))
    .limit(MOST);
  const photos = await scope
    .select({ id: photo.id, caption: photo.caption, at: photo.createdAt, name: system.name, systemId: system.id })
    .from(photo)
    .innerJoin(system, eq(system.id, photo.systemId))
    .where(matches(pattern, photo.caption))
    .limit(MOST);
  const kept = await scope
    .select()
    .from(keptPart)
    .where(matches(pattern, keptPart.name, keptPart.place, keptPart.lentTo))
    .limit(MOST);
  const items = await scope
    .select()
    .from(storeItem)
    .where(matches(pattern, storeItem.name, storeItem.lot))
    .limit(MOST);
  return [
    ...systems.map((row): Hit => ({
      kind: 'system',
      title: row.name,
      text: [row.owner, row.caseText, row.text].filter(Boolean).join(' · '),
      at: null,
      to: `/systems/${row.id}`,
    })),
    ...jobs.map((row): Hit => ({
      kind: 'job',
      title: `${row.name}: ${JOB_WORDS[row.kind] ?? row.kind}`,
      text: [row.intake?.symptom, row.note].filter(Boolean).join(' · '),
      at: row.at.toISOString(),
      to: row.booked ? `/jobs/${row.id}` : `/systems/${row.systemId}`,
    })),
    ...findings.map((row): Hit => ({
      kind: 'finding',
      title: row.name,
      text: findingWords(row.fact),
      at: row.at.toISOString(),
      to: `/systems/${row.systemId}`,
    })),
    ...notes.map((row): Hit => ({ kind: 'note', title: row.name, text: row.text, at: row.at.toISOString(), to: `/runs/${row.runId}` })),
    ...lots.map((row): Hit => ({
      kind: 'lot',
      title: row.name,
      text: `${row.product}, lot ${row.lot}`,
      at: row.on,
      to: `/systems/${row.systemId}`,
    })),
    ...bags.map((row): Hit => ({
      kind: 'lot',
      title: row.name,
      text: `${row.make}, lot ${row.lot}`,
      at: row.on,
      to: `/systems/${row.systemId}`,
    })),
    ...parts.map((row): Hit => ({ kind: 'part', title: row.name, text: row.label ?? '', at: null, to: `/systems/${row.systemId}` })),
    ...photos.map((row): Hit => ({
      kind: 'photograph',
      title: row.name,
      text: row.caption,
      at: row.at.toISOString(),
      to: `/systems/${row.systemId}`,
    })),
    ...kept.map((row): Hit => ({
      kind: 'shelf',
      title: row.name,
      text: [row.place, row.lentTo].filter(Boolean).join(', '),
      at: null,
      to: '/store',
    })),
    ...items.map((row): Hit => ({ kind: 'shelf', title: row.name, text: row.lot ? `lot ${row.lot}` : '', at: null, to: '/store' })),
  ];
}
