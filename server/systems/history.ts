import { desc, eq, inArray } from 'drizzle-orm';
import { JOB_WORDS } from '../../core/jobs/kinds.js';
import { formatMl } from '../../core/units/display.js';
import { person } from '../accounts/tables.js';
import { fill, run } from '../commissioning/tables.js';
import { coolantProduct } from '../coolants/tables.js';
import { dueItem, postponement } from '../due-dates/tables.js';
import type { Ask } from '../http/context.js';
import { loop, loopRevision } from '../loops/tables.js';
import { finding, job } from './tables.js';

export interface HistoryEntry {
  readonly id: string;
  /** a calendar day or an instant; both sort as text */
  readonly at: string;
  readonly kind: 'job' | 'run' | 'revision' | 'finding' | 'check' | 'postponed';
  readonly title: string;
  readonly text: string;
  readonly by: string | null;
  readonly runId: string | null;
  readonly colour: string | null;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Everything that happened to a system, newest first. */
export async function systemHistory({ scope }: Pick<Ask, 'scope'>, systemId: string): Promise<HistoryEntry[]> {
  const jobs = await scope
    .select({
      job,
      by: person.name,
      runId: run.id,
      signedOffAt: run.signedOffAt,
      pouredMl: fill.pouredMl,
      drainedMl: fill.drainedMl,
      coolantName: coolantProduct.name,
      colour: coolantProduct.colour,
    })
    .from(job)
    .innerJoin(person, eq(person.id, job.personId))
    .leftJoin(run, eq(run.jobId, job.id))
    .leftJoin(fill, eq(fill.jobId, job.id))
    .leftJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .where(eq(job.systemId, systemId));
  const revisions = await scope
    .select({
      id: loopRevision.id,
      at: loopRevision.createdAt,
      number: loopRevision.number,
      kind: loopRevision.kind,
      reason: loopRevision.reason,
      loopName: loop.name,
      by: person.name,
    })
    .from(loopRevision)
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(person, eq(person.id, loopRevision.personId))
    .where(eq(loop.systemId, systemId));
  const findings = await scope.select().from(finding).where(eq(finding.systemId, systemId)).orderBy(desc(finding.foundAt));
  const dues = await scope
    .select({ due: dueItem, by: person.name })
    .from(dueItem)
    .leftJoin(person, eq(person.id, dueItem.closedBy))
    .where(eq(dueItem.systemId, systemId));
  const dueIds = dues.map(({ due }) => due.id);
  const putOff =
    dueIds.length === 0
      ? []
      : await scope
          .select({ row: postponement, by: person.name })
          .from(postponement)
          .innerJoin(person, eq(person.id, postponement.personId))
          .where(inArray(postponement.dueItemId, dueIds));

  const none = { runId: null, colour: null };
  const entries: HistoryEntry[] = [
    ...jobs.map((row): HistoryEntry => ({
      id: row.job.id,
      at: row.signedOffAt?.toISOString() ?? row.job.doneOn ?? row.job.createdAt.toISOString(),
      kind: row.runId ? 'run' : 'job',
      title: capital(
        `${JOB_WORDS[row.job.kind] ?? row.job.kind}${row.job.state === 'active' ? ', in progress' : row.job.state === 'cancelled' ? ', abandoned' : ''}`,
      ),
      text: [volumes(row), row.job.note].filter(Boolean).join('. '),
      by: row.by,
      runId: row.runId,
      colour: row.colour,
    })),
    ...revisions.map((row): HistoryEntry => ({
      id: row.id,
      at: row.at.toISOString(),
      kind: 'revision',
      title: `${row.loopName}: revision ${row.number}, ${row.kind === 'as-built' ? 'as built' : row.kind}`,
      text: row.reason,
      by: row.by,
      ...none,
    })),
    ...findings.map((row): HistoryEntry => ({
      id: row.id,
      at: row.foundAt.toISOString(),
      kind: 'finding',
      title: 'Finding',
      text: row.text,
      by: null,
      ...none,
    })),
    ...dues
      .filter(({ due }) => due.kind === 'settling-check' && due.state === 'closed' && !due.outcome.startsWith('the loop'))
      .map(({ due, by }): HistoryEntry => ({
        id: due.id,
        at: (due.closedAt as Date).toISOString(),
        kind: 'check',
        title: 'Settling check',
        text: capital(due.outcome),
        by,
        ...none,
      })),
    ...putOff.map(({ row, by }): HistoryEntry => ({
      id: row.id,
      at: row.createdAt.toISOString(),
      kind: 'postponed',
      title: `Put off until ${row.until}`,
      text: `${row.reason}. The risk was told.`,
      by,
      ...none,
    })),
  ];
  return entries.sort((a, b) => b.at.localeCompare(a.at));
}

function volumes(row: { pouredMl: number | null; drainedMl: number | null; coolantName: string | null }): string {
  if (row.pouredMl === null) return '';
  const out = row.drainedMl === null ? '' : `${formatMl(row.drainedMl)} out, `;
  return `${out}${formatMl(row.pouredMl)} of ${row.coolantName ?? 'coolant'} in`;
}
