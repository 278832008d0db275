import { say, sayWord } from '../../../core/base/words/say.js';
import type { Hit } from '../../../core/workshop/search/answers.js';
import { findingWords } from '../../../core/edge/words/dates.js';
import { and, desc, eq, ilike, or, sql, type SQL } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { JOB_WORDS } from '../../../core/workshop/jobs/kinds.js';
import { fill, run, runEvent } from '../../base/database/tables/runs.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import type { Scope } from '../../base/database/client.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { component, loop, loopRevision } from '../../base/database/tables/loops.js';
import { fittedPart } from '../../base/database/tables/lots.js';
import { photo } from '../../base/database/tables/photos.js';
import { keptPart, storeItem } from '../../base/database/tables/store.js';
import { owner, finding, job, system } from '../../base/database/tables/machines.js';

type Finder = (scope: Scope, pattern: string) => Promise<Hit[]>;

/** hits of one kind; more are found by a longer word */
const MOST = 25;

/** A word of the reader's, with the pattern language's own signs taken literally. */
const patternOf = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;
const matches = (pattern: string, ...columns: (AnyPgColumn | SQL<string>)[]): SQL | undefined =>
  or(...columns.map((column) => ilike(column as AnyPgColumn, pattern)));

/** Machines, by themselves and by their owners. */
const systems: Finder = async (scope, pattern) => {
  const rows = await scope
    .select({ id: system.id, name: system.name, text: system.note, tag: system.tag, caseText: system.caseText, owner: owner.name })
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(
      and(
        eq(system.forCourse, false),
        matches(
          pattern,
          system.name,
          system.tag,
          system.note,
          system.caseText,
          system.builtBy,
          owner.name,
          owner.email,
          owner.phone,
          owner.note,
        ),
      ),
    )
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'system',
    title: row.name,
    text: [row.owner, row.tag, row.caseText, row.text].filter(Boolean).join(' · '),
    at: null,
    to: `/systems/${row.id}`,
  }));
};

/** Jobs, by what was written and by what the owner told. */
const jobs: Finder = async (scope, pattern) => {
  const rows = await scope
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
  return rows.map((row): Hit => ({
    kind: 'job',
    title: `${row.name}: ${sayWord(JOB_WORDS[row.kind]) ?? row.kind}`,
    text: [row.intake?.symptom, row.note].filter(Boolean).join(' · '),
    at: row.at.toISOString(),
    to: row.booked ? `/jobs/${row.id}` : `/systems/${row.systemId}`,
  }));
};

/** Findings. */
const findings: Finder = async (scope, pattern) => {
  const rows = await scope
    .select({ id: finding.id, fact: finding.fact, at: finding.foundAt, name: system.name, systemId: system.id })
    .from(finding)
    .innerJoin(system, eq(system.id, finding.systemId))
    .where(matches(pattern, finding.text))
    .orderBy(desc(finding.foundAt))
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'finding',
    title: row.name,
    text: findingWords(row.fact),
    at: row.at.toISOString(),
    to: `/systems/${row.systemId}`,
  }));
};

/** What was written down in runs. */
const notes: Finder = async (scope, pattern) => {
  const rows = await scope
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
      and(
        eq(system.forCourse, false),
        matches(
          pattern,
          sql<string>`${runEvent.body}->>'text'`,
          sql<string>`${runEvent.body}->>'reason'`,
          sql<string>`${runEvent.body}->>'fix'`,
          sql<string>`${runEvent.body}->'findings'->>'text'`,
        ),
      ),
    )
    .orderBy(desc(runEvent.happenedAt))
    .limit(MOST);
  return rows.map((row): Hit => ({ kind: 'note', title: row.name, text: row.text, at: row.at.toISOString(), to: `/runs/${row.runId}` }));
};

/** Machines filled from a lot. */
const lots: Finder = async (scope, pattern) => {
  const rows = await scope
    .selectDistinct({ lot: coolantLot.lot, product: coolantProduct.name, name: system.name, systemId: system.id, on: fill.filledOn })
    .from(fill)
    .innerJoin(coolantLot, eq(coolantLot.id, fill.lotId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(matches(pattern, coolantLot.lot, coolantProduct.name))
    .orderBy(desc(fill.filledOn))
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'lot',
    title: row.name,
    text: say('{product}, lot {lot}', { product: row.product, lot: row.lot }),
    at: row.on,
    to: `/systems/${row.systemId}`,
  }));
};

/** Machines with parts of a lot. */
const bags: Finder = async (scope, pattern) => {
  const rows = await scope
    .selectDistinct({ make: fittedPart.make, lot: fittedPart.lot, name: system.name, systemId: system.id, on: fittedPart.fittedOn })
    .from(fittedPart)
    .innerJoin(system, eq(system.id, fittedPart.systemId))
    .where(matches(pattern, fittedPart.make, fittedPart.lot))
    .orderBy(desc(fittedPart.fittedOn))
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'lot',
    title: row.name,
    text: say('{make}, lot {lot}', { make: row.make, lot: row.lot }),
    at: row.on,
    to: `/systems/${row.systemId}`,
  }));
};

/** Machines by a part of their loop. */
const parts: Finder = async (scope, pattern) => {
  const rows = await scope
    .selectDistinct({ label: component.label, name: system.name, systemId: system.id })
    .from(component)
    .innerJoin(loopRevision, eq(loopRevision.id, component.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(matches(pattern, component.label))
    .limit(MOST);
  return rows.map((row): Hit => ({ kind: 'part', title: row.name, text: row.label ?? '', at: null, to: `/systems/${row.systemId}` }));
};

/** Photographs by their words. */
const photos: Finder = async (scope, pattern) => {
  const rows = await scope
    .select({ id: photo.id, caption: photo.caption, at: photo.createdAt, name: system.name, systemId: system.id })
    .from(photo)
    .innerJoin(system, eq(system.id, photo.systemId))
    .where(matches(pattern, photo.caption))
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'photograph',
    title: row.name,
    text: row.caption,
    at: row.at.toISOString(),
    to: `/systems/${row.systemId}`,
  }));
};

/** Parts kept, and who has them. */
const kept: Finder = async (scope, pattern) => {
  const rows = await scope
    .select()
    .from(keptPart)
    .where(matches(pattern, keptPart.name, keptPart.place, keptPart.lentTo))
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'shelf',
    title: row.name,
    text: [row.place, row.lentTo].filter(Boolean).join(', '),
    at: null,
    to: '/store',
  }));
};

/** What lies on the shelf. */
const items: Finder = async (scope, pattern) => {
  const rows = await scope
    .select()
    .from(storeItem)
    .where(matches(pattern, storeItem.name, storeItem.lot))
    .limit(MOST);
  return rows.map((row): Hit => ({
    kind: 'shelf',
    title: row.name,
    text: row.lot ? say('lot {lot}', { lot: row.lot }) : '',
    at: null,
    to: '/store',
  }));
};

/** every place that is looked in, in the order in which hits are shown */
const FINDERS: readonly Finder[] = [systems, jobs, findings, notes, lots, bags, parts, photos, kept, items];

/** Everything of the workshop that holds a word. */
export async function searchAll(scope: Scope, word: string): Promise<Hit[]> {
  const hits: Hit[] = [];
  for (const find of FINDERS) hits.push(...(await find(scope, patternOf(word))));
  return hits;
}
