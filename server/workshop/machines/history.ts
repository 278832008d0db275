import { desc, eq, inArray } from 'drizzle-orm';
import { JOB_WORDS } from '../../../core/workshop/jobs/kinds.js';
import { capital } from '../../../core/edge/words/say.js';
import { findingWords, outcomeWords, reasonWords } from '../../../core/edge/words/dates.js';
import { formatDay, formatMl } from '../../../core/base/units/display.js';
import { person } from '../../base/database/tables/people.js';
import { baseline, fill, run } from '../../base/database/tables/runs.js';
import { message } from '../../base/database/tables/messages.js';
import { photo } from '../../base/database/tables/photos.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem, postponement } from '../../base/database/tables/due-dates.js';
import type { Ask } from '../../base/http/context.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { finding, job } from '../../base/database/tables/machines.js';

export interface HistoryEntry {
  readonly id: string;
  /** a calendar day or an instant; both sort as text */
  readonly at: string;
  readonly kind: 'job' | 'run' | 'revision' | 'finding' | 'check' | 'postponed' | 'follow-up' | 'photo' | 'reading' | 'message';
  readonly title: string;
  readonly text: string;
  readonly by: string | null;
  readonly runId: string | null;
  readonly colour: string | null;
  /** id of a picture */
  readonly photoId?: string;
  /** its run is still going on */
  readonly open?: boolean;
}

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
        `${JOB_WORDS[row.job.kind] ?? row.job.kind}${row.job.state === 'booked' ? ', booked' : row.job.state === 'active' ? ', in progress' : row.job.state === 'cancelled' ? ', abandoned' : ''}`,
      ),
      text: [volumes(row), row.job.note].filter(Boolean).join('. '),
      by: row.by,
      runId: row.runId,
      colour: row.colour,
      open: row.job.state === 'active',
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
      text: findingWords(row.fact),
      by: null,
      ...none,
    })),
    ...dues
      .filter(
        ({ due }) =>
          due.kind === 'settling-check' &&
          due.state === 'closed' &&
          due.outcome?.why !== 'filled-anew' &&
          due.outcome?.why !== 'topped-up' &&
          due.outcome?.why !== 'loop-ended',
      )
      .map(({ due, by }): HistoryEntry => ({
        id: due.id,
        at: (due.closedAt as Date).toISOString(),
        kind: 'check',
        title: 'Settling check',
        text: capital(due.outcome ? outcomeWords(due.outcome) : ''),
        by,
        ...none,
      })),
    ...dues
      .filter(({ due }) => due.kind === 'dust-clean' && due.state === 'closed' && due.outcome?.why === 'done')
      .map(({ due, by }): HistoryEntry => ({
        id: due.id,
        at: (due.closedAt as Date).toISOString(),
        kind: 'check',
        title: 'Fins and filters cleaned',
        text: capital(due.outcome ? outcomeWords(due.outcome) : ''),
        by,
        ...none,
      })),
    ...dues
      .filter(({ due }) => due.kind === 'follow-up' && due.state === 'closed')
      .map(({ due, by }): HistoryEntry => ({
        id: due.id,
        at: (due.closedAt as Date).toISOString(),
        kind: 'follow-up',
        title: 'Follow-up closed',
        text: [reasonWords(due.reason), ...(due.outcome ? [outcomeWords(due.outcome)] : [])].map(capital).join('. '),
        by,
        ...none,
      })),
    ...(await measuredAndSeen({ scope }, systemId)),
    ...putOff.map(({ row, by }): HistoryEntry => ({
      id: row.id,
      at: row.createdAt.toISOString(),
      kind: 'postponed',
      title: `Put off until ${formatDay(row.until)}`,
      text: `${row.reason.replace(/\.+$/, '')}. The risk was told.`,
      by,
      ...none,
    })),
  ];
  return entries.sort((a, b) => b.at.localeCompare(a.at));
}

/** Baselines, photographs and messages of one machine. */
async function measuredAndSeen({ scope }: Pick<Ask, 'scope'>, systemId: string): Promise<HistoryEntry[]> {
  const measured = await scope
    .select({ id: baseline.id, at: baseline.takenAt, reading: baseline.reading, runId: baseline.runId })
    .from(baseline)
    .innerJoin(loopRevision, eq(loopRevision.id, baseline.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .where(eq(loop.systemId, systemId));
  const pictures = await scope
    .select({ id: photo.id, at: photo.createdAt, caption: photo.caption, by: person.name })
    .from(photo)
    .innerJoin(person, eq(person.id, photo.personId))
    .where(eq(photo.systemId, systemId));
  const told = await scope
    .select({ id: message.id, at: message.createdAt, subject: message.subject, state: message.state, by: person.name })
    .from(message)
    .leftJoin(person, eq(person.id, message.personId))
    .where(eq(message.systemId, systemId));
  const plain = { runId: null, colour: null };
  return [
    ...measured.map(({ id, at, reading: { setting, sensor, partC, roomC, flowLph }, runId }): HistoryEntry => ({
      id,
      at: at.toISOString(),
      kind: 'reading',
      title: `Measured, ${setting}`,
      text: `${sensor} ${(partC - roomC).toFixed(1)} K above the room${flowLph === null ? '' : `, ${Math.round(flowLph)} L/h`}`,
      by: null,
      runId,
      colour: null,
    })),
    ...pictures.map(({ id, at, caption, by }): HistoryEntry => ({
      id,
      at: at.toISOString(),
      kind: 'photo',
      title: 'Photograph',
      text: caption,
      by,
      photoId: id,
      ...plain,
    })),
    ...told.map(({ id, at, subject, state, by }): HistoryEntry => ({
      id,
      at: at.toISOString(),
      kind: 'message',
      title: `Message ${state === 'sent' ? 'sent' : state === 'failed' ? 'could not be sent' : 'waits'}`,
      text: subject,
      by,
      ...plain,
    })),
  ];
}

function volumes(row: { pouredMl: number | null; drainedMl: number | null; coolantName: string | null }): string {
  if (row.pouredMl === null) return '';
  const out = row.drainedMl === null ? '' : `${formatMl(row.drainedMl)} out, `;
  return `${out}${formatMl(row.pouredMl)} of ${row.coolantName ?? 'coolant'} in`;
}
