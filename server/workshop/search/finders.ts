import { say, sayWord } from '../../../core/base/words/say.js';
import type { Hit } from '../../../core/workshop/search/answers.js';
import { findingWords } from '../../../core/edge/words/dates.js';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { JOB_WORDS } from '../../../core/workshop/job-kinds/kinds.js';
import { fill, run, runEvent } from '../../base/database/tables/runs.js';
import { coolantLot, coolantProduct } from '../../base/database/tables/coolants.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { component, loop, loopRevision } from '../../base/database/tables/loops.js';
import { fittedPart } from '../../base/database/tables/lots.js';
import { photo } from '../../base/database/tables/photos.js';
import { keptPart, storeItem } from '../../base/database/tables/store.js';
import { finding, job, system } from '../../base/database/tables/machines.js';
import { linesPage } from '../machine-list/lines.js';
import type { OfDay } from '../machine-list/freshLines.js';
import { foundRefs, wordsIn, type SearchedKind } from '../../base/database/foundRefs.js';

/** Looks for rows in which every word occurs. */
type Finder = (day: OfDay, words: readonly string[]) => Promise<Hit[]>;

/** hits of one kind; more are found by a longer word */
const MOST = 25;
/** rows of one kind that are looked at for those hits: several may tell of one machine */
const LOOKED_AT = 200;

const refs = (kind: SearchedKind, words: readonly string[], most = MOST) => foundRefs(kind, words, most);

/** Machines, by themselves and by their owners: the list's own answer. */
const systems: Finder = async (day, words) => {
  const { systems: found } = await linesPage(day, { q: words.join(' '), coming: false, limit: MOST, closest: true });
  if (found.length === 0) return [];
  const notes = await day.scope.select({ id: system.id, note: system.note }).from(system).where(inArray(system.id, found.map(({ id }) => id))); // prettier-ignore
  const noteOf = new Map(notes.map(({ id, note }) => [id, note]));
  return found.map((line): Hit => ({
    kind: 'system',
    title: line.name,
    text: [line.ownerName, line.tag, line.caseText, noteOf.get(line.id)].filter(Boolean).join(' · '),
    at: null,
    to: `/systems/${line.id}`,
  }));
};

/** Jobs, by what was written and by what the owner told. */
const jobs: Finder = async ({ scope }, words) => {
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
    .where(inArray(job.id, sql`(${refs('job', words)} union ${refs('intake', words)})`))
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
const findings: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select({ id: finding.id, fact: finding.fact, at: finding.foundAt, name: system.name, systemId: system.id })
    .from(finding)
    .innerJoin(system, eq(system.id, finding.systemId))
    .where(inArray(finding.id, refs('finding', words)))
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
const notes: Finder = async ({ scope }, words) => {
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
    .where(and(eq(system.forCourse, false), inArray(runEvent.id, refs('entry', words, LOOKED_AT))))
    .orderBy(desc(runEvent.happenedAt))
    .limit(MOST);
  return rows.map((row): Hit => ({ kind: 'note', title: row.name, text: row.text, at: row.at.toISOString(), to: `/runs/${row.runId}` }));
};

/** Machines filled from a lot: by the lot, or by the newest fills of a coolant with that name. */
const lots: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select({ lot: coolantLot.lot, product: coolantProduct.name, name: system.name, systemId: system.id, on: fill.filledOn })
    .from(fill)
    .innerJoin(coolantLot, eq(coolantLot.id, fill.lotId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, coolantLot.productId))
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(
      inArray(
        fill.lotId,
        sql`(select l.id from coolant_lot l where l.id in ${refs('lot', words, LOOKED_AT)} or l.product_id in ${refs('product', words, LOOKED_AT)})`,
      ),
    )
    .orderBy(desc(fill.filledOn))
    .limit(LOOKED_AT);
  return onceEach(
    rows.map((row): Hit => ({
      kind: 'lot',
      title: row.name,
      text: say('{product}, lot {lot}', { product: row.product, lot: row.lot }),
      at: row.on,
      to: `/systems/${row.systemId}`,
    })),
  );
};

/** Machines with parts of a lot. */
const bags: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select({ make: fittedPart.make, lot: fittedPart.lot, name: system.name, systemId: system.id, on: fittedPart.fittedOn })
    .from(fittedPart)
    .innerJoin(system, eq(system.id, fittedPart.systemId))
    .where(inArray(fittedPart.id, refs('fitted', words, LOOKED_AT)))
    .orderBy(desc(fittedPart.fittedOn));
  return onceEach(
    rows.map((row): Hit => ({
      kind: 'lot',
      title: row.name,
      text: say('{make}, lot {lot}', { make: row.make, lot: row.lot }),
      at: row.on,
      to: `/systems/${row.systemId}`,
    })),
  );
};

/** Machines by a part of their loop. */
const parts: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select({ label: component.label, name: system.name, systemId: system.id })
    .from(component)
    .innerJoin(loopRevision, eq(loopRevision.id, component.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(inArray(component.id, refs('part', words, LOOKED_AT)))
    .orderBy(desc(component.createdAt));
  return onceEach(
    rows.map((row): Hit => ({ kind: 'part', title: row.name, text: row.label ?? '', at: null, to: `/systems/${row.systemId}` })),
  );
};

/** Photographs by their words. */
const photos: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select({ id: photo.id, caption: photo.caption, at: photo.createdAt, name: system.name, systemId: system.id })
    .from(photo)
    .innerJoin(system, eq(system.id, photo.systemId))
    .where(inArray(photo.id, refs('photo', words)))
    .orderBy(desc(photo.createdAt));
  return rows.map((row): Hit => ({
    kind: 'photograph',
    title: row.name,
    text: row.caption,
    at: row.at.toISOString(),
    to: `/systems/${row.systemId}`,
  }));
};

/** Parts kept, and who has them. */
const kept: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select()
    .from(keptPart)
    .where(inArray(keptPart.id, refs('kept', words)));
  return rows.map((row): Hit => ({
    kind: 'shelf',
    title: row.name,
    text: [row.place, row.lentTo].filter(Boolean).join(', '),
    at: null,
    to: '/store',
  }));
};

/** What lies on the shelf. */
const items: Finder = async ({ scope }, words) => {
  const rows = await scope
    .select()
    .from(storeItem)
    .where(inArray(storeItem.id, refs('item', words)));
  return rows.map((row): Hit => ({
    kind: 'shelf',
    title: row.name,
    text: row.lot ? say('lot {lot}', { lot: row.lot }) : '',
    at: null,
    to: '/store',
  }));
};

/** One hit for what reads alike and leads to the same place, the newest of them. */
function onceEach(hits: readonly Hit[]): Hit[] {
  const first = new Map<string, Hit>();
  for (const hit of hits) {
    const key = `${hit.to} ${hit.text}`;
    if (!first.has(key)) first.set(key, hit);
  }
  return [...first.values()].slice(0, MOST);
}

/** every place that is looked in, in the order in which hits are shown */
const FINDERS: readonly Finder[] = [systems, jobs, findings, notes, lots, bags, parts, photos, kept, items];

/** Everything of the workshop in which every word occurs. */
export async function searchAll(day: OfDay, text: string): Promise<Hit[]> {
  const words = wordsIn(text);
  const hits: Hit[] = [];
  for (const find of FINDERS) hits.push(...(await find(day, words)));
  return hits;
}
